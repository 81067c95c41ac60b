/**
 * The record of a showing: what hands did on a unit's pages, each act with the element that it was done to and what
 * its value means. It holds no secret and no value of the site: a value is kept as the setting that it is of.
 */
import type { Spoken } from '../config/outcomes'
import type { SettingKey } from '../config/unit-config'
import type { Described, ElementFacts } from '../kit/page-element'
import type { Act, ActValue, PressRole } from './act'
import type { SaidState } from './join-states'
import { type JoinedRow, type JoinedUnit, joinedRowOn } from './joined-row'
import { likelySetting, meaningOfChoice, meaningOfText } from './meaning'
import type { Noted, NotedRow, ProtocolLogin, Puts } from './noted'
import { describe } from './seek'
import { pathWithoutSecrets, type SiteWords, siteWords } from './site-words'
import { standingIn } from './standing'
import { tickOf } from './ticks'
import { broughtBy, type Came, cameWith, nothingCame } from './ways'

/** Where a unit's pages answer. */
export interface Door {
  readonly address: string
  readonly scheme: 'http' | 'https'
  readonly port: number
}

export interface ShownRecord {
  /** Where it answered when the showing began: out of its box. */
  readonly from: Door | undefined
  /** How the protocol itself asked who is there, where it did. */
  readonly login: ProtocolLogin | undefined
  readonly acts: readonly Act[]
  /** Where a page shows the unit's MAC. */
  readonly mac: { readonly path: string; readonly at: Described } | undefined
  /** Pages on which networks stand in rows. */
  readonly rows: Readonly<Record<string, NotedRow>>
  /** The page as it stood at the last act. */
  readonly before: readonly ElementFacts[]
  /** How what is on the page now came there. */
  readonly came: Came
  /** What rows of its tables are called, and on which page; empty where it is on several, as a menu is. */
  readonly named: Readonly<Record<string, string>>
  /** What was typed and means nothing, by the number of its act: it goes into no card unless somebody says so. */
  readonly texts: Readonly<Record<number, string>>
  /** Where an access point that is set through this unit stands, once hands have acted for it. */
  readonly joined: JoinedRow | undefined
  /** What somebody says of words that stood in its row: the state that they mean, or none. */
  readonly states: Readonly<Record<string, SaidState>>
}
export const nothingShown: ShownRecord = {
  from: undefined,
  login: undefined,
  acts: [],
  mac: undefined,
  rows: {},
  before: [],
  came: nothingCame,
  named: {},
  texts: {},
  joined: undefined,
  states: {},
}

/** What is known of the unit that is shown. */
export interface Showing {
  readonly mac: string
  /** Whom hands act for, where that is not the unit itself. */
  readonly joined?: JoinedUnit | undefined
  /** What the one that they act for is to be. */
  readonly spoken: readonly Spoken[]
  /** Others that hands have acted for, and the unit itself: nothing of theirs stands in a card either. */
  readonly beside?: readonly { readonly mac: string; readonly spoken: readonly Spoken[] }[]
  readonly factory: { readonly user: string; readonly password: string }
  /** What was put in from the list beside the window, the last at the end. */
  readonly putIn: readonly SettingKey[]
}

const mostNamed = 500

/** Adds what a page told, or how a login was asked for. */
export function withNoted(record: ShownRecord, told: Noted | ProtocolLogin, showing: Showing): ShownRecord {
  if (typeof told === 'string') return { ...record, login: told }
  const { mac, spoken, beside = [] } = showing
  const allSpoken = [...spoken, ...beside.flatMap((each) => each.spoken)]
  const noted = { ...told, path: pathWithoutSecrets(told.path, allSpoken) }
  const { facts, path, hands, rows } = noted
  const named = namedWith(record.named, noted)
  const isOnOnePage = ([, page]: [string, string]): boolean => page !== ''
  const ofSite = siteWords(
    { spoken: allSpoken, macs: [mac, ...beside.map((each) => each.mac)] },
    Object.entries(named)
      .filter(isOnOnePage)
      .map(([words]) => words),
  )
  const came = cameWith(record.came, noted, record.acts)
  const seen: ShownRecord = {
    ...record,
    mac: record.mac ?? macOn(noted, showing),
    rows: { ...rowsOn(path, rows, showing), ...record.rows },
    joined: joinedRowOn(noted, showing.joined, record.joined),
    named,
    came,
  }
  // What appears as a field is entered is no answer to what was pressed before.
  if (!hands) return noted.entered ? seen : { ...seen, acts: withAppeared(record, facts, ofSite) }
  const own = facts.find((each) => each.seen === hands.seen)
  if (!own) return seen
  const row = hands.kind === 'pressed' ? (hands.row ?? undefined) : undefined
  // Within a row an element is told from those of the same row alone.
  const within = new Set(row && hands.kind === 'pressed' ? hands.within : [])
  const alike = within.size > 0 ? facts.filter(({ seen: each }) => within.has(each)) : facts
  const at = describe(alike, own, ofSite)
  if (!at) return seen
  const label = labelOf(own, ofSite)
  const does: Act['does'] =
    hands.kind === 'pressed'
      ? { kind: 'press', role: roleOf(record, noted.path, hands, own, showing), row }
      : {
          kind: 'puts',
          value: actValue(record, hands, own, { ...showing, ofSite }),
          stood: false,
          offered: hands.kind === 'chosen' ? hands.offered : [],
        }
  const stood = does.kind === 'press' && does.role === 'saves' ? standingActs(record, noted, showing, ofSite, came) : []
  const acts = [...record.acts, ...stood]
  const number = (acts.at(-1)?.number ?? 0) + 1
  const act: Act = { number, for: whom(showing), path, at, label, does, after: broughtBy(came, own), appeared: [] }
  const isUnknown = does.kind === 'puts' && does.value.kind === 'unknown' && hands.kind === 'typed'
  const texts = isUnknown ? { ...record.texts, [number]: hands.text } : record.texts
  return { ...seen, acts: joined(acts, act), before: facts, texts }
}

