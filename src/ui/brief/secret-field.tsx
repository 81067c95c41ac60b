'use client'
import { CopyButton } from '@mantine/core'
import { useState, useTransition } from 'react'
import { makeSecretAction, revealSecret, setPassphrase } from '../../actions/brief-actions'
import { generatedBits } from '../../core/secrets/passphrase'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import classes from './brief.module.css'

/** A secret: hidden until asked for, can be copied, made anew or typed; the asking is recorded. */
export function SecretField({ name, label, network }: { name: string; label: string; network?: string }) {
  const { job, secretTimes, weak } = useJob()
  const [shown, setShown] = useState<string>()
  const [typed, setTyped] = useState<string>()
  const [note, setNote] = useState<string>()
  const [pending, start] = useTransition()
  const exists = secretTimes.has(name)
  const show = () =>
    start(async () => {
      const answer = await revealSecret(job.slug, name)
      setShown(answer.ok ? answer.value : undefined)
      setNote(answer.ok ? 'The asking is recorded.' : sentence(answer.told))
    })
  const make = () =>
    start(async () => {
      const answer = await makeSecretAction(job.slug, name)
      setShown(undefined)
      setNote(
        answer.ok
          ? `A new one is made: ${Math.floor(generatedBits())} bits, without look-alike characters.`
          : sentence(answer.told),
      )
    })
  const keep = () =>
    start(async () => {
      if (typed === undefined || network === undefined) return
      const answer = await setPassphrase(job.slug, network, typed)
      if (answer.ok) setTyped(undefined)
      setShown(undefined)
      setNote(answer.ok ? 'It is sealed.' : sentence(answer.told))
    })
  return (
    <span className={classes.secret}>
      <span className={classes.secretLabel}>{label}</span>{' '}
      <span className="mono">{shown ?? (exists ? '••••••••••••' : 'made when the brief is saved')}</span>
      {exists && typed === undefined && (
        <span className={classes.secretActs}>
          <button type="button" disabled={pending} onClick={shown === undefined ? show : () => setShown(undefined)}>
            {shown === undefined ? 'Show' : 'Hide'}
          </button>
          {shown !== undefined && (
            <CopyButton value={shown}>
              {({ copied, copy }) => (
                <button type="button" onClick={copy}>
                  {copied ? 'Copied' : 'Copy'}
                </button>
              )}
            </CopyButton>
          )}
          <button type="button" disabled={pending} onClick={make}>
            Make another
          </button>
          {network !== undefined && (
            <button type="button" onClick={() => setTyped('')}>
              Type one
            </button>
          )}
        </span>
      )}
      {typed !== undefined && (
        <span className={classes.secretActs}>
          <input
            className="mono"
            aria-label={`${label} to keep`}
            // biome-ignore lint/a11y/noAutofocus: the person has just asked for this field
            autoFocus
            autoComplete="off"
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
            onKeyDown={(event) => event.key === 'Enter' && keep()}
          />
          <button type="button" disabled={pending || typed === ''} onClick={keep}>
            Keep it
          </button>
          <button
            type="button"
            onClick={() => {
              setTyped(undefined)
              setNote(undefined)
            }}
          >
            Leave it
          </button>
        </span>
      )}
      <span className={classes.secretNote} role="status">
        {note ?? (weak.has(name) ? 'It can be guessed.' : '')}
      </span>
    </span>
  )
}
