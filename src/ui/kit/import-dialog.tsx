'use client'
import { Button, FileInput, Modal, NativeSelect, Textarea } from '@mantine/core'
import { useMemo, useState } from 'react'
import { keepLabelPasswordsAction } from '../../actions/kit-actions'
import {
  type ChosenColumns,
  type ImportColumn,
  type ImportPreview,
  importColumns,
  importTitles,
  previewImport,
} from '../../core/kit/import-csv'
import { columns, columnTitles } from '../../core/kit/sheet-row'
import { asText } from '../../core/message/message'
import { sentence } from '../../words/en/sentence'
import { endingsOf, listFiles } from '../frame/file-kinds'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheetClasses from '../theme/sheet.module.css'
import classes from './kit.module.css'
import type { KitSheet } from './use-kit-sheet'

const kinds = { adds: 'adds', changes: 'changes', same: 'as it is', fault: 'fault' } as const

interface Props {
  readonly sheet: KitSheet
  readonly text: string
  readonly onText: (text: string) => void
  readonly onClose: () => void
}

/** A list from a file or the clipboard: first what it would do, line by line, then the doing. */
export function ImportDialog({ sheet, text, onText, onClose }: Props) {
  const { job, cards } = useJob()
  const { order, pending, fault } = useOrder()
  const [chosen, setChosen] = useState<ChosenColumns>(new Map())
  const preview = useMemo(
    () => (text.trim() === '' ? undefined : previewImport(text, sheet.units, cards, chosen)),
    [text, sheet.units, cards, chosen],
  )
  const read = (next: string) => {
    setChosen(new Map())
    onText(next)
  }
  const count = (kind: keyof typeof kinds): number => preview?.lines.filter((line) => line.kind === kind).length ?? 0
  const good = count('adds') + count('changes')
  const take = (): void => {
    const lines = preview?.lines.filter((line) => line.kind === 'adds' || line.kind === 'changes') ?? []
    const passwords = lines.flatMap(({ cells: { mac }, password }) => (password === '' ? [] : [{ mac, password }]))
    if (passwords.length === 0) return takeLines(lines)
    order(async () => {
      const outcome = await keepLabelPasswordsAction(job.slug, passwords)
      if (outcome.ok) takeLines(lines)
      return outcome
    })
  }
  const takeLines = (lines: ImportPreview['lines']): void => {
    const byId = new Map(lines.map((line) => [line.id, line.cells]))
    sheet.change((rows) => {
      const known = new Set(rows.map((row) => row.id))
      return [
        ...rows.map((row) => ({ ...row, cells: byId.get(row.id) ?? row.cells })),
        ...lines.filter((line) => !known.has(line.id)).map(({ id, cells }) => ({ id, cells })),
      ]
    })
    onClose()
  }
  return (
    <Modal opened onClose={onClose} title="Import a list" size="xl">
      <div className={classes.import}>
        <FileInput
          label="A CSV file"
          placeholder="Choose it, or drop it on the page"
          accept={endingsOf(listFiles)}
          clearable={false}
          onChange={async (file) => file && read(await file.text())}
        />
        <Textarea
          label="or what you paste here"
          aria-label="The list as text"
          classNames={{ input: 'mono' }}
          minRows={3}
          maxRows={5}
          autosize
          value={text}
          onChange={(event) => read(event.currentTarget.value)}
        />
        {preview?.faults.map((each) => (
          <p key={each.code} className={sheetClasses.fault}>
            {sentence(each)}
          </p>
        ))}
        {preview && preview.headings.length > 0 && (
          <ColumnMeanings
            preview={preview}
            onChoose={(place, column) =>
              setChosen((before) => {
                // One column of the list comes from one column of the file: the other has no meaning then.
                const others = [...before].map(([at, was]) => [at, was === column ? null : was] as const)
                return new Map([...others, [place, column]])
              })
            }
          />
        )}
        {preview && preview.lines.length > 0 && (
          <>
            <p role="status">
              <b>{count('adds')}</b> to add, <b>{count('changes')}</b> to change, {count('same')} as they are,{' '}
              <b>{count('fault')}</b> with faults.
            </p>
            <div className={classes.preview}>
              <table className={sheetClasses.table}>
                <thead>
                  <tr>
                    <th scope="col">Line</th>
                    <th scope="col">What it does</th>
                    {columns.map((column) => (
                      <th key={column} scope="col">
                        {columnTitles[column]}
                      </th>
                    ))}
                    {preview.found.password !== undefined && <th scope="col">{importTitles.password}</th>}
                  </tr>
                </thead>
                <tbody>
                  {preview.lines.map((line) => (
                    <tr key={line.line} data-kind={line.kind}>
                      <td className="mono">{line.line}</td>
                      <td className={classes.what}>
                        {kinds[line.kind]}
                        {line.faults.map((fault) => (
                          <div key={`${fault.column} ${asText(fault)}`}>
                            {fault.column === 'list' ? '' : `${columnTitles[fault.column]}: `}
                            {sentence(fault)}
                          </div>
                        ))}
                      </td>
                      {columns.map((column) => (
                        <td
                          key={column}
                          data-changed={line.before !== undefined && line.before[column] !== line.cells[column]}
                        >
                          {line.cells[column]}
                        </td>
                      ))}
                      {preview.found.password !== undefined && <td>{line.password === '' ? '' : '••••••••'}</td>}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </>
        )}
        <div className={classes.acts}>
          {count('fault') > 0 && (
            <span className="soft">Lines with faults are left out: mend them in the file, or take the others now.</span>
          )}
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          {fault && <span className={sheetClasses.fault}>{sentence(fault.told)}</span>}
          <Button disabled={good === 0 || pending} onClick={take}>
            {good === 0 ? 'Nothing to take' : `Take ${good} ${good === 1 ? 'line' : 'lines'}`}
          </Button>
        </div>
      </div>
    </Modal>
  )
}

interface MeaningProps {
  readonly preview: ImportPreview
  readonly onChoose: (place: number, column: ImportColumn | null) => void
}

/** What each column of the file means; a person may say otherwise. */
function ColumnMeanings({ preview: { headings, found }, onChoose }: MeaningProps) {
  const meaning = (place: number): ImportColumn | undefined => importColumns.find((column) => found[column] === place)
  return (
    <fieldset className={classes.meanings}>
      <legend>What its columns mean</legend>
      {headings.map((heading, place) => (
        <NativeSelect
          // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place alone
          key={place}
          label={heading || `column ${place + 1}`}
          size="xs"
          value={meaning(place) ?? ''}
          data-unread={meaning(place) === undefined}
          data={[
            { value: '', label: 'left out' },
            ...importColumns.map((column) => ({ value: column, label: importTitles[column] })),
          ]}
          onChange={(event) =>
            onChoose(place, importColumns.find((column) => column === event.currentTarget.value) ?? null)
          }
        />
      ))}
    </fieldset>
  )
}
