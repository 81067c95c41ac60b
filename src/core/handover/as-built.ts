/**
 * The as-built sheet: what each unit is and where, as it was proven. No secrets: credentials are sealed apart.
 */
import Papa from 'papaparse'
import type { Brief } from '../brief/brief'
import { type SettingOutcome, standing } from '../config/outcomes'
import { type Config, keyText, type Mark } from '../config/unit-config'
import type { KitCard } from '../kit/kit-card'
import { named, offersWords } from '../kit/old-crypto'
import type { Unit } from '../kit/unit'
import { type Check, checkWords } from '../muster/check'
import { heldWords } from '../muster/held'
import { procedure } from '../muster/procedure'
import { answers, heldStep, isChanged, type Roll, type RollRow } from '../muster/roll'
import type { UnitPlan } from '../plan/plan'
import { conductedOf, eirpOf } from '../radio/channels/power'

export interface ByHand {
  readonly who: string
  readonly at: number
}

export interface AsBuiltInput {
  readonly brief: Brief
  readonly units: readonly Unit[]
  /** By `maker model`. */
  readonly cards: ReadonlyMap<string, Pick<KitCard, 'does'>>
  readonly plans: ReadonlyMap<string, UnitPlan>
  readonly roll: Roll
  /** Every setting that is asked of each unit, with what could be said of it before. */
  readonly expected: ReadonlyMap<string, readonly SettingOutcome[]>
}

export interface AsBuiltRadio {
  readonly band: string
  /** Where it is: where radar moved it, if that is still so. */
  readonly channel: number
  /** What is planned for it, where that is another. */
  readonly plannedChannel: number | undefined
  readonly width: number
  /** As it is set, dBm. */
  readonly powerDbm: number
  /** What its chains put out together, what its antenna makes of it (EIRP), dBm, and its gain, dBi. */
  readonly conductedDbm: number | undefined
  readonly eirpDbm: number | undefined
  readonly gainDbi: number | undefined
}

export interface AsBuiltRow {
  readonly name: string
  readonly place: string
  readonly model: string
  readonly mac: string
  readonly serial: string
  readonly siteSwitch: string
  readonly sitePort: string
  readonly address: string
  readonly radios: readonly AsBuiltRadio[]
  /** What it ran when it was proven last; empty where it does not tell. */
  readonly firmware: string
  readonly networks: readonly string[]
  /** The BSSID of each network on each radio, as it was proven; none where the unit does not tell. */
  readonly cells: readonly { readonly band: string; readonly ssid: string; readonly bssid: string }[]
  /** The open network that it came with on air, and for how many seconds it stood since the unit was first seen. */
  readonly shippedOpen: { readonly ssid: string; readonly seconds: number } | undefined
  /** `by hand`: no muster sets its model, and its papers are complete when somebody has seen to every setting. */
  readonly state: 'answers' | 'answers, set by hand' | 'changed since' | 'held' | 'not mustered' | 'by hand'
  readonly remark: string
  /** What became of each setting that was asked of it. */
  readonly outcomes: readonly SettingOutcome[]
  /** Settings that no muster can set, and who has seen to each; undefined where nobody has. */
  readonly byHand: readonly { readonly setting: SettingOutcome; readonly done: ByHand | undefined }[]
  /** When the last check was made, ms since 1970, and by which machine. */
  readonly provenAt: number | undefined
  readonly provenBy: string | undefined
}

