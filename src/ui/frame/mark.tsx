import classes from './frame.module.css'
import { PageLink } from './page-link'

/** The name of the program; leads to the jobs. */
export function Mark() {
  return (
    <PageLink href="/" className={classes.mark ?? ''}>
      Air Muster
    </PageLink>
  )
}
