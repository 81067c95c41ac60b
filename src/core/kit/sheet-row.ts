/**
 * A row of the kit list as it is typed: text in every cell, whether it is a unit yet or not.
 *
 * In: cells. Out: a unit, or the faults by column. What is typed is never thrown away.
 */

import { z } from 'zod'
import { renamed } from '../input/renamed'
import { fromText, type Message } from '../message/message'
import type { KitCard } from './kit-card'
import { type RosterFault, reviewRoster } from './roster'
import { type Unit, unitIdSchema, unitSchema } from './unit'

export const columns = ['name', 'location', 'model', 'mac', 'serial', 'port', 'siteSwitch', 'sitePort'] as const
export type Column = (typeof columns)[number]
export type Cells = Readonly<Record<Column, string>>

export const columnTitles: Readonly<Record<Column, string>> = {
  name: 'Unit',
  location: 'Location',
  model: 'Model',
  mac: 'MAC',
  serial: 'Serial',
  port: 'Bench port',
  siteSwitch: 'Site switch',
  sitePort: 'Site port',
}

export interface SheetRow {
  readonly id: string
  readonly cells: Cells
}

/** Rows as a browser keeps them. */
export const sheetRowsSchema = z.array(
  z.object({
    id: unitIdSchema,
    cells: z.preprocess(
      // So the column was called in what a browser may still keep.
      (cells) => renamed(cells, 'place', 'location'),
      z.object(
        Object.fromEntries(columns.map((column) => [column, z.string().default('')])) as Record<
          Column,
          z.ZodDefault<z.ZodString>
        >,
      ),
    ),
  }),
)

export const emptyCells: Cells = {
  name: '',
  location: '',
  model: '',
  mac: '',
  serial: '',
  port: '',
  siteSwitch: '',
  sitePort: '',
}

export function cellsOf(unit: Unit): Cells {
  const { name, location, model, mac, serial, port, siteSwitch, sitePort } = unit
  return { name, location, model, mac, serial, port: port === null ? '' : String(port), siteSwitch, sitePort }
}

export function isEmptyRow({ cells }: SheetRow): boolean {
  return columns.every((column) => cells[column].trim() === '')
}

export interface RowFault extends Message {
  readonly row: string
  readonly column: Column | 'list'
  readonly weight: 'row' | 'mend'
}

export interface SheetReading {
  /** Units of the rows that are whole, in order. */
  readonly units: readonly Unit[]
  readonly faults: readonly RowFault[]
  /** Faults of the list as a whole. */
  readonly list: readonly Message[]
}

/** Reads every row. A row with a fault of weight `row` has no unit. */
export function readSheet(rows: readonly SheetRow[], cards: ReadonlyMap<string, KitCard>): SheetReading {
  const faults: RowFault[] = []
  const units: Unit[] = []
  for (const { id, cells } of rows) {
    const parsed = readCells(id, cells)
    if (parsed.ok) units.push(parsed.unit)
    else faults.push(...parsed.faults)
  }
  const roster = reviewRoster(units, cards)
  const unkept = new Set(roster.filter((fault) => fault.weight === 'row').map((fault) => fault.unit))
  return {
    units: units.filter((unit) => !unkept.has(unit.id)),
    faults: [...faults, ...roster.flatMap(asRowFault)],
    list: roster.filter((fault) => fault.unit === undefined),
  }
}

function asRowFault({ unit, field, ...fault }: RosterFault): RowFault[] {
  return unit === undefined ? [] : [{ ...fault, row: unit, column: field }]
}

/** One row's cells as a unit. */
export function readCells(
  id: string,
  cells: Cells,
): { readonly ok: true; readonly unit: Unit } | { readonly ok: false; readonly faults: RowFault[] } {
  const port = cells.port.trim()
  const parsed = unitSchema.safeParse({
    id,
    ...cells,
    mac: cells.mac.trim(),
    model: cells.model.trim(),
    port: port === '' ? null : /^\d+$/.test(port) ? Number(port) : Number.NaN,
  })
  if (parsed.success) return { ok: true, unit: parsed.data }
  return {
    ok: false,
    faults: parsed.error.issues.map((issue) => ({
      row: id,
      column: (columns as readonly string[]).includes(String(issue.path[0])) ? (issue.path[0] as Column) : 'list',
      ...fromText(issue.message),
      weight: 'row',
    })),
  }
}

/** An id for a row of this name that none of the taken ones has. */
export function rowId(name: string, taken: ReadonlySet<string>): string {
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 32) || 'unit'
  if (!taken.has(base)) return base
  for (let number = 2; ; number += 1) if (!taken.has(`${base}-${number}`)) return `${base}-${number}`
}
