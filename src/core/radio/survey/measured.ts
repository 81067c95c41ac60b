/**
 * Levels that were measured between units, out of a table.
 *
 * In: CSV with a heading, one pair a line: the unit that listened, the unit that was heard, the band and the level.
 * Out: levels, each pair of a band once with the mean of what was measured, and a fault for each line that is none.
 */
import { type Message, message } from '../../message/message'
import { measuredLevelSchema, type Site } from '../propagation/floor'
import { bandCell, dbmCell, rowFault, tableRows } from './level-table'

type MeasuredLevel = Site['measured'][number]

export interface Measured {
  readonly levels: readonly MeasuredLevel[]
  readonly faults: readonly Message[]
}

/** How a table may call a unit. */
export interface NamedUnit {
  readonly id: string
  readonly name: string
  readonly mac: string | null
}

/** What tables call the two ends. */
const headings = { a: 'unit', at: 'unit', from: 'unit', b: 'heard', hears: 'heard', to: 'heard' } as const

type Pair = Pick<MeasuredLevel, 'a' | 'b' | 'band'>

/** The same for the same two units in the same band, whoever listened. */
const pairKey = ({ a, b, band }: Pair): string => [band, ...[a, b].sort()].join('\n')

export function samePair(one: Pair, other: Pair): boolean {
  return pairKey(one) === pairKey(other)
}

export function readMeasured(text: string, units: readonly NamedUnit[]): Measured {
  const faults: Message[] = []
  const found = new Map<string, { level: MeasuredLevel; all: number[] }>()
  for (const { where, cells } of tableRows(text, headings)) {
    const { unit = '', heard = '' } = cells
    const [a, b] = [unitCalled(unit, units), unitCalled(heard, units)]
    if (!a || !b) {
      faults.push(a ? message('heard-unknown', { where, unit: heard }) : message('unit-unknown', { where, unit }))
      continue
    }
    const parsed = measuredLevelSchema.safeParse({
      a: a.id,
      b: b.id,
      band: bandCell(cells.band),
      dbm: dbmCell(cells.dbm),
    })
    if (!parsed.success) {
      faults.push(rowFault(where, parsed.error))
    } else if (parsed.data.a === parsed.data.b) faults.push(message('unit-hears-itself', { where }))
    else {
      const key = pairKey(parsed.data)
      const before = found.get(key)
      if (before) before.all.push(parsed.data.dbm)
      else found.set(key, { level: parsed.data, all: [parsed.data.dbm] })
    }
  }
  return {
    levels: [...found.values()].map(({ level, all }) => ({
      ...level,
      dbm: Math.round((10 * all.reduce((sum, dbm) => sum + dbm, 0)) / all.length) / 10,
    })),
    faults,
  }
}

/** By name, whatever its capitals, or by MAC. */
function unitCalled(text: string, units: readonly NamedUnit[]): NamedUnit | undefined {
  const called = text.trim().toLowerCase()
  const mac = called.replace(/[^0-9a-f]/g, '')
  return (
    units.find(({ name }) => name.toLowerCase() === called) ??
    units.find((unit) => unit.mac?.replaceAll(':', '') === mac)
  )
}
