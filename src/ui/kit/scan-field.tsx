'use client'
import { TextInput } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { keepLabelPasswordsAction } from '../../actions/kit-actions'
import { landScan } from '../../core/kit/scan'
import { scanWords } from '../../words/en/kit'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import classes from './kit.module.css'
import { rowWith } from './sheet-grid'
import type { KitSheet } from './use-kit-sheet'

/** A label, scanned or typed: it lands on the row that waits for it. */
export function ScanField({ sheet }: { sheet: KitSheet }) {
  const { job, cards, select } = useJob()
  const { order, fault } = useOrder()
  const field = useRef<HTMLInputElement>(null)
  const [text, setText] = useState('')
  const [last, setLast] = useState<string>()
  const [said, setSaid] = useState<{ words: string; kind: 'good' | 'bad' }>()

  const land = (scanned: string) => {
    const landing = landScan({ text: scanned, rows: sheet.rows, last, cards })
    setText('')
    if (landing.kind === 'nothing') {
      setSaid({ words: sentence(landing.why), kind: 'bad' })
      return
    }
    const fresh = landing.kind === 'new' ? rowWith(sheet.rows, landing.cells) : undefined
    const id = fresh?.id ?? (landing.kind === 'new' ? '' : landing.row)
    if (fresh) sheet.change((rows) => [...rows, fresh])
    if (landing.kind === 'fills')
      sheet.change((rows) =>
        rows.map((row) => (row.id === id ? { ...row, cells: { ...row.cells, ...landing.cells } } : row)),
      )
    if (landing.password) {
      const { mac, clear } = landing.password
      order(() => keepLabelPasswordsAction(job.slug, [{ mac, password: clear }]))
    }
    const name = fresh?.cells.name ?? sheet.rows.find((row) => row.id === id)?.cells.name ?? id
    const what =
      landing.kind === 'found'
        ? ''
        : Object.keys(landing.cells)
            .map((column) => (column === 'mac' ? 'MAC' : column))
            .join(' and ')
    const passwordWords = landing.password ? ` ${scanWords.passwordKept}` : ''
    setSaid({
      words:
        (landing.kind === 'found'
          ? `${name} has this ${landing.by === 'mac' ? 'MAC' : 'serial'} already.`
          : landing.kind === 'fills'
            ? `${what} landed on ${name}.`
            : `A new row, ${name}, took the ${what}.`) + passwordWords,
      kind: 'good',
    })
    setLast(id)
    select(id)
  }
  const landed = useRef(land)
  landed.current = land

  // A scanner that types while no field has the focus: the frame hands over what it typed.
  useEffect(() => {
    const hear = (event: Event) => landed.current((event as CustomEvent<string>).detail)
    window.addEventListener('air-muster-scan', hear)
    return () => window.removeEventListener('air-muster-scan', hear)
  }, [])

  return (
    <form
      className={classes.scan}
      onSubmit={(event) => {
        event.preventDefault()
        if (text.trim() !== '') land(text)
        field.current?.focus()
      }}
    >
      <TextInput
        ref={field}
        classNames={{ input: 'mono' }}
        aria-label="Scan or type a label"
        placeholder={scanWords.hint}
        autoComplete="off"
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <span role="status" data-kind={fault ? 'bad' : said?.kind} className={classes.said}>
        {(fault && sentence(fault.told)) ?? said?.words ?? ''}
      </span>
    </form>
  )
}
