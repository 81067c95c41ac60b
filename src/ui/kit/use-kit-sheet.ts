'use client'
/**
 * The kit list while it is edited: every change is kept at once, can be undone, and is saved by itself row by row as
 * rows become whole. Rows that are not whole stay in this browser, even over a reload.
 */
import { useMemo, useState } from 'react'
import { saveKitAction } from '../../actions/kit-actions'
import { sheetChanges } from '../../core/kit/sheet-edit'
import { cellsOf, type RowFault, readSheet, type SheetRow, sheetRowsSchema } from '../../core/kit/sheet-row'
import type { Unit } from '../../core/kit/unit'
import type { Message } from '../../core/message/message'
import { useJob } from '../live/job-provider'
import { type Standing, useAutosave } from '../live/use-autosave'
import { useHistory } from '../live/use-history'
import { useSessionDraft } from '../live/use-session-draft'

const restMs = 500

export interface KitSheet {
  readonly rows: readonly SheetRow[]
  /** Units of the rows that are whole. */
  readonly units: readonly Unit[]
  readonly faults: readonly RowFault[]
  readonly list: readonly Message[]
  readonly standing: Standing
  readonly undoable: number
  change(edit: (rows: readonly SheetRow[]) => readonly SheetRow[]): void
  undo(): void
  /** Throws away what is not saved: after somebody else has changed the list. */
  reload(): void
}

export function useKitSheet(): KitSheet {
  const { job, units, cards } = useJob()
  const [rows, setRows] = useState<readonly SheetRow[]>(() =>
    units.map((unit) => ({ id: unit.id, cells: cellsOf(unit) })),
  )
  const history = useHistory<readonly SheetRow[]>()
  const [kept, setKept] = useState(units)
  const storageKey = `air-muster kit ${job.slug}`

  const reading = useMemo(() => readSheet(rows, cards), [rows, cards])
  const drafts = useMemo(() => {
    const whole = new Set(reading.units.map((unit) => unit.id))
    return rows.filter((row) => !whole.has(row.id))
  }, [rows, reading])
  const draft = useSessionDraft<readonly SheetRow[]>(storageKey, {
    value: drafts.length > 0 ? drafts : undefined,
    read: (value) => sheetRowsSchema.safeParse(value).data,
    onFound: (found) => setRows((before) => withDrafts(before, found)),
  })

  const pending = useMemo(() => sheetChanges(rows, reading.units, kept), [rows, reading, kept])
  const autosave = useAutosave({
    pending,
    restMs,
    save: (changes) => saveKitAction(job.slug, changes),
    onSaved: (list) => list && setKept(list),
  })
  const standing: Standing = autosave.refusal
    ? { kind: 'refused', words: autosave.refusal }
    : autosave.saving || pending
      ? { kind: 'saving', words: 'Saving …' }
      : {
          kind: 'saved',
          words:
            drafts.length > 0
              ? `Saved, but for ${drafts.length} ${drafts.length === 1 ? 'row' : 'rows'} to mend`
              : 'Saved',
        }

  return {
    rows,
    units: reading.units,
    faults: reading.faults,
    list: reading.list,
    standing,
    undoable: history.undoable,
    change: (edit) => {
      autosave.forgive()
      history.push(rows)
      setRows(edit(rows))
    },
    undo: () => {
      const before = history.pop()
      if (!before) return
      autosave.forgive()
      setRows(before)
    },
    reload: () => {
      draft.forget()
      location.reload()
    },
  }
}

/** Rows of before a reload, in the places of those that they are, or at the end. */
function withDrafts(rows: readonly SheetRow[], drafts: readonly SheetRow[]): SheetRow[] {
  const byId = new Map(drafts.map((row) => [row.id, row]))
  const known = new Set(rows.map((row) => row.id))
  return [...rows.map((row) => byId.get(row.id) ?? row), ...drafts.filter((row) => !known.has(row.id))]
}
