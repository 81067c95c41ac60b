/**
 * Edits of the kit list as a sheet: what a paste, a fill or a sort makes of the rows. Values in, values out.
 */

import { parseMac } from '../address/mac'
import type { KitCard } from './kit-card'
import { matchModel } from './model-match'
import { type Cells, type Column, columns, emptyCells, isEmptyRow, rowId, type SheetRow } from './sheet-row'
import type { Unit } from './unit'

/** Where a cell is: row from 0, column from 0. */
export interface CellPlace {
  readonly row: number
  readonly column: number
}

/** A rectangle of cells between two corners, both within. */
export interface CellRange {
  readonly top: number
  readonly bottom: number
  readonly left: number
  readonly right: number
}

export function rangeOf(a: CellPlace, b: CellPlace): CellRange {
  return {
    top: Math.min(a.row, b.row),
    bottom: Math.max(a.row, b.row),
    left: Math.min(a.column, b.column),
    right: Math.max(a.column, b.column),
  }
}

/** What was typed, brought to the form that the list keeps: a MAC with colons, a model by its full name. */
export function tidy(column: Column, text: string, cards: ReadonlyMap<string, KitCard>): string {
  const trimmed = text.trim()
  if (column === 'mac') return parseMac(trimmed) ?? trimmed
  if (column === 'model') return matchModel(trimmed, cards)
  return trimmed
}

/** Puts a block of text in from a corner on; rows that are missing are added. */
export function pasteBlock(
  rows: readonly SheetRow[],
  corner: CellPlace,
  block: readonly (readonly string[])[],
  cards: ReadonlyMap<string, KitCard>,
): SheetRow[] {
  const next = [...rows]
  const taken = new Set(rows.map((row) => row.id))
  block.forEach((line, down) => {
    const at = corner.row + down
    const before = next[at]
    const cells: { [column in Column]: string } = { ...(before?.cells ?? emptyCells) }
    line.forEach((text, right) => {
      const column = columns[corner.column + right]
      if (column) cells[column] = tidy(column, text, cards)
    })
    const id = before?.id ?? rowId(cells.name, taken)
    taken.add(id)
    next[at] = { id, cells }
  })
  return next
}

/** Fills a range down from its first row. A name or a port that ends in a number counts on. */
export function fillDown(rows: readonly SheetRow[], { top, bottom, left, right }: CellRange): SheetRow[] {
  const source = rows[top]
  if (!source) return [...rows]
  return rows.map((row, at) => {
    if (at <= top || at > bottom) return row
    const cells: { [column in Column]: string } = { ...row.cells }
    for (let column = left; column <= right; column += 1) {
      const name = columns[column]
      // MAC and serial are each box's own: copying one down is never meant.
      if (name && name !== 'mac' && name !== 'serial') cells[name] = counted(name, source.cells[name], at - top)
    }
    return { ...row, cells }
  })
}

function counted(column: Column, text: string, by: number): string {
  const counts = column === 'name' || column === 'port' || column === 'sitePort'
  const match = counts ? /^(.*?)(\d+)$/.exec(text) : null
  if (!match) return text
  const [, stem = '', digits = ''] = match
  return stem + String(Number(digits) + by).padStart(digits.length, '0')
}

export function clearCells(rows: readonly SheetRow[], { top, bottom, left, right }: CellRange): SheetRow[] {
  return rows.map((row, at) => {
    if (at < top || at > bottom) return row
    const cells: { [column in Column]: string } = { ...row.cells }
    for (let column = left; column <= right; column += 1) {
      const name = columns[column]
      if (name) cells[name] = ''
    }
    return { ...row, cells }
  })
}

/** Sorted by a column, numbers within names by their value; empty cells last. */
export function sortRows(rows: readonly SheetRow[], column: Column, way: 'up' | 'down'): SheetRow[] {
  const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })
  const sign = way === 'up' ? 1 : -1
  return rows.toSorted((a, b) => {
    const [one, other] = [a.cells[column], b.cells[column]]
    if ((one === '') !== (other === '')) return one === '' ? 1 : -1
    return sign * collator.compare(one, other)
  })
}

/** What has to be told to the store, so that it has what the sheet has. */
export interface SheetChanges {
  readonly add: Unit[]
  readonly change: (Unit & { readonly version: number })[]
  readonly remove: string[]
  readonly order: string[] | undefined
}

/**
 * @param rows  the sheet
 * @param units units of the rows that are whole, in order
 * @param kept  the list as the store has it
 */
export function sheetChanges(
  rows: readonly SheetRow[],
  units: readonly Unit[],
  kept: readonly (Unit & { readonly version: number })[],
): SheetChanges | undefined {
  const known = new Map(kept.map((unit) => [unit.id, unit]))
  const there = new Set(rows.filter((row) => !isEmptyRow(row)).map((row) => row.id))
  const add = units.filter((unit) => !known.has(unit.id))
  const change = units.flatMap((unit) => {
    const before = known.get(unit.id)
    return before && sheetFields.some((field) => before[field] !== unit[field])
      ? [{ ...unit, version: before.version }]
      : []
  })
  const remove = kept.filter((unit) => !there.has(unit.id)).map((unit) => unit.id)
  // Rows that are not whole yet keep the place that their kept unit has.
  const wanted = rows.map((row) => row.id).filter((id) => known.has(id) || add.some((unit) => unit.id === id))
  const now = [...kept.map((unit) => unit.id).filter((id) => !remove.includes(id)), ...add.map((unit) => unit.id)]
  const order = wanted.join('\n') === now.join('\n') ? undefined : wanted
  return add.length + change.length + remove.length === 0 && !order ? undefined : { add, change, remove, order }
}

const sheetFields = [...columns] as const satisfies readonly (keyof Cells)[]
