'use client'
import { Button } from '@mantine/core'
import { trustNewCertificate } from '../../actions/muster-actions'
import { heldFacts } from '../../core/muster/held'
import { heldStep } from '../../core/muster/roll'
import { heldWords } from '../../words/en/held'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import { OldNote, oldNamesIn } from './old-note'
import { PageWhenHeld } from './page-when-held'
import classes from './slip.module.css'

/** Why a unit is held, and what the hands do about it. */
export function HeldNote({ unit }: { unit: string }) {
  const { job, roll, units } = useJob()
  const { order, pending, fault } = useOrder()
  const row = roll.rows.get(unit)
  const step = heldStep(row)
  const state = step && row?.steps[step]
  if (state?.kind !== 'held') return null
  const { why, more, hands } = heldWords(state)
  const { press } = heldFacts(state)
  const held = units.find(({ id }) => id === unit)
  return (
    <>
      <div className={classes.held} data-turn={state.code === 'set-by-hand' ? 'hands' : 'fault'}>
        <b>{why}</b>
        {more && <div>{more}</div>}
      </div>
      <div>
        <b>What to do</b>
        <ol className={classes.hands}>
          {hands.map((hand) => (
            <li key={hand}>{hand}</li>
          ))}
        </ol>
      </div>
      {held && row?.copies.pageWhenHeld !== undefined && <PageWhenHeld key={held.id} unit={held} />}
      {state.code === 'outdated' && <OldNote unit={unit} offered={oldNamesIn(state.params)} />}
      {press === 'trust-new-certificate' && (
        <div>
          <Button
            variant="default"
            disabled={pending || roll.muster !== 'idle'}
            onClick={() => order(() => trustNewCertificate(job.slug, unit, 'muster'))}
          >
            I reset it: trust its new certificate
          </Button>
          {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
        </div>
      )}
    </>
  )
}
