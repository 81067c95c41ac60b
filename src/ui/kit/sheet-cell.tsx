'use client'
import type { Column, RowFault } from '../../core/kit/sheet-row'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import classes from './sheet-grid.module.css'

interface Props {
  readonly column: Column
  readonly text: string
  readonly fault: RowFault | undefined
  readonly place: 'kept' | 'new'
  readonly state: 'active' | 'within' | 'plain'
  /** What is being typed here; undefined while nobody does. */
  readonly typing: string | undefined
  readonly onType: (text: string | undefined) => void
  readonly onCommit: (text: string, then: 'down' | 'right' | 'stay') => void
  readonly onPick: (keep: 'anchor' | 'nothing', open: boolean) => void
}

const monospaced: readonly Column[] = ['mac', 'serial', 'port', 'sitePort']

/** One cell: text, or a field while somebody types. */
export function SheetCell({ column, text, fault, place, state, typing, onType, onCommit, onPick }: Props) {
  const { cards } = useJob()
  return (
    // biome-ignore lint/a11y/useSemanticElements: see the grid
    // biome-ignore lint/a11y/useFocusableInteractive: the grid itself has the focus and the keys
    // biome-ignore lint/a11y/useKeyWithClickEvents: the grid itself has the keys
    <div
      role="gridcell"
      data-column={column}
      data-state={state}
      data-fault={fault?.weight}
      aria-selected={state !== 'plain'}
      aria-invalid={fault ? true : undefined}
      title={(fault && sentence(fault)) ?? text}
      className={`${classes.cell} ${monospaced.includes(column) ? 'mono' : ''}`}
      onClick={(event) => typing === undefined && onPick(event.shiftKey ? 'anchor' : 'nothing', false)}
      onDoubleClick={() => onPick('nothing', true)}
    >
      {typing === undefined ? (
        <span className={place === 'new' ? classes.hint : ''}>
          {place === 'new' && column === 'name' && text === '' ? 'type or paste here' : text}
        </span>
      ) : (
        <>
          <input
            // biome-ignore lint/a11y/noAutofocus: the person is typing into this cell already
            autoFocus
            aria-label={column}
            autoComplete="off"
            spellCheck={false}
            list={column === 'model' ? 'kit-models' : undefined}
            value={typing}
            onChange={(event) => onType(event.currentTarget.value)}
            onBlur={() => onCommit(typing, 'stay')}
            onKeyDown={(event) => {
              event.stopPropagation()
              if (event.key === 'Escape') onType(undefined)
              else if (event.key === 'Enter' || event.key === 'Tab')
                onCommit(typing, event.key === 'Enter' ? 'down' : 'right')
              else return
              event.preventDefault()
              event.currentTarget.closest<HTMLElement>('[role="grid"]')?.focus()
            }}
          />
          {column === 'model' && (
            <datalist id="kit-models">
              {[...cards.keys()].map((model) => (
                <option key={model} value={model} />
              ))}
            </datalist>
          )}
        </>
      )}
    </div>
  )
}
