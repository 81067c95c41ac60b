import { speakOldAction, trustNewCertificate } from '../../actions/muster-actions'
import { named } from '../../core/kit/old-crypto'
import type { Unit } from '../../core/kit/unit'
import type { Hand, Told } from '../../core/showing/window-talk'
import { sentence } from '../../words/en/sentence'
import { acceptOld, failedWords, trustIt } from '../../words/en/window'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import classes from './window.module.css'

interface FailedNoteProps {
  readonly unit: Unit
  readonly failed: Extract<Told, { kind: 'failed' }>
  readonly act: (hand: Hand) => void
  /** Opens the window by another lane. */
  readonly openAnew: () => void
}

/** Why a page could not be had; where its certificate is another, the way to trust that on somebody's word. */
export function FailedNote({ unit, failed, act, openAnew }: FailedNoteProps) {
  const { job, roll } = useJob()
  const { order, pending, fault } = useOrder()
  const trust = () =>
    order(async () => {
      const outcome = await trustNewCertificate(job.slug, unit.id, 'nothing')
      // Its first page, anew: what could not be had has no address to reload.
      if (outcome.ok) act({ kind: 'go', address: '/' })
      return outcome
    })
  const speakOld = (offered: NonNullable<typeof failed.old>) =>
    order(async () => {
      const names = named(roll.rows.get(unit.id)?.old ?? [], offered)
      const outcome = await speakOldAction(job.slug, unit.id, names, 'nothing')
      if (outcome.ok) openAnew()
      return outcome
    })
  return (
    <p className={classes.note} role="alert">
      {failedWords(failed)}{' '}
      {failed.code === 'untrusted' && (
        <button type="button" disabled={pending} onClick={trust}>
          {trustIt}
        </button>
      )}
      {failed.code === 'outdated' && failed.old && (
        <button type="button" disabled={pending} onClick={() => speakOld(failed.old ?? [])}>
          {acceptOld}
        </button>
      )}
      {fault && <span className={sheet.fault}> {sentence(fault.told)}</span>}
    </p>
  )
}
