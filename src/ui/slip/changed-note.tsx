'use client'
import { asText } from '../../core/message/message'
import { isChanged } from '../../core/muster/roll'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import classes from './slip.module.css'

/** What is asked of a unit now and was not when it answered. Nothing where all is the same. */
export function ChangedNote({ unit }: { unit: string }) {
  const row = useJob().roll.rows.get(unit)
  if (!row || !isChanged(row)) return null
  return (
    <div className={classes.changed}>
      <b>It answered as it was asked to then. Since then:</b>
      <ul>
        {row.changes.map((change) => (
          <li key={asText(change)}>{sentence(change)}</li>
        ))}
      </ul>
    </div>
  )
}
