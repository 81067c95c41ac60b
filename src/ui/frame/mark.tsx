import Link from 'next/link'
import classes from './frame.module.css'

/** The name of the program; leads to the jobs. */
export function Mark() {
  return (
    <Link href="/" className={classes.mark ?? ''}>
      Air Muster
    </Link>
  )
}
