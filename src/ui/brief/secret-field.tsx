'use client'
import { Button, CopyButton } from '@mantine/core'
import { useState, useTransition } from 'react'
import { revealSecret } from '../../app/actions/brief-actions'
import { useJob } from '../live/job-provider'
import classes from './brief.module.css'

/** A secret: hidden until asked for, can be copied, and the asking is recorded. */
export function SecretField({ name, label }: { name: string; label: string }) {
  const { job, secretNames } = useJob()
  const [shown, setShown] = useState<string>()
  const [sentence, setSentence] = useState<string>()
  const [pending, start] = useTransition()
  const exists = secretNames.includes(name)
  const show = () =>
    start(async () => {
      const answer = await revealSecret(job.slug, name)
      if (answer.ok) setShown(answer.secret)
      else setSentence(answer.sentence)
    })
  return (
    <div className={classes.secret}>
      <span className={classes.secretLabel}>{label}</span>
      <span className="mono">{shown ?? (exists ? '••••••••••••' : 'not made yet')}</span>
      {exists && (
        <span className={classes.secretActs}>
          {shown === undefined ? (
            <Button variant="default" size="compact-sm" disabled={pending} onClick={show}>
              Show
            </Button>
          ) : (
            <>
              <Button variant="default" size="compact-sm" onClick={() => setShown(undefined)}>
                Hide
              </Button>
              <CopyButton value={shown}>
                {({ copied, copy }) => (
                  <Button variant="default" size="compact-sm" onClick={copy}>
                    {copied ? 'Copied' : 'Copy'}
                  </Button>
                )}
              </CopyButton>
            </>
          )}
          <span className="soft">{sentence ?? 'The asking is recorded.'}</span>
        </span>
      )}
    </div>
  )
}
