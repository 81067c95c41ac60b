/** Networks as rows of a table: how one is added, opened and taken away, as it was shown. */
import type { Described } from '../kit/page-element'
import type { Act } from './act'
import type { MissingPart } from './missing-part'
import type { ShownRecord } from './record'
import { pressesOf, saidBy, savedWords } from './saved-words'
import { anyOf, confirmsOf, fieldsOf } from './shown-fields'
import type { Single, Turn } from './turns'

/** @param missing  told what was not shown @returns undefined where anything is missing */
export function rowsOf(
  record: ShownRecord,
  turns: readonly Turn[],
  singles: readonly Single[],
  saved: Described | undefined,
  missing: MissingPart[],
) {
  const { acts } = record
  const isInRow = ({ does }: Act): boolean => does.kind === 'press' && does.row !== undefined
  const opened = acts.filter((act) => isInRow(act) && act.does.kind === 'press' && act.does.role === 'way')
  const isInline = ({ path, reach }: Turn): boolean => reach.length === 0 && Object.hasOwn(record.rows, path)
  // Some open a row again once it is there: that is not how it is added.
  const added = turns.filter((turn) => turn.press && (isInline(turn) || !isInRow(lastWay(acts, turn) ?? turn.press)))
  const adding = added.flatMap((turn) => {
    if (isInline(turn)) return []
    const [first] = turn.reach.filter((act) => !isInRow(act))
    const last = lastWay(acts, turn)
    return first ? [first] : last ? [last] : []
  })
  const add = adding.at(-1)
  const role = (which: string): Single | undefined =>
    singles.find(({ press }) => press.does.kind === 'press' && press.does.role === which)
  const [remove, close] = [role('remove'), role('close')]
  const open = opened.findLast(({ path }) => Object.hasOwn(record.rows, path))
  const row = open && record.rows[open.path]
  if (!open) missing.push({ code: 'no-open' })
  if (!remove) missing.push({ code: 'no-remove' })
  const isAddedBeside = added.some(isInline)
  if (!add && !isAddedBeside) missing.push({ code: 'no-add' })
  if (Object.keys(record.rows).length === 0) missing.push({ code: 'no-row' })
  const presses = turns.flatMap(({ press }) => press ?? [])
  const press = anyOf(presses.map(({ at }) => at))
  if (!press || !(add || isAddedBeside) || !open || !remove || !row) return undefined
  const { name, each } = row
  const isBefore = ({ number }: Act): boolean => number < remove.press.number
  const whenOpened = !isInRow(remove.press) && opened.some(isBefore)
  return {
    path: open.path,
    row: each,
    name: { at: name },
    ...(add ? { add: add.at } : {}),
    open: open.at,
    ...(close ? { close: close.press.at } : {}),
    remove: {
      press: remove.press.at,
      ...(whenOpened ? { whenOpened } : {}),
      ...confirmsOf(remove),
      ...saidBy(pressesOf(remove), saved),
    },
    fields: fieldsOf(turns.map(({ fills }) => fills)),
    press,
    ...confirmsOf(added.at(-1) ?? { confirms: [] }),
    ...saidOf(turns, saved),
  }
}

/** What was pressed last before a page was filled in, and led there. */
const lastWay = (acts: readonly Act[], { fills: [first] }: Turn): Act | undefined =>
  acts.findLast(({ number, does }) => number < (first?.number ?? 0) && does.kind === 'press' && does.role === 'way')

/** How the page says that a row was added, or changed. */
function saidOf(turns: readonly Turn[], common: Described | undefined): { saved?: Described } {
  const said = turns.flatMap((turn) => savedWords(pressesOf(turn)) ?? [])
  const saved = anyOf(said)
  return saved && JSON.stringify(saved) !== JSON.stringify(common) ? { saved } : {}
}
