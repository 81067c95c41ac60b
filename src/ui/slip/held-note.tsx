import { heldStep, type RollRow } from '../../core/muster/roll'
import classes from './slip.module.css'

/** Why a unit is held, and what the hands do about it. */
export function HeldNote({ row }: { row: RollRow }) {
  const step = heldStep(row)
  const state = step && row.steps[step]
  if (state?.is !== 'held') return null
  return (
    <>
      <div className={classes.held}>
        <b>{state.why}</b>
        {state.more && <div>{state.more}</div>}
      </div>
      <div>
        <b>What to do</b>
        <ol className={classes.hands}>
          {state.hands.map((hand) => (
            <li key={hand}>{hand}</li>
          ))}
        </ol>
      </div>
    </>
  )
}
