import type { StepState } from '../../core/muster/events'
import { duration, secondsUntil } from '../../words/en/duration'
import { sentence } from '../../words/en/sentence'
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
  // What hands set is not held for a fault: it is their turn.
  const kind = state?.kind === 'held' && state.code === 'set-by-hand' ? 'hands' : (state?.kind ?? 'idle')
  const seconds = state?.kind === 'waiting' ? secondsUntil(state.until, now, pace) : 0
  const signs = {
    idle: '·',
    working: '▸',
    waiting: seconds > 0 ? String(seconds) : '…',
    done: '✓',
    held: '!',
    hands: '',
  } as const
  const words = {
    idle: 'not yet',
    working: 'working',
    waiting: `waiting, ${duration(seconds)}`,
    done: 'done',
    held: 'held',
    hands: 'for your hands',
  } as const
  return (
    <span
      className={classes.cell}
      data-kind={kind}
      title={`${title}: ${words[kind]}${state?.kind === 'done' && state.note ? `, ${sentence(state.note)}` : ''}`}
    >
      <span aria-hidden="true">{signs[kind]}</span>
      <span className="visually-hidden">{words[kind]}</span>
    </span>
  )
}
