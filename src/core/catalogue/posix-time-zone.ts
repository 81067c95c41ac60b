/**
 * Time zones as units write them: many take no name of the IANA list, but a rule of POSIX (IEEE Std 1003.1-2017, 8.3,
 * TZ): `<+12>-12<+13>,M9.5.0,M4.1.0/3`.
 */

const hourMs = 3_600_000
const dayMs = 24 * hourMs
/** The rule must hold for so many years from the day that it is made for. */
const years = 2

interface Transition {
  /** Minutes east of Greenwich. */
  readonly from: number
  readonly to: number
  /** `M9.5.0/2` candidates: the week counted from the front, and the last. */
  readonly rules: readonly string[]
}

/**
 * The rule of POSIX that a zone keeps to for the next two years; undefined where it keeps to none.
 *
 * @param zone   name of the IANA list
 * @param today  from when on
 */
export function posixTimeZone(zone: string, today: Date): string | undefined {
  const key = `${zone} ${today.toISOString().slice(0, 10)}`
  if (!known.has(key)) known.set(key, ruleOf(zone, today.getTime()))
  return known.get(key)
}
const known = new Map<string, string | undefined>()

function ruleOf(zone: string, begin: number): string | undefined {
  const format = new Intl.DateTimeFormat('en-US', { timeZone: zone, timeZoneName: 'longOffset' })
  const offsetAt = (ms: number): number => {
    const name = format.formatToParts(ms).find(({ type }) => type === 'timeZoneName')?.value ?? ''
    const [, sign, hours, minutes] = /^GMT(?:([+-])(\d\d):(\d\d))?/.exec(name) ?? []
    return (sign === '-' ? -1 : 1) * (Number(hours ?? 0) * 60 + Number(minutes ?? 0))
  }
  const transitions: Transition[] = []
  for (let day = begin; day < begin + years * 365 * dayMs; day += dayMs) {
    const [from, to] = [offsetAt(day), offsetAt(day + dayMs)]
    if (from !== to) transitions.push(transitionIn(day, from, to, offsetAt))
  }
  const [first, second] = transitions
  const standard = offsetAt(begin)
  if (!first) return `${nameOf(standard)}${posixOffset(standard)}`
  if (!second || transitions.length !== 2 * years) return undefined
  const forward = transitions.filter(({ from, to }) => to > from)
  const back = transitions.filter(({ from, to }) => to < from)
  const [start, end] = [agreed(forward), agreed(back)]
  const winter = forward[0]?.from
  const summer = forward[0]?.to
  if (!start || !end || winter === undefined || summer === undefined) return undefined
  const steady = forward.every(({ from, to }) => from === winter && to === summer)
  if (!steady) return undefined
  const shift = summer - winter === 60 ? '' : posixOffset(summer)
  return `${nameOf(winter)}${posixOffset(winter)}${nameOf(summer)}${shift},${start},${end}`
}

/** The moment within a day at which the offset changes, as the clock on the wall showed it just before. */
function transitionIn(day: number, from: number, to: number, offsetAt: (ms: number) => number): Transition {
  let [low, high] = [day, day + dayMs]
  while (high - low > 1000) {
    const middle = Math.floor((low + high) / 2)
    if (offsetAt(middle) === from) low = middle
    else high = middle
  }
  const wall = new Date(Math.round(high / 60_000) * 60_000 + from * 60_000)
  const month = wall.getUTCMonth() + 1
  const date = wall.getUTCDate()
  const days = new Date(Date.UTC(wall.getUTCFullYear(), month, 0)).getUTCDate()
  const minutes = wall.getUTCHours() * 60 + wall.getUTCMinutes()
  const time = minutes === 120 ? '' : `/${clockWords(minutes)}`
  const weeks = [Math.ceil(date / 7), ...(date > days - 7 ? [5] : [])]
  return { from, to, rules: weeks.map((week) => `M${month}.${week}.${wall.getUTCDay()}${time}`) }
}

/** A rule that all of them keep to. */
function agreed(transitions: readonly Transition[]): string | undefined {
  return [...(transitions[0]?.rules ?? [])]
    .reverse()
    .find((rule) => transitions.every(({ rules }) => rules.includes(rule)))
}

function clockWords(minutes: number): string {
  const rest = Math.abs(minutes) % 60
  const sign = minutes < 0 ? '-' : ''
  return `${sign}${Math.floor(Math.abs(minutes) / 60)}${rest === 0 ? '' : `:${String(rest).padStart(2, '0')}`}`
}
/** POSIX counts west of Greenwich. */
function posixOffset(minutes: number): string {
  return clockWords(minutes === 0 ? 0 : -minutes)
}
function nameOf(minutes: number): string {
  const two = (value: number): string => String(value).padStart(2, '0')
  const rest = Math.abs(minutes) % 60
  return `<${minutes < 0 ? '-' : '+'}${two(Math.floor(Math.abs(minutes) / 60))}${rest === 0 ? '' : two(rest)}>`
}

const posixForm =
  /^(?:<[^>]{1,10}>|[A-Za-z]{3,10})([-+]?[\d:]{1,8})(?:(?:<[^>]{1,10}>|[A-Za-z]{3,10})([-+]?[\d:]{1,8})?)?(,.{1,60})?$/

/** Are two the same zone? Names within a rule of POSIX are for people: `NZST-12NZDT` is `<+12>-12<+13>`. */
export function sameTimeZone(a: string, b: string): boolean {
  const [one, other] = [plain(a), plain(b)]
  return a === b || (one !== undefined && one === other)
}

function plain(rule: string): string | undefined {
  const match = posixForm.exec(rule)
  if (!match) return undefined
  const [, standard = '', summer = '', transitions = ''] = match
  const short = (text: string): string =>
    text
      .replace(/^\+/, '')
      .replace(/(:00)+$/, '')
      .replace(/^(-?)0+(?=\d)/, '$1')
  const shift = short(summer) === '' || Number(short(summer)) === Number(short(standard)) - 1 ? '' : short(summer)
  return [short(standard), shift, transitions.replaceAll(/\/0?2(:00)*(?=,|$)/g, '')].join(' ')
}
