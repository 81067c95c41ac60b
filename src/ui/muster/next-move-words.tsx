import { duration, secondsUntil } from '../../words/en/duration'
import type { NextMove } from '../../words/en/next-move'
import classes from './muster.module.css'

/** "Your next move" in words; a wait tells its seconds. */
export function NextMoveWords({ move, now, pace }: { move: NextMove; now: number; pace: number }) {
  const seconds = move.until === undefined ? 0 : secondsUntil(move.until, now, pace)
  return (
    <span className={classes.move} data-tone={move.tone}>
      {move.words}
      {seconds > 0 ? `, ${duration(seconds)}` : ''}
    </span>
  )
}
