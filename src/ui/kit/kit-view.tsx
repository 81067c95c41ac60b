'use client'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { asText } from '../../core/message/message'
import { sentence } from '../../words/en/sentence'
import { DropPlace } from '../frame/drop-place'
import { listFiles } from '../frame/file-kinds'
import { PageLink } from '../frame/page-link'
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
  /** The text that is imported; undefined while nothing is. */
  const [importing, setImporting] = useState<string>()
  const count = sheet.rows.length
  return (
    <DropPlace
      what="a list as CSV"
      accept={listFiles}
      className={sheetClasses.page}
      onFiles={([file]) => {
        if (file) void file.text().then(setImporting)
      }}
    >
      <div className={sheetClasses.head}>
        <h1>
          {count} {count === 1 ? 'unit' : 'units'} on the list
        </h1>
        <StandingNote standing={sheet.standing} onLoad={sheet.reload} />
        <div className={sheetClasses.headRight}>
          <Button variant="default" disabled={sheet.undoable === 0} onClick={sheet.undo}>
            Undo
          </Button>
          <Button variant="default" component={PageLink} href={`/jobs/${job.slug}/kit/cards`}>
            Kit cards
          </Button>
          <Button onClick={() => setImporting('')}>Import a list</Button>
        </div>
      </div>
      <div className={classes.tools}>
        <ScanField sheet={sheet} />
        <PoeLine sheet={sheet} />
      </div>
      {sheet.list.map((each) => (
        <p key={asText(each)} className={sheetClasses.fault}>
          {sentence(each)}
        </p>
      ))}
      <div className={sheetClasses.columns}>
        <div className={`${sheetClasses.sheet} ${classes.sheet}`}>
          <SheetGrid sheet={sheet} />
        </div>
        <KitSlip key={selected ?? 'none'} sheet={sheet} />
      </div>
      {importing !== undefined && (
        <ImportDialog sheet={sheet} text={importing} onText={setImporting} onClose={() => setImporting(undefined)} />
      )}
    </DropPlace>
  )
}
