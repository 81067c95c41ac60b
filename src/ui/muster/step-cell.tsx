import type { StepState } from '../../core/muster/events'
import { duration, secondsUntil } from './duration'
import classes from './muster.module.css'

/** One step of one unit: its state by shape and word, a wait as a countdown. */
export function StepCell({
  title,
  state,
  now,
  pace,
}: {
  title: string
  state: StepState | undefined
  now: number
  pace: number
}) {
  const is = state?.is ?? 'idle'
  const seconds = state?.is === 'waiting' ? secondsUntil(state.until, now, pace) : 0
  const signs = { idle: '·', working: '▸', waiting: seconds > 0 ? String(seconds) : '…', done: '✓', held: '!' } as const
  const words = {
    idle: 'not yet',
    working: 'working',
    waiting: `waiting, ${duration(seconds)}`,
    done: 'done',
    held: 'held',
  } as const
  return (
    <span
      className={classes.cell}
      data-is={is}
      title={`${title}: ${words[is]}${state?.is === 'done' && state.note ? `, ${state.note}` : ''}`}
    >
      <span aria-hidden="true">{signs[is]}</span>
      <span className="visually-hidden">{words[is]}</span>
    </span>
  )
}
