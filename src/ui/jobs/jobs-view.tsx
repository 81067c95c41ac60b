import Link from 'next/link'
import { Mark } from '../frame/mark'
import classes from './jobs-view.module.css'

export interface JobLine {
  readonly slug: string
  readonly name: string
  readonly site: string
  readonly country: string
  /** How far it is. */
  readonly course: string
}

/** All jobs, one line each. */
export function JobsView({ jobs }: { jobs: readonly JobLine[] }) {
  return (
    <main className={classes.page}>
      <Mark />
      <h1>Jobs</h1>
      {jobs.length === 0 ? (
        <p>
          There are none yet. Load one with <code className="mono">npx muster load &lt;file&gt;</code>.
        </p>
      ) : (
        <ul className={classes.list}>
          {jobs.map((job) => (
            <li key={job.slug}>
              <Link href={`/jobs/${job.slug}/bench`} className={classes.line ?? ''}>
                <b>{job.name}</b>
                <span className="soft">
                  {job.site}, {job.country}
                </span>
                <span className={classes.course}>{job.course}</span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </main>
  )
}
