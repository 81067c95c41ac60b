import { isChanged, type RollRow } from '../../core/muster/roll'
import classes from './slip.module.css'

/** What is asked of a unit now and was not when it answered. Nothing where all is the same. */
export function ChangedNote({ row }: { row: RollRow }) {
  if (!isChanged(row)) return null
  return (
    <div className={classes.changed}>
      <b>It answered as it was asked to then. Since then:</b>
      <ul>
        {row.changes.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
    </div>
  )
}