const whom = ({ joined }: Showing): Act['for'] => (joined ? 'joined' : 'itself')

const labelOf = ({ label, text, hint, name, heading }: ElementFacts, ofSite: SiteWords): string =>
  [label || text || hint || name, heading].filter((each) => each && !ofSite.has(each)).join(', ')

/** What stood right in the fields of a page that is saved, beside what hands have put in since the last press. */
function standingActs(
  record: ShownRecord,
  { path, facts, hands }: Noted,
  showing: Showing,
  ofSite: SiteWords,
  came: Came,
): Act[] {
  if (hands?.kind !== 'pressed') return []
  const since = record.acts.slice(record.acts.findLastIndex(({ does }) => does.kind === 'press') + 1)
  const known = new Set(since.map(({ at }) => JSON.stringify(at)))
  const last = record.acts.at(-1)?.number ?? 0
  const hints = { spoken: showing.spoken, network: networkAt(record), acts: record.acts }
  const stood = hands.standing.flatMap((field): Omit<Act, 'number'>[] => {
    const own = facts.find(({ seen }) => seen === field.seen)
    const standing = own && standingIn(field, own, hints)
    if (!standing) return []
    const { value } = standing
    // What stands in a list may be of the site: it goes into no card as words.
    const isOfSite = field.kind === 'chosen' && ofSite.has(field.value)
    if (isOfSite && value.kind === 'setting' && Object.keys(value.how).length > 0) return []
    const at = describe(facts, own, ofSite)
    if (!at || known.has(JSON.stringify(at))) return []
    const does = { kind: 'puts', stood: true, ...standing } as const
    const label = labelOf(own, ofSite)
    return [{ for: whom(showing), path, at, label, does, after: broughtBy(came, own), appeared: [] }]
  })
  return stood.map((act, index) => ({ ...act, number: last + 1 + index }))
}

function namedWith(named: ShownRecord['named'], { path, rows }: Noted): ShownRecord['named'] {
  const [page = ''] = path.split('?')
  const all = new Map(Object.entries(named))
  for (const { each, text, isFirst } of rows)
    if (each !== 'li' && isFirst) all.set(text, (all.get(text) ?? page) === page ? page : '')
  return Object.fromEntries([...all].slice(-mostNamed))
}

/** What is put into the same element again, before anything is pressed, takes the place of what was there. */
function joined(acts: readonly Act[], act: Act): Act[] {
  const pressed = acts.findLastIndex(({ does }) => does.kind === 'press')
  const isSame = (each: Act, index: number): boolean =>
    index > pressed && each.path === act.path && JSON.stringify(each.at) === JSON.stringify(act.at)
  const kept = act.does.kind === 'puts' ? acts.filter((each, index) => !isSame(each, index)) : acts
  return [...kept, act]
}

/** Which of the unit's settings a field that was entered is likely to be of; undefined where its words say nothing. */
export function likelyFor(record: ShownRecord, { facts, entered }: Noted, { spoken }: Showing): SettingKey | undefined {
  const own = entered && facts.find(({ seen }) => seen === entered.seen)
  if (!own) return undefined
  const words = own.label || own.hint || own.name
  return likelySetting(spoken, own, { words, isPassword: entered.isPassword, network: networkAt(record) })
}

/** What somebody says of an act: what its value is, or what its press is for. */
export function answered(record: ShownRecord, number: number, value: ActValue | PressRole): ShownRecord {
  const acts = record.acts.map((act): Act => {
    if (act.number !== number) return act
    if (act.does.kind === 'press')
      return typeof value === 'string' ? { ...act, does: { ...act.does, role: value } } : act
    return typeof value === 'string' ? act : { ...act, does: { ...act.does, value } }
  })
  return { ...record, acts }
}

function macOn({ path, facts }: Noted, { mac }: Showing): ShownRecord['mac'] {
  const shows = facts.find(
    ({ use, text }) => use === 'show' && text.toLowerCase().replace(/[^0-9a-f]/g, '') === mac.replaceAll(':', ''),
  )
  const at = shows && describe(facts, shows, { has: (words) => words === shows.text, rest: () => '' })
  return at && { path, at }
}

