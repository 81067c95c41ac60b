'use client'
import { shutUntil } from '../../core/muster/radar-move'
import { secondsUntil } from '../../words/en/duration'
import { useJob } from '../live/job-provider'
import { useNow } from '../live/use-now'
import classes from './slip.module.css'

/** Channels that a unit has left for radar, with the time until it may use them again. */
export function RadarNote({ unit }: { unit: string }) {
  const { roll } = useJob()
  const pace = roll.laptop?.pace ?? 1
  const heard = roll.rows.get(unit)?.radar ?? []
  const now = useNow(heard.some((each) => shutUntil(each, pace) > Date.now()) ? 'counting' : 'still')
  const shut = heard.filter((each) => shutUntil(each, pace) > now && now > 0)
  return shut.map((each) => (
    <p key={each.band} className={classes.quiet}>
      Radar was heard on channel {each.from} at {each.band} GHz: it may not be used for{' '}
      <b className="mono">{countdown(secondsUntil(shutUntil(each, pace), now, pace))}</b> more. The unit works on{' '}
      {each.to}.
    </p>
  ))
}

/** `29:05`. @param seconds of the wire, whole */
function countdown(seconds: number): string {
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}