export function asBuilt({ brief, units, cards, plans, roll, expected }: AsBuiltInput): AsBuiltRow[] {
  return units.map((unit) => {
    const row = roll.rows.get(unit.id)
    const plan = plans.get(unit.id)
    const held = heldStep(row)
    const heldState = held && row?.steps[held]
    const bad = row?.checks.filter((check) => check.verdict === 'bad').map(checkWords) ?? []
    const remarks = row?.checks.filter((check) => check.verdict === 'remark') ?? []
    const outcomes = outcomesNow(expected.get(unit.id) ?? [], row)
    const shippedOpen = openSeconds(row, roll.laptop?.pace ?? 1)
    // What was proven is printed; a unit that never was shows what is planned for it.
    const proven = row?.proven?.config
    const set = proven
      ? radiosOf(proven)
      : (plan?.radios ?? []).map(({ band, channel, width, power }) => ({ band, channel, width, powerDbm: power.set }))
    return {
      name: proven?.unit['unit.name'] ?? unit.name,
      place: unit.place,
      model: unit.model,
      mac: row?.proven?.mac ?? unit.mac,
      serial: unit.serial,
      siteSwitch: unit.siteSwitch,
      sitePort: unit.sitePort,
      address: proven?.unit['management.address'] ?? plan?.address ?? '',
      radios: set.map((radio) => asItIs(radio, plan, row, outcomes)),
      firmware: row?.firmware ?? '',
      networks: proven
        ? Object.values(proven.networks).flatMap((network) => network['network.ssid'] ?? [])
        : brief.networks.map(({ ssid }) => ssid),
      cells: (row?.cells ?? []).map(({ band, network, bssid }) => ({
        band,
        ssid: proven?.networks[network]?.['network.ssid'] ?? network,
        bssid,
      })),
      shippedOpen,
      outcomes,
      byHand: outcomes
        .filter(({ outcome }) => outcome.kind === 'by-hand')
        .map((setting) => ({ setting, done: doneByHand(setting, row) })),
      state: stateOf(row, outcomes),
      remark:
        heldState?.kind === 'held'
          ? `${held ? procedure[held].title : ''}: ${heldWords(heldState).why}`
          : [
              bad.join(', '),
              ...remarks.map(remarkWords),
              openWords(shippedOpen),
              oldWords(cards.get(unit.model), row),
              ...(row?.changes ?? []),
            ]
              .filter(Boolean)
              .join(' '),
      provenAt: row?.checks.length ? Math.max(...row.checks.map((check) => check.at)) : undefined,
      provenBy: row?.provenBy,
    }
  })
}

/** @param pace  how many times faster than life the wire runs */
function openSeconds(row: RollRow | undefined, pace: number): AsBuiltRow['shippedOpen'] {
  const { ssid, since, until } = row?.shippedOpen ?? {}
  return ssid === undefined || since === undefined || until === undefined
    ? undefined
    : { ssid, seconds: Math.round(((until - since) / 1000) * pace) }
}

const openWords = (open: AsBuiltRow['shippedOpen']): string =>
  open ? `It came with "${open.ssid}" open on air, silenced ${open.seconds} s after it was first seen.` : ''

/** A unit was set over what is no longer safe: whoever reads the sheet knows. */
function oldWords(card: Pick<KitCard, 'does'> | undefined, row: Pick<RollRow, 'old'> | undefined): string {
  const old = named(card?.does.old ?? [], row?.old ?? [])
  return old.length === 0 ? '' : `It ${offersWords(old)}.`
}

/** `SSH is open, and was not asked for.` */
const remarkWords = (check: Check): string =>
  check.code === 'service'
    ? `${checkWords(check)}: ${check.observed}.`
    : `${checkWords(check)} is ${check.observed}, and was not asked for.`

function stateOf(row: RollRow | undefined, outcomes: readonly SettingOutcome[]): AsBuiltRow['state'] {
  if (answers(row)) return row?.isByHand ? 'answers, set by hand' : 'answers'
  const step = heldStep(row)
  const state = step && row?.steps[step]
  const byHand =
    outcomes.length > 0 && outcomes.every(({ outcome: { kind } }) => kind === 'by-hand' || kind === 'not-for-it')
  if (byHand && (state === undefined || (state.kind === 'held' && state.code === 'set-by-hand'))) return 'by hand'
  return step ? 'held' : isChanged(row) ? 'changed since' : 'not mustered'
}

/** What stands now: what was proven holds while the same is asked; of a unit that never was, what can be foreseen. */
export function outcomesNow(expected: readonly SettingOutcome[], row: RollRow | undefined): SettingOutcome[] {
  return standing(expected, row?.outcomes ?? [])
}

/** Who has seen to a setting by hand; undefined where nobody has, or something else was asked then. */
export function doneByHand(setting: SettingOutcome, row: RollRow | undefined): ByHand | undefined {
  const done = row?.byHand[keyText(setting)]
  return done?.asked === setting.asked ? done : undefined
}

type SetRadio = Pick<AsBuiltRadio, 'band' | 'channel' | 'width' | 'powerDbm'>

/** A radio as it is: what radar did to it since it was set, and what its antenna makes of its power. */
function asItIs(
  radio: SetRadio,
  plan: UnitPlan | undefined,
  row: RollRow | undefined,
  outcomes: readonly SettingOutcome[],
): AsBuiltRadio {
  const { band, channel } = radio
  const heard = row?.radar.find((each) => each.band === band && each.from === channel)
  const stands = outcomes.find(({ id, of }) => id === 'radio.channel' && of === band)?.outcome.kind !== 'proven'
  const power = plan?.radios.find((each) => each.band === band)?.power
  const sum = power && { ...power, set: radio.powerDbm }
  return {
    ...radio,
    channel: heard && stands ? heard.to : channel,
    plannedChannel: heard && stands ? channel : undefined,
    conductedDbm: sum && tenth(conductedOf(sum)),
    eirpDbm: sum && tenth(eirpOf(sum)),
    gainDbi: power?.gain,
  }
}

