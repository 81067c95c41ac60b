'use client'
import { Button } from '@mantine/core'
import { makeSecretAction } from '../../actions/brief-actions'
import type { BriefFault } from '../../core/review/fault'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'

/**
 * What is wrong with the sentence above, and the press that mends it.
 *
 * @param under   paths whose faults stand here, with all below them
 * @param except  paths below those that have a place of their own
 */
export function Faults({ under, except = [] }: { under: readonly string[]; except?: readonly string[] }) {
  const { faults } = useBrief()
  const within = (field: string, path: string): boolean => field === path || field.startsWith(`${path}.`)
  const here = faults.filter(
    ({ field }) => under.some((path) => within(field, path)) && !except.some((path) => within(field, path)),
  )
  if (here.length === 0) return null
  return (
    <ul className={classes.faults}>
      {here.map((fault) => (
        <FaultLine key={`${fault.field} ${sentence(fault)}`} fault={fault} />
      ))}
    </ul>
  )
}

function FaultLine({ fault }: { fault: BriefFault }) {
  const { job } = useJob()
  const { mend } = useBrief()
  const { order, pending, fault: refusal } = useOrder()
  const cure = fault.mend
  return (
    <li data-weight={fault.weight}>
      <span className={classes.sign} aria-hidden="true">
        {fault.weight === 'mend' ? '!' : 'i'}
      </span>
      <span>
        <span className="visually-hidden">{fault.weight === 'mend' ? 'To mend: ' : 'To know: '}</span>
        {sentence(fault)}
        {refusal && ` ${sentence(refusal.told)}`}
      </span>
      {cure && (
        <Button
          variant="default"
          size="compact-sm"
          disabled={pending}
          onClick={() => ('set' in cure ? mend(cure.set) : order(() => makeSecretAction(job.slug, cure.make)))}
        >
          {sentence(cure)}
        </Button>
      )}
    </li>
  )
}
