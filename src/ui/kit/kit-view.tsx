'use client'
import { Button } from '@mantine/core'
import Link from 'next/link'
import { useState } from 'react'
import { useJob } from '../live/job-provider'
import { StandingNote } from '../live/standing-note'
import sheetClasses from '../theme/sheet.module.css'
import { ImportDialog } from './import-dialog'
import classes from './kit.module.css'
import { KitSlip } from './kit-slip'
import { PoeLine } from './poe-line'
import { ScanField } from './scan-field'
import { SheetGrid } from './sheet-grid'
import { useKitSheet } from './use-kit-sheet'

/** What is in the boxes. */
export function KitView() {
  const { job, selected } = useJob()
  const sheet = useKitSheet()
  const [importing, setImporting] = useState<'open' | 'shut'>('shut')
  const count = sheet.rows.length
  return (
    <div className={sheetClasses.page}>
      <div className={sheetClasses.head}>
        <h1>
          {count} {count === 1 ? 'unit' : 'units'} on the list
        </h1>
        <StandingNote standing={sheet.standing} onLoad={sheet.reload} />
        <div className={sheetClasses.headRight}>
          <Button variant="default" disabled={sheet.undoable === 0} onClick={sheet.undo}>
            Undo
          </Button>
          <Button variant="default" component={Link} href={`/jobs/${job.slug}/kit/cards`}>
            Kit cards
          </Button>
          <Button onClick={() => setImporting('open')}>Import a list</Button>
        </div>
      </div>
      <div className={classes.tools}>
        <ScanField sheet={sheet} />
        <PoeLine sheet={sheet} />
      </div>
      {sheet.list.map((sentence) => (
        <p key={sentence} className={sheetClasses.fault}>
          {sentence}
        </p>
      ))}
      <div className={sheetClasses.columns}>
        <div className={`${sheetClasses.sheet} ${classes.sheet}`}>
          <SheetGrid sheet={sheet} />
        </div>
        <KitSlip key={selected ?? 'none'} sheet={sheet} />
      </div>
      {importing === 'open' && <ImportDialog sheet={sheet} onClose={() => setImporting('shut')} />}
    </div>
  )
}
