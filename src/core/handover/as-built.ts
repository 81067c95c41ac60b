/**
 * The as-built sheet: what each unit is and where, as it was proven. No secrets: credentials are sealed apart.
 */

import type { Brief } from '../brief/brief'
import { type SettingOutcome, standing } from '../config/outcomes'
import { type Config, keyText, type Mark } from '../config/unit-config'
import type { KitCard } from '../kit/kit-card'
import { named, type OldCrypto } from '../kit/old-crypto'
import type { Unit } from '../kit/unit'
import type { Message } from '../message/message'
import type { Check } from '../muster/check'
import type { Held } from '../muster/held'
import type { Step } from '../muster/procedure'
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

export type Remark =
  | { readonly kind: 'held'; readonly step: Step; readonly held: Held }
  | { readonly kind: 'failed' | 'not-as-asked'; readonly check: Check }
  /** The open network that it came with on air, and for how many seconds it stood. */
  | { readonly kind: 'came-open'; readonly ssid: string; readonly seconds: number }
  /** What it speaks that is no longer safe. */
  | { readonly kind: 'old'; readonly old: readonly OldCrypto[] }
  | { readonly kind: 'changed'; readonly told: Message }

/** What is still missing before the papers are complete. */
export type Gap =
  | { readonly kind: 'held' | 'changed'; readonly row: AsBuiltRow }
  /** Units with the same gap share a line. */
  | { readonly kind: 'not-mustered' | 'by-hand'; readonly rows: readonly [AsBuiltRow, ...AsBuiltRow[]] }

export interface AsBuiltRow {
  readonly name: string
  readonly location: string
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
  /** What whoever reads the sheet is to know. */
  readonly remarks: readonly Remark[]
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
    const outcomes = outcomesNow(expected.get(unit.id) ?? [], row)
    const shippedOpen = openSeconds(row, roll.laptop?.pace ?? 1)
    // What was proven is printed; a unit that never was shows what is planned for it.
    const proven = row?.proven?.config
    const set = proven
      ? radiosOf(proven)
      : (plan?.radios ?? []).map(({ band, channel, width, power }) => ({ band, channel, width, powerDbm: power.set }))
    return {
      name: proven?.unit['unit.name'] ?? unit.name,
      location: unit.location,
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
      remarks:
        held && heldState?.kind === 'held'
          ? [{ kind: 'held', step: held, held: heldState }]
          : remarksOn(row, shippedOpen, cards.get(unit.model)),
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

/** @param card  with what its units may speak that is no longer safe: whoever reads the sheet knows of it */
function remarksOn(
  row: RollRow | undefined,
  open: AsBuiltRow['shippedOpen'],
  card: Pick<KitCard, 'does'> | undefined,
): Remark[] {
  const checks = row?.checks ?? []
  const old = named(card?.does.old ?? [], row?.old ?? [])
  return [
    ...checks.flatMap((check): Remark[] => (check.verdict === 'bad' ? [{ kind: 'failed', check }] : [])),
    ...checks.flatMap((check): Remark[] => (check.verdict === 'remark' ? [{ kind: 'not-as-asked', check }] : [])),
    ...(open ? [{ kind: 'came-open', ...open } as const] : []),
    ...(old.length > 0 ? [{ kind: 'old', old } as const] : []),
    ...(row?.changes ?? []).map((told): Remark => ({ kind: 'changed', told })),
  ]
}

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

/** What is still missing; none where the papers are complete. */
export function gapsIn(rows: readonly AsBuiltRow[]): Gap[] {
  const alone = (kind: 'held' | 'changed', state: AsBuiltRow['state']): Gap[] =>
    rows.filter((row) => row.state === state).map((row) => ({ kind, row }))
  const together = (kind: 'not-mustered' | 'by-hand', has: (row: AsBuiltRow) => boolean): Gap[] => {
    const [first, ...others] = rows.filter(has)
    return first ? [{ kind, rows: [first, ...others] }] : []
  }
  return [
    ...alone('held', 'held'),
    ...alone('changed', 'changed since'),
    ...together('not-mustered', ({ state }) => state === 'not mustered'),
    ...together('by-hand', ({ byHand }) => byHand.some(({ done }) => done === undefined)),
  ]
}