/** A row that is called as one of the networks is. */
function rowsOn(path: string, rows: Noted['rows'], { spoken }: Showing): ShownRecord['rows'] {
  const names = spoken.filter(({ id }) => id === 'network.ssid').map(({ value }) => value)
  const found = rows.find(({ text }) => names.includes(text))
  return found ? { [path]: { each: found.each, name: found.name } } : {}
}

function withAppeared(
  { acts, before }: ShownRecord,
  facts: readonly ElementFacts[],
  ofSite: SiteWords,
): readonly Act[] {
  const last = acts.at(-1)
  if (last?.does.kind !== 'press') return acts
  const known = new Set(before.map(({ text }) => text))
  const words = new Set(last.appeared.map((each) => JSON.stringify(each)))
  const added = facts.flatMap((each): Described[] => {
    if (each.use !== 'show' || known.has(each.text)) return []
    const at = describe(facts, each, ofSite)
    return at?.by.some(({ text, part }) => text !== undefined || part !== undefined) && !words.has(JSON.stringify(at))
      ? [at]
      : []
  })
  return [...acts.slice(0, -1), { ...last, appeared: [...last.appeared, ...added].slice(0, 40) }]
}

/** Links and tabs lead on, unless their words say that they do more. */
const doesMore =
  /\b(save|apply|submit|ok|update|next|continue|finish|done|log ?in|sign ?in|add|create|install|confirm|change)\b/i
/** What lets an access point in that waits for it. */
const takesIn = /\b(take in|accept|approve|allow|admit|add|authori[sz]e|claim|join|register|trust)\b/i
const flushes: ReadonlySet<PressRole> = new Set(['saves', 'close', 'remove', 'take-in', 'effect', 'restart'])

function roleOf(
  { acts }: ShownRecord,
  path: string,
  { row, isButton }: Extract<NonNullable<Noted['hands']>, { kind: 'pressed' }>,
  { text, label }: ElementFacts,
  { joined }: Showing,
): PressRole {
  const words = text || label
  if (joined && row !== null && takesIn.test(words)) return 'take-in'
  const flushed = acts.findLastIndex(({ does }) => does.kind === 'press' && flushes.has(does.role))
  const since = acts.slice(flushed + 1)
  const isInRow = row !== null || since.some(({ does }) => does.kind === 'press' && does.row !== undefined)
  if (/^(cancel|close|back|×|x)$/i.test(words)) return 'close'
  if (since.some((each) => each.does.kind === 'puts' && each.path === path) && (isButton || doesMore.test(words)))
    return 'saves'
  if (isInRow && /\b(remove|delete|take away)\b/i.test(words)) return 'remove'
  if (/\b(restart|reboot|start again)\b/i.test(words)) return 'restart'
  if (/\b(sign|log) ?(out|off)\b/i.test(words)) return 'sign-out'
  if (/\b(save|apply) (all|changes|configuration)\b|\b(commit|activate)\b/i.test(words)) return 'effect'
  return 'way'
}

/** The network that is being set: the one whose name was put in last, on this page. */
function networkAt({ acts }: ShownRecord): string | undefined {
  for (const { does } of acts.toReversed())
    if (does.kind === 'puts' && does.value.kind === 'setting' && does.value.id === 'network.ssid') return does.value.of
  return undefined
}

function actValue(
  record: ShownRecord,
  hands: Puts,
  own: ElementFacts,
  { spoken, factory, putIn, ofSite }: Showing & { readonly ofSite: SiteWords },
): ActValue {
  const network = networkAt(record)
  if (hands.kind === 'typed') {
    const meaning = meaningOfText(spoken, hands.text, own, { putIn, network })
    if (meaning) return { kind: 'setting', ...meaning }
    if (hands.text !== '' && hands.text === factory.password) return { kind: 'factory', part: 'password' }
    if (hands.text !== '' && hands.text === factory.user) return { kind: 'factory', part: 'user' }
    return { kind: 'unknown' }
  }
  if (hands.kind === 'chosen') {
    const meaning = meaningOfChoice(spoken, hands.value, own, { network })
    // What stands in a list may be of the site too: it goes into no card as words.
    const isOwn = ofSite.has(hands.value)
    if (meaning && (!isOwn || Object.keys(meaning.how).length === 0)) return { kind: 'setting', ...meaning }
    return isOwn ? { kind: 'unknown' } : { kind: 'always', text: hands.value }
  }
  const tick = tickOf(own.label, { isOneOfSeveral: hands.isOneOfSeveral, network })
  if (tick && (hands.ticked || tick.id !== 'network.bands')) return tick
  const meaning = meaningOfChoice(spoken, hands.ticked, own, { network })
  return meaning ? { kind: 'setting', ...meaning } : { kind: 'ticked', ticked: hands.ticked }
}