const tenth = (dbm: number): number => Math.round(10 * dbm) / 10

function radiosOf(config: Config<Mark>): SetRadio[] {
  const byBand = Object.entries(config.radios).sort(([a], [b]) => Number(a) - Number(b))
  return byBand.flatMap(([band, values]) => {
    const { 'radio.channel': channel, 'radio.width': width, 'radio.power': powerDbm } = values
    return channel === undefined || width === undefined || powerDbm === undefined
      ? []
      : [{ band, channel, width, powerDbm }]
  })
}

/** What is still missing before the papers are complete; empty when they are. Units with the same gap share a line. */
export function missing(rows: readonly AsBuiltRow[]): string[] {
  const held = rows.filter(({ state }) => state === 'held').map((row) => `${row.name} is held. ${row.remark}`)
  const changed = rows
    .filter(({ state }) => state === 'changed since')
    .map((row) => `${row.name} was changed since it was mustered. ${row.remark} Muster it again.`)
  const waiting = rows.filter(({ state }) => state === 'not mustered')
  const byHand = rows.filter((row) => row.byHand.some(({ done }) => done === undefined))
  return [
    ...held,
    ...changed,
    ...together(waiting, 'has not been mustered', 'have not been mustered'),
    ...together(byHand, 'has settings to be seen to by hand', 'have settings to be seen to by hand'),
  ]
}

function together(rows: readonly AsBuiltRow[], one: string, many: string): string[] {
  const [first] = rows
  if (!first) return []
  const names = rows.map(({ name }) => name).join(', ')
  return [rows.length === 1 ? `${first.name} ${one}.` : `${rows.length} units ${many}: ${names}.`]
}

/** The sheet as CSV (RFC 4180). Cells that a spreadsheet would take for a formula are quoted with an apostrophe. */
export function asBuiltCsv(rows: readonly AsBuiltRow[]): string {
  const bandsUsed = [...new Set(rows.flatMap((row) => row.radios.map((radio) => radio.band)))].sort()
  const records = rows.map((row) => ({
    name: row.name,
    place: row.place,
    model: row.model,
    mac: row.mac,
    serial: row.serial,
    'site switch': row.siteSwitch,
    'site port': row.sitePort,
    address: row.address,
    ...Object.fromEntries(
      bandsUsed.flatMap((band) => {
        const radio = row.radios.find((each) => each.band === band)
        return [
          [`channel ${band} GHz`, radio?.channel ?? ''],
          [`planned channel ${band} GHz, before radar`, radio?.plannedChannel ?? ''],
          [`width ${band} GHz (MHz)`, radio?.width ?? ''],
          [`power ${band} GHz, as set (dBm)`, radio?.powerDbm ?? ''],
          [`power ${band} GHz, conducted (dBm)`, radio?.conductedDbm ?? ''],
          [`EIRP ${band} GHz (dBm)`, radio?.eirpDbm ?? ''],
          [`antenna ${band} GHz (dBi)`, radio?.gainDbi ?? ''],
          [`BSSID ${band} GHz`, bssidsOf(row, band)],
        ]
      }),
    ),
    networks: row.networks.join('; '),
    firmware: row.firmware,
    state: row.state,
    'settings proven': count(row, 'proven'),
    'settings written, not readable': count(row, 'written'),
    'settings by hand': count(row, 'by-hand'),
    'settings open': count(row, 'open'),
    'proven at': row.provenAt === undefined ? '' : new Date(row.provenAt).toISOString(),
    'proven by': row.provenBy ?? '',
    'open as it came (s)': row.shippedOpen?.seconds ?? '',
    remark: row.remark,
  }))
  return `${Papa.unparse(records, { escapeFormulae: true, newline: '\r\n' })}\r\n`
}

/** `02:00:00:00:00:01 Harbour Office; …` */
const bssidsOf = ({ cells }: AsBuiltRow, band: string): string =>
  cells
    .filter((each) => each.band === band)
    .map(({ bssid, ssid }) => `${bssid} ${ssid}`)
    .join('; ')

const count = (row: AsBuiltRow, kind: SettingOutcome['outcome']['kind']): number =>
  row.outcomes.filter(({ outcome }) => outcome.kind === kind).length
