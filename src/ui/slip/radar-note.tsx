'use client'
import { shutUntil } from '../../core/muster/radar-move'
import { useJob } from '../live/job-provider'
import { useNow } from '../live/use-now'
import classes from './slip.module.css'

/** Channels that a unit has left for radar, with the time until it may use them again. */
export function RadarNote({ unit }: { unit: string }) {
  const { roll } = useJob()
  const now = useNow('counting')
  const pace = roll.laptop?.pace ?? 1
  const shut = (roll.rows.get(unit)?.radar ?? []).filter((each) => shutUntil(each, pace) > now && now > 0)
  return shut.map((each) => (
    <p key={each.band} className={classes.quiet}>
      Radar was heard on channel {each.from} at {each.band} GHz: it may not be used for{' '}
      <b className="mono">{countdown(((shutUntil(each, pace) - now) / 1000) * pace)}</b> more. The unit works on{' '}
      {each.to}.
    </p>
  ))
}

/** `29:05`. @param seconds of the wire */
function countdown(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds))
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
