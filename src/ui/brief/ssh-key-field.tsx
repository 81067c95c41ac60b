'use client'
import { useState, useTransition } from 'react'
import { removeSshKeyAction, setSshKeyAction } from '../../actions/brief-actions'
import { secretName } from '../../core/brief/brief'
import { sentence } from '../../words/en/sentence'
import { dropsText } from '../frame/drops-text'
import { useJob } from '../live/job-provider'
import classes from './brief.module.css'

/**
 * A private key for SSH, with which units that somebody set up before are signed in to. It is given, and never shown
 * again.
 */
export function SshKeyField() {
  const { job, secretTimes } = useJob()
  const [typed, setTyped] = useState<string>()
  const [note, setNote] = useState<string>()
  const [pending, start] = useTransition()
  const exists = secretTimes.has(secretName.sshKey)
  const keep = () =>
    start(async () => {
      const answer = await setSshKeyAction(job.slug, typed ?? '')
      if (answer.ok) setTyped(undefined)
      setNote(answer.ok ? 'It is sealed.' : sentence(answer.told))
    })
  const remove = () =>
    start(async () => {
      const answer = await removeSshKeyAction(job.slug)
      setNote(answer.ok ? 'It is gone.' : sentence(answer.told))
    })
  return (
    <>
      <span className={classes.secret}>
        <span className={classes.secretLabel}>SSH key</span>{' '}
        <span className="mono">{exists ? '••••••••••••' : 'none'}</span>
        <span className={classes.secretActs}>
          {typed === undefined && (
            <button type="button" onClick={() => setTyped('')}>
              {exists ? 'Give another' : 'Give one'}
            </button>
          )}
          {exists && typed === undefined && (
            <button type="button" disabled={pending} onClick={remove}>
              Take it away
            </button>
          )}
        </span>
      </span>
      {typed !== undefined && (
        <span className={classes.secretActs}>
          <textarea
            className="mono"
            aria-label="Private key to keep"
            placeholder="Paste it, or drop its file here"
            rows={4}
            cols={64}
            spellCheck={false}
            autoComplete="off"
            // biome-ignore lint/a11y/noAutofocus: the person has just asked for this field
            autoFocus
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
            {...dropsText(setTyped)}
          />
          <button type="button" disabled={pending || typed.trim() === ''} onClick={keep}>
            Keep it
          </button>
          <button type="button" onClick={() => setTyped(undefined)}>
            Leave it
          </button>
        </span>
      )}
      {note && <span role="status"> {note}</span>}
    </>
  )
}
