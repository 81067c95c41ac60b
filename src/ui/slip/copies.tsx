'use client'
import { Button, CopyButton, Modal } from '@mantine/core'
import { useState, useTransition } from 'react'
import { showCopy } from '../../actions/muster-actions'
import type { RollRow } from '../../core/muster/roll'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import classes from './slip.module.css'

const words = { 'as-found': 'as found', 'as-left': 'as left', 'from-pages': 'a file from its own pages' } as const
type Which = keyof typeof words

interface Shown {
  readonly which: Which
  readonly name: string
  readonly text: string
}

/** The configuration of a unit before the first change and after its proof: read and saved on record. */
export function Copies({ unit, copies }: { unit: { id: string; name: string }; copies: RollRow['copies'] }) {
  const { job } = useJob()
  const [shown, setShown] = useState<Shown>()
  const [note, setNote] = useState<string>()
  const [pending, start] = useTransition()
  const kept = [
    { which: 'as-found', at: copies.asFound },
    { which: 'as-left', at: copies.asLeft },
    { which: 'from-pages', at: copies.fromPages },
  ] as const
  if (kept.every(({ at }) => at === undefined)) return null
  const show = (which: Which) =>
    start(async () => {
      const answer = await showCopy(job.slug, unit.id, which)
      const file = answer.ok ? answer.value : undefined
      if (file?.base64 !== undefined)
        save(
          file.name,
          Uint8Array.from(atob(file.base64), (sign) => sign.charCodeAt(0)),
        )
      setShown(file && file.base64 === undefined ? { which, ...file } : undefined)
      setNote(answer.ok ? undefined : sentence(answer.told))
    })
  return (
    <div>
      <b>Copies of its configuration</b>
      <ul className={classes.copies}>
        {kept.map(({ which, at }) =>
          at === undefined ? null : (
            <li key={which}>
              {words[which]},{' '}
              <time className="mono" dateTime={new Date(at).toISOString()} suppressHydrationWarning>
                {new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
              </time>{' '}
              <button type="button" disabled={pending} onClick={() => show(which)}>
                {which === 'from-pages' ? 'Save' : 'Show'}
              </button>
            </li>
          ),
        )}
      </ul>
      {note && <p role="alert">{note}</p>}
      {shown && (
        <CopyText title={`${unit.name} ${words[shown.which]}`} shown={shown} onClose={() => setShown(undefined)} />
      )}
    </div>
  )
}

function CopyText({ title, shown, onClose }: { title: string; shown: Shown; onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title={title} size="xl">
      <p className="soft">
        In the unit’s own form. It may hold passphrases in clear, so this asking is recorded in the job’s log.
      </p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keys */}
      <pre className={classes.copyText} tabIndex={0}>
        {shown.text}
      </pre>
      <div className={classes.copyActs}>
        <CopyButton value={shown.text}>
          {({ copied, copy }) => (
            <Button variant="default" onClick={copy}>
              {copied ? 'Copied' : 'Copy the text'}
            </Button>
          )}
        </CopyButton>
        <Button onClick={() => save(shown.name, shown.text)}>Save as a file</Button>
      </div>
    </Modal>
  )
}

function save(name: string, content: string | Uint8Array<ArrayBuffer>): void {
  const type = typeof content === 'string' ? 'text/plain;charset=utf-8' : 'application/octet-stream'
  const address = URL.createObjectURL(new Blob([content], { type }))
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  URL.revokeObjectURL(address)
}
