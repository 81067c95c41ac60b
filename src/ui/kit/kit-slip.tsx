'use client'
import { Button } from '@mantine/core'
import { columnTitles } from '../../core/kit/sheet-row'
import { asText } from '../../core/message/message'
import { sentence } from '../../words/en/sentence'
import { LoginToday } from '../frame/login-today'
import { useJob } from '../live/job-provider'
import { ByHandNote } from '../slip/by-hand-note'
import { ChangedNote } from '../slip/changed-note'
import { Outcomes } from '../slip/outcomes'
import sheetClasses from '../theme/sheet.module.css'
import { CardFacts } from './card-facts'
import classes from './kit.module.css'
import { LabelPassword } from './label-password'
import type { KitSheet } from './use-kit-sheet'

/** The selected row: what is wrong with it, and what its kit card says. */
export function KitSlip({ sheet }: { sheet: KitSheet }) {
  const { cards, roll, selected, select, units } = useJob()
  const row = sheet.rows.find((each) => each.id === selected)
  const card = row && cards.get(row.cells.model)
  const faults = sheet.faults.filter((fault) => fault.row === row?.id)
  const unit = units.find((each) => each.id === row?.id)
  if (!row)
    return (
      <aside id="slip" tabIndex={-1} className={`${sheetClasses.sheet} ${sheetClasses.pad}`} aria-label="Slip">
        <p className="soft">Click a cell and type. Enter goes down, Tab to the right, Shift selects.</p>
        <dl className={classes.keys}>
          <dt>Ctrl V</dt>
          <dd>paste columns from a spreadsheet</dd>
          <dt>Ctrl D</dt>
          <dd>fill down; names and ports count on</dd>
          <dt>Ctrl Z</dt>
          <dd>undo</dd>
          <dt>Delete</dt>
          <dd>empty the cells</dd>
        </dl>
        {sheet.faults.length > 0 && <b>To mend</b>}
        <ul className={classes.faults}>
          {sheet.faults.slice(0, 30).map((fault) => (
            <li key={`${fault.row} ${fault.column} ${asText(fault)}`}>
              <button type="button" onClick={() => select(fault.row)}>
                {sentence(fault)}
              </button>
            </li>
          ))}
        </ul>
      </aside>
    )
  return (
    <aside
      id="slip"
      tabIndex={-1}
      className={`${sheetClasses.sheet} ${sheetClasses.pad}`}
      aria-label={`Slip of ${row.cells.name}`}
    >
      <b className={classes.slipName}>{row.cells.name || 'A unit without a name'}</b>{' '}
      <span className="soft">{row.cells.location}</span>
      {faults.map((fault) => (
        <p key={`${fault.column} ${asText(fault)}`} className={classes.note} data-weight={fault.weight}>
          <b>{fault.column === 'list' ? '' : columnTitles[fault.column]}</b> {sentence(fault)}
          {fault.weight === 'row' && ' This row is not saved until then.'}
        </p>
      ))}
      <ChangedNote unit={row.id} />
      {row.cells.model !== '' && (!card || card.isBare) && <ByHandNote model={row.cells.model} why="" isBare />}
      {unit && <LabelPassword key={unit.mac} mac={unit.mac} />}
      {unit && <LoginToday key={`today ${unit.mac}`} of={{ mac: unit.mac }} />}
      {unit && <Outcomes unit={unit} />}
      {card && !card.isBare && <CardFacts card={card} />}
      {!card && row.cells.model === '' && <p className="soft">Its model is missing: type it, or scan its MAC.</p>}
      <Button
        className={classes.remove ?? ''}
        variant="default"
        disabled={roll.muster !== 'idle'}
        onClick={() => {
          sheet.change((rows) => rows.filter((each) => each.id !== row.id))
          select(undefined)
        }}
      >
        Take it off the list
      </Button>
    </aside>
  )
}
