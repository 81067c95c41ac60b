'use client'
/**
 * The kit list while it is edited: every change is kept at once, can be undone, and is saved by itself row by row as
 * rows become whole. Rows that are not whole stay in this browser, even over a reload.
 */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { saveKitAction } from '../../app/actions/kit-actions'
import { sheetChanges } from '../../core/kit/sheet-edit'
import { cellsOf, type RowFault, readSheet, type SheetRow } from '../../core/kit/sheet-row'
import { useJob } from '../live/job-provider'

const restMs = 500
const mostUndo = 100

export interface KitSheet {
  readonly rows: readonly SheetRow[]
  readonly faults: readonly RowFault[]
  readonly list: readonly string[]
  readonly unsaved: number
  readonly standing: { readonly is: 'saved' | 'saving' | 'refused'; readonly words: string }
  readonly undoable: number
  change(edit: (rows: readonly SheetRow[]) => readonly SheetRow[]): void
  undo(): void
}

export function useKitSheet(): KitSheet {
  const { job, units, cards } = useJob()
  const [rows, setRows] = useState<readonly SheetRow[]>(() => units.map((unit) => ({ id: unit.id, cells: cellsOf(unit) })))
  const [past, setPast] = useState<readonly (readonly SheetRow[])[]>([])
  const [saving, setSaving] = useState(false)
  const [refusal, setRefusal] = useState<string>()
  const kept = useRef(units)
  const storageKey = `air-muster kit ${job.slug}`

  useEffect(() => {
    const text = sessionStorage.getItem(storageKey)
    if (text) setRows((before) => withDrafts(before, JSON.parse(text) as SheetRow[]))
  }, [storageKey])

  const reading = useMemo(() => readSheet(rows, cards), [rows, cards])
  const whole = useMemo(() => new Set(reading.units.map((unit) => unit.id)), [reading])

  useEffect(() => {
    const drafts = rows.filter((row) => !whole.has(row.id))
    if (drafts.length > 0) sessionStorage.setItem(storageKey, JSON.stringify(drafts))
    else sessionStorage.removeItem(storageKey)
    const changes = sheetChanges(rows, reading.units, kept.current)
    if (!changes || saving || refusal) return
    const timer = setTimeout(async () => {
      setSaving(true)
      try {
        const outcome = await saveKitAction(job.slug, changes)
        if (outcome.ok) kept.current = outcome.value ?? kept.current
        else setRefusal(outcome.sentence)
      } catch {
        setRefusal('Air Muster does not answer. What you typed is kept here.')
      } finally {
        setSaving(false)
      }
    }, restMs)
    return () => clearTimeout(timer)
  }, [rows, reading, whole, saving, refusal, job.slug, storageKey])

  const change = useCallback<KitSheet['change']>(
    (edit) => {
      setRefusal(undefined)
      setPast((all) => [...all.slice(1 - mostUndo), rows])
      setRows(edit(rows))
    },
    [rows],
  )
  const undo = useCallback(() => {
    const last = past.at(-1)
    if (!last) return
    setRefusal(undefined)
    setPast(past.slice(0, -1))
    setRows(last)
  }, [past])

  const unsaved = rows.filter((row) => !whole.has(row.id)).length
  const pending = saving || sheetChanges(rows, reading.units, kept.current) !== undefined
  const standing: KitSheet['standing'] = refusal
    ? { is: 'refused', words: refusal }
    : pending
      ? { is: 'saving', words: 'Saving …' }
      : { is: 'saved', words: unsaved > 0 ? `Saved, but for ${unsaved} ${unsaved === 1 ? 'row' : 'rows'} to mend` : 'Saved' }
  return { rows, faults: reading.faults, list: reading.list, unsaved, standing, undoable: past.length, change, undo }
}

/** Rows of before a reload, in the places of those that they are, or at the end. */
function withDrafts(rows: readonly SheetRow[], drafts: readonly SheetRow[]): SheetRow[] {
  const byId = new Map(drafts.map((row) => [row.id, row]))
  const known = new Set(rows.map((row) => row.id))
  return [...rows.map((row) => byId.get(row.id) ?? row), ...drafts.filter((row) => !known.has(row.id))]
}
