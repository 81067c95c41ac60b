import { bareWords, beginCard } from '../../words/en/by-hand'
import { PageLink } from '../frame/page-link'
import { useJob } from '../live/job-provider'
import classes from './slip.module.css'

/** Why hands set a unit; where nobody has described its model, the way to begin a card for it. */
export function ByHandNote({ model, why, isBare }: { model: string; why: string; isBare: boolean }) {
  const { job } = useJob()
  if (!isBare) return <p className={classes.quiet}>Set by hand: {why}.</p>
  return (
    <p className={classes.quiet}>
      {bareWords}{' '}
      <PageLink href={`/jobs/${job.slug}/kit/cards?model=${encodeURIComponent(model)}`}>{beginCard}</PageLink>
    </p>
  )
}
