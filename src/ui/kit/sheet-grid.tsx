// biome-ignore-all lint/a11y/useSemanticElements: only rows in sight are drawn, which a table cannot do
// biome-ignore-all lint/a11y/useFocusableInteractive: the grid itself has the focus and the keys
'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import Papa from 'papaparse'
import { type ClipboardEvent, type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react'
import { type CellPlace, clearCells, fillDown, pasteBlock, rangeOf, sortRows, tidy } from '../../core/kit/sheet-edit'
import {
  type Column,
  columns,
  columnTitles,
  emptyCells,
  type RowFault,
  rowId,
  type SheetRow,
} from '../../core/kit/sheet-row'
import { useJob } from '../live/job-provider'
import { SheetCell } from './sheet-cell'
import classes from './sheet-grid.module.css'
import type { KitSheet } from './use-kit-sheet'

const rowPx = 32

/** The list as a sheet: cells are typed into where they stand, with keys, paste, fill and sort. */
export function SheetGrid({ sheet }: { sheet: KitSheet }) {
  const { cards, selected, select } = useJob()
  const { rows, faults, change } = sheet
  const body = useRef<HTMLDivElement>(null)
  const [at, setAt] = useState<CellPlace>({ row: 0, column: 0 })
  const [anchor, setAnchor] = useState<CellPlace>({ row: 0, column: 0 })
  const [typing, setTyping] = useState<string>()
  const [sorted, setSorted] = useState<{ column: Column; way: 'up' | 'down' }>()
  // One empty row more than there are: typing there begins a new unit.
  const shown = useMemo((): readonly SheetRow[] => [...rows, { id: 'new', cells: emptyCells }], [rows])
  const faultsByRow = useMemo(() => groupFaults(faults), [faults])
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => body.current,
    estimateSize: () => rowPx,
    overscan: 12,
  })
  const range = rangeOf(at, anchor)
  const here = useRef(at)
  here.current = at

  const go = (row: number, column: number, keep: 'anchor' | 'nothing' = 'nothing') => {
    const next = {
      row: Math.min(Math.max(row, 0), shown.length - 1),
      column: Math.min(Math.max(column, 0), columns.length - 1),
    }
    setAt(next)
    if (keep === 'nothing') setAnchor(next)
    setTyping(undefined)
    virtual.scrollToIndex(next.row)
    const id = shown[next.row]?.id
    select(id === 'new' ? undefined : id)
  }
  // A unit that was found by its label or by / is gone to.
  useEffect(() => {
    const row = rows.findIndex((each) => each.id === selected)
    if (row < 0) return
    if (here.current.row === row) return
    setAt({ row, column: here.current.column })
    setAnchor({ row, column: here.current.column })
    virtual.scrollToIndex(row)
  }, [selected, rows, virtual])

  const commit = (text: string) => {
    const column = columns[at.column]
    if (!column) return
    change((before) => pasteBlock(before, at, [[tidy(column, text, cards)]], cards))
    setTyping(undefined)
  }
  const act = (event: KeyboardEvent) => {
    const step = acts[event.key]
    if (event.ctrlKey || event.metaKey) {
      if (event.key === 'd')
        change((before) =>
          fillDown(before, range.top === range.bottom ? { ...range, top: Math.max(0, range.top - 1) } : range),
        )
      else if (event.key === 'z') sheet.undo()
      else if (event.key === 'a') {
        setAnchor({ row: 0, column: 0 })
        setAt({ row: rows.length - 1, column: columns.length - 1 })
      } else return
    } else if (step) {
      const [down, right] = step
      go(at.row + down, at.column + right, event.shiftKey && event.key !== 'Tab' ? 'anchor' : 'nothing')
    } else if (event.key === 'Tab') {
      const next = at.row * columns.length + at.column + (event.shiftKey ? -1 : 1)
      if (next < 0 || next >= shown.length * columns.length) return
      go(Math.floor(next / columns.length), next % columns.length)
    } else if (event.key === 'Enter' || event.key === 'F2')
      setTyping(shown[at.row]?.cells[columns[at.column] ?? 'name'] ?? '')
    else if (event.key === 'Delete' || event.key === 'Backspace') change((before) => clearCells(before, range))
    else if (event.key === 'Escape') setAnchor(at)
    else if (event.key.length === 1) setTyping(event.key)
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  const copy = (event: ClipboardEvent) => {
    if (typing !== undefined) return
    const block = rows
      .slice(range.top, range.bottom + 1)
      .map(({ cells }) => columns.slice(range.left, range.right + 1).map((column) => cells[column]))
    event.clipboardData.setData('text/plain', Papa.unparse(block, { delimiter: '\t', newline: '\n' }))
    event.preventDefault()
  }
  const paste = (event: ClipboardEvent) => {
    if (typing !== undefined) return
    const block = Papa.parse<string[]>(event.clipboardData.getData('text/plain').replace(/\r?\n$/, ''), {
      delimiter: '\t',
    }).data
    change((before) => pasteBlock(before, { row: range.top, column: range.left }, block, cards))
    event.preventDefault()
  }
  const sort = (column: Column) => {
    const way = sorted?.column === column && sorted.way === 'up' ? 'down' : 'up'
    setSorted({ column, way })
    change((before) => sortRows(before, column, way))
  }

  return (
    <div
      role="grid"
      aria-label="The kit list"
      aria-rowcount={shown.length + 1}
      aria-colcount={columns.length}
      tabIndex={0}
      className={classes.grid}
      onKeyDown={(event) => typing === undefined && act(event)}
      onCopy={copy}
      onPaste={paste}
    >
      <div role="row" className={`${classes.row} ${classes.head}`}>
        {columns.map((column) => (
          <div
            key={column}
            role="columnheader"
            tabIndex={-1}
            aria-sort={sorted?.column === column ? (sorted.way === 'up' ? 'ascending' : 'descending') : 'none'}
          >
            <button type="button" tabIndex={-1} onClick={() => sort(column)}>
              {columnTitles[column]} {sorted?.column === column && (sorted.way === 'up' ? '↑' : '↓')}
            </button>
          </div>
        ))}
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keys */}
      <div ref={body} className={classes.body} role="rowgroup" tabIndex={0}>
        <div style={{ height: virtual.getTotalSize() }} className={classes.all}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = shown[index] ?? { id: 'new', cells: emptyCells }
            return (
              <div
                key={row.id}
                role="row"
                aria-rowindex={index + 2}
                data-row={row.id}
                data-selected={row.id === selected}
                className={classes.row}
                style={{ transform: `translateY(${start}px)` }}
              >
                {columns.map((column, place) => (
                  <SheetCell
                    key={column}
                    column={column}
                    text={row.cells[column]}
                    fault={faultsByRow.get(row.id)?.find((fault) => fault.column === column)}
                    place={row.id === 'new' ? 'new' : 'kept'}
                    state={
                      index === at.row && place === at.column
                        ? 'active'
                        : index >= range.top && index <= range.bottom && place >= range.left && place <= range.right
                          ? 'within'
                          : 'plain'
                    }
                    typing={index === at.row && place === at.column ? typing : undefined}
                    onType={setTyping}
                    onCommit={(text, then) => {
                      commit(text)
                      if (then === 'down') go(at.row + 1, at.column)
                      if (then === 'right') go(at.row, at.column + 1)
                    }}
                    onPick={(keep, open) => {
                      if (typing !== undefined) commit(typing)
                      go(index, place, keep)
                      if (open) setTyping(row.cells[column])
                    }}
                  />
                ))}
              </div>
            )
          })}
        </div>
      </div>
    </div>
  )
}

const acts: Readonly<Record<string, readonly [down: number, right: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-15, 0],
  PageDown: [15, 0],
  Home: [0, -columns.length],
  End: [0, columns.length],
}

function groupFaults(faults: readonly RowFault[]): ReadonlyMap<string, readonly RowFault[]> {
  const groups = new Map<string, RowFault[]>()
  for (const fault of faults) groups.set(fault.row, [...(groups.get(fault.row) ?? []), fault])
  return groups
}

/** A row for a unit that a scan found no place for. */
export function rowWith(rows: readonly SheetRow[], cells: Partial<SheetRow['cells']>): SheetRow {
  const taken = new Set(rows.map((row) => row.id))
  let number = rows.length + 1
  while (rows.some((row) => row.cells.name === `unit-${number}`)) number += 1
  const name = `unit-${number}`
  return { id: rowId(name, taken), cells: { ...emptyCells, name, ...cells } }
}
