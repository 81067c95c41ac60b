'use client'
import { Button } from '@mantine/core'
import { trustNewCertificate } from '../../app/actions/muster-actions'
import { heldStep } from '../../core/muster/roll'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import classes from './slip.module.css'

/** Why a unit is held, and what the hands do about it. */
export function HeldNote({ unit }: { unit: string }) {
  const { job, roll } = useJob()
  const { order, pending, fault } = useOrder()
  const row = roll.rows.get(unit)
  const step = heldStep(row)
  const state = step && row?.steps[step]
  if (state?.is !== 'held') return null
  return (
    <>
      <div className={classes.held}>
        <b>{state.why}</b>
        {state.more && <div>{state.more}</div>}
      </div>
      <div>
        <b>What to do</b>
        <ol className={classes.hands}>
          {state.hands.map((hand) => (
            <li key={hand}>{hand}</li>
          ))}
        </ol>
      </div>
      {state.press === 'trust-new-certificate' && (
        <div>
          <Button
            variant="default"
            disabled={pending || roll.muster !== 'idle'}
            onClick={() => order(() => trustNewCertificate(job.slug, unit))}
          >
            I reset it: trust its new certificate
          </Button>
          {fault && <p className={sheet.fault}>{fault.sentence}</p>}
        </div>
      )}
    </>
  )
}
