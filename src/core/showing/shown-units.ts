/** Access points that are set through a unit: how one is let in, opened and set, as it was shown for one of them. */
import { parse, stringify } from 'yaml'
import { firstCard } from '../kit/bare-card'
import type { Act } from './act'
import { type CardRadio, withOffered } from './card-radios'
import { statesIn } from './joined-row'
import type { MissingPart } from './missing-part'
import type { ShownRecord } from './record'
import { anyOf, ats, canOf, confirmsOf, fieldsAndRadios, idOf } from './shown-fields'
import { type Single, type Turn, turnsOf } from './turns'
import { wayTo } from './ways'

const isPress = (act: Act, role: string): boolean => act.does.kind === 'press' && act.does.role === role
const isInRow = ({ does }: Act): boolean => does.kind === 'press' && does.row !== undefined

/**
 * What was done for an access point; of its turns those in which a setting of its own, or of its radios, was put in.
 */
function doneForJoined({ acts: all }: ShownRecord): { acts: Act[]; turns: Turn[]; singles: Single[] } {
  const acts = all.filter((act) => act.for === 'joined')
  const { turns, singles } = turnsOf(acts, all)
  const isOwn = (act: Act): boolean => !(idOf(act) ?? 'network.').startsWith('network.')
  return { acts, turns: turns.filter(({ fills }) => fills.some(isOwn)), singles }
}

/**
 * The part `units` of a card.
 *
 * @param missing  told what was not shown @returns undefined where nothing was, or something is missing
 */
export function unitsOf(record: ShownRecord, missing: MissingPart[]): Record<string, unknown> | undefined {
  const { acts, turns, singles } = doneForJoined(record)
  if (acts.length === 0) return undefined
  const { joined } = record
  const single = (role: string) =>
    singles.find(({ press }) => isPress(press, role) && (role === 'close' || isInRow(press)))
  const [takeIn, close] = [single('take-in'), single('close')]
  const open = acts.findLast((act) => isInRow(act) && isPress(act, 'way'))
  const press = anyOf(turns.flatMap((turn) => turn.press?.at ?? []))
  const { at: stateAt, words } = statesIn(record)
  const states = Object.fromEntries(
    words.flatMap(({ words: text, state }) => (state === undefined || state === 'none' ? [] : [[text, state]])),
  )
  if (!joined) missing.push({ code: 'no-unit-row' })
  if (!open) missing.push({ code: 'no-unit-open' })
  if (!press) missing.push({ code: 'no-unit-settings' })
  if (joined && !Object.values(states).includes('run')) missing.push({ code: 'no-joined-state' })
  for (const { words: text, state } of words)
    if (stateAt !== undefined && state === undefined) missing.push({ code: 'unknown-state', words: text })
  if (!joined || !open || !press || stateAt === undefined) return undefined
  const reach = ats(wayTo(record.acts, open).filter((act) => !isInRow(act)))
  const last = turns.findLast((turn) => turn.press)
  return {
    path: joined.path,
    ...(reach.length > 0 ? { reach } : {}),
    row: joined.each,
    [joined.known.by]: { at: joined.known.at },
    ...(joined.name === undefined ? {} : { name: { at: joined.name } }),
    ...(joined.address === undefined ? {} : { address: { at: joined.address } }),
    state: { at: stateAt },
    states,
    ...(takeIn ? { takeIn: { press: takeIn.press.at, ...confirmsOf(takeIn) } } : {}),
    open: open.at,
    ...(close ? { close: close.press.at } : {}),
    ...fieldsAndRadios(turns.map(({ fills }) => fills)),
    press,
    ...(last ? confirmsOf(last) : {}),
  }
}

interface Joined {
  readonly model: string
  readonly mac: string
}

/**
 * A card for the model of the access point that was shown.
 *
 * @param by  `maker model` of the unit that it is set through @param can  what that one's own networks take
 */
export function joinedCard(
  record: ShownRecord,
  { model, mac }: Joined,
  by: string,
  can: Readonly<Record<string, unknown>>,
): string {
  const card = parse(firstCard(model)) as Record<string, unknown>
  const { acts, turns } = doneForJoined(record)
  const ofNetworks = Object.entries(can).filter(([id]) => id.startsWith('network.'))
  Object.assign(card, {
    role: 'managed-access-point',
    recognise: { macPrefixes: [mac.slice(0, 8)] },
    factory: { address: null, addressing: 'dhcp-only', login: { user: '', password: '' }, port: 443 },
    radios: withOffered(card.radios as CardRadio[], acts),
    can: { ...canOf(turns), ...Object.fromEntries(ofNetworks) },
    dialect: { kind: 'managed', by: [by] },
  })
  return `# Made by showing, through ${by}. Read it over.\n${stringify(card, { lineWidth: 118 })}`
}
