/**
 * The as-built sheet: what each unit is and where, as it was proven. No secrets: credentials are sealed apart.
 */
import Papa from 'papaparse'
import type { Brief } from '../brief/brief'
import type { Unit } from '../kit/unit'
import { procedure } from '../muster/procedure'
import { answers, heldStep, isChanged, type Roll } from '../muster/roll'
import type { UnitPlan } from '../plan/plan'

export interface AsBuiltRow {
  readonly name: string
  readonly place: string
  readonly model: string
  readonly mac: string
  readonly serial: string
  readonly port: number | null
  readonly address: string
  readonly radios: readonly { band: string; channel: number; width: number; powerDbm: number }[]
  readonly networks: readonly string[]
  readonly state: 'answers' | 'changed since' | 'held' | 'not mustered'
  readonly remark: string
  /** When the last check was made, ms since 1970. */
  readonly provenAt: number | undefined
}

export function asBuilt(
  brief: Brief,
  units: readonly Unit[],
  plans: ReadonlyMap<string, UnitPlan>,
  roll: Roll,
): AsBuiltRow[] {
  return units.map((unit) => {
    const row = roll.rows.get(unit.id)
    const plan = plans.get(unit.id)
    const held = heldStep(row)
    const heldState = held && row?.steps[held]
    const bad = row?.checks.filter((check) => check.verdict === 'bad').map((check) => check.what) ?? []
    // What was proven is printed; a unit that never was shows what is planned for it.
    const proven = row?.proven?.config
    const planned = (plan?.radios ?? []).map(({ band, channel, width, power }) => ({
      band,
      channel,
      width,
      powerDbm: power.set,
    }))
    return {
      name: proven?.name ?? unit.name,
      place: unit.place,
      model: unit.model,
      mac: row?.proven?.mac ?? unit.mac,
      serial: unit.serial,
      port: unit.port,
      address: proven?.management.address ?? plan?.address ?? '',
      radios: proven
        ? proven.radios.map(({ band, channel, width, powerDbm }) => ({ band, channel, width, powerDbm }))
        : planned,
      networks: (proven ?? brief).networks.map((network) => network.ssid),
      state: answers(row) ? 'answers' : held ? 'held' : isChanged(row) ? 'changed since' : 'not mustered',
      remark:
        heldState?.is === 'held'
          ? `${held ? procedure[held].title : ''}: ${heldState.why}`
          : [bad.join(', '), ...(row?.changes ?? [])].filter(Boolean).join(' '),
      provenAt: row?.checks.length ? Math.max(...row.checks.map((check) => check.at)) : undefined,
    }
  })
}

/** What is still missing before the papers are complete; empty when they are. */
export function missing(rows: readonly AsBuiltRow[]): string[] {
  return rows.flatMap((row) => {
    if (row.state === 'answers') return []
    if (row.state === 'held') return [`${row.name} is held. ${row.remark}`]
    if (row.state === 'changed since')
      return [`${row.name} was changed since it was mustered. ${row.remark} Muster it again.`]
    return [`${row.name} has not been mustered.`]
  })
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
    'switch port': row.port ?? '',
    address: row.address,
    ...Object.fromEntries(
      bandsUsed.flatMap((band) => {
        const radio = row.radios.find((each) => each.band === band)
        return [
          [`channel ${band} GHz`, radio?.channel ?? ''],
          [`width ${band} GHz (MHz)`, radio?.width ?? ''],
          [`power ${band} GHz (dBm)`, radio?.powerDbm ?? ''],
        ]
      }),
    ),
    networks: row.networks.join('; '),
    state: row.state,
    'proven at': row.provenAt === undefined ? '' : new Date(row.provenAt).toISOString(),
    remark: row.remark,
  }))
  return `${Papa.unparse(records, { escapeFormulae: true, newline: '\r\n' })}\r\n`
}
