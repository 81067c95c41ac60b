'use client'
import { useJob } from '../live/job-provider'
import classes from './brief.module.css'

/** What the saved brief gets wrong where its parts meet. */
export function BriefFaults() {
  const { briefFaults } = useJob()
  if (briefFaults.length === 0) return null
  return (
    <div className={classes.faults}>
      <b>To mend</b>
      <ul>
        {briefFaults.map((each) => (
          <li key={each.sentence}>{each.sentence}</li>
        ))}
      </ul>
    </div>
  )
}
