/**
 * Levels that were measured between units, out of a table.
 *
 * In: CSV with a heading, one pair a line: the unit that listened, the unit that was heard, the band and the level.
 * Out: levels, each pair of a band once with the mean of what was measured, and a sentence for each line that is none.
 */
import Papa from 'papaparse'
import { measuredLevelSchema, type Site } from './floor'

type MeasuredLevel = Site['measured'][number]

export interface Measured {
  readonly levels: readonly MeasuredLevel[]
  readonly faults: readonly string[]
}

/** How a table may call a unit. */
export interface NamedUnit {
  readonly id: string
  readonly name: string
  readonly mac: string | null
}

const headings: Readonly<Record<string, string>> = {
  a: 'unit',
  at: 'unit',
  from: 'unit',
  b: 'heard',
  hears: 'heard',
  to: 'heard',
  level: 'dbm',
  signal: 'dbm',
  rssi: 'dbm',
}

export function readMeasured(text: string, units: readonly NamedUnit[]): Measured {
  const { data } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, '').trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: (heading) => headings[heading.trim().toLowerCase()] ?? heading.trim().toLowerCase(),
  })
  const faults: string[] = []
  const found = new Map<string, { level: MeasuredLevel; all: number[] }>()
  data.forEach((row, at) => {
    const where = `line ${at + 2}`
    const ends = (['unit', 'heard'] as const).map((column) => unitCalled(row[column] ?? '', units))
    const stranger = (['unit', 'heard'] as const).find((_, end) => ends[end] === undefined)
    if (stranger !== undefined) {
      faults.push(`${where}: ${stranger}: no unit of the list is called "${row[stranger] ?? ''}".`)
      return
    }
    const parsed = measuredLevelSchema.safeParse({
      a: ends[0]?.id,
      b: ends[1]?.id,
      band: (row.band ?? '').replace(/\s*ghz/i, '').trim(),
      dbm: row.dbm?.trim() ? Number(row.dbm.replace(/\s*dbm/i, '')) : Number.NaN,
    })
    if (!parsed.success) {
      const [issue] = parsed.error.issues
      faults.push(`${where}: ${issue?.path.join('.')}: ${issue?.message}.`)
    } else if (parsed.data.a === parsed.data.b) faults.push(`${where}: a unit does not hear itself.`)
    else {
      const { a, b, band, dbm } = parsed.data
      const key = [band, ...[a, b].sort()].join('\n')
      const before = found.get(key)
      if (before) before.all.push(dbm)
      else found.set(key, { level: parsed.data, all: [dbm] })
    }
  })
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
    (mac.length === 12 ? units.find((unit) => unit.mac?.replaceAll(':', '') === mac) : undefined)
  )
}
