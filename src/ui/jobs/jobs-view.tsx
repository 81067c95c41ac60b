'use client'
import type { Option } from '../brief/fields'
import { Mark } from '../frame/mark'
import { PageLink } from '../frame/page-link'
import { DeleteJob } from './delete-job'
import classes from './jobs-view.module.css'
import { NewJob } from './new-job'
import { TakeJob } from './take-job'

export interface JobLine {
  readonly id: number
  readonly slug: string
  readonly name: string
  /** Site and country. */
  readonly where: string
  /** How far it is. */
  readonly course: string
  /** Why it cannot be read; the other jobs can. */
  readonly fault?: string
}

/** All jobs, one line each; a new one, and one from a file. */
export function JobsView({ jobs, countries }: { jobs: readonly JobLine[]; countries: readonly Option[] }) {
  return (
    <TakeJob>
      {(takeJob) => (
        <main className={classes.page}>
          <Mark />
          <div className={classes.head}>
            <h1>Jobs</h1>
            <NewJob countries={countries} />
            {takeJob}
          </div>
          {jobs.length === 0 ? (
            <p>There are none yet. Begin one, or take one in from a file.</p>
          ) : (
            <ul className={classes.list}>
              {jobs.map((job) => (
                <li key={job.slug} className={classes.row}>
                  {job.fault === undefined ? (
                    <PageLink href={`/jobs/${job.slug}`} className={classes.line ?? ''}>
                      <b>{job.name}</b>
                      <span className="soft">{job.where}</span>
                      <span className={classes.course}>{job.course}</span>
                    </PageLink>
                  ) : (
                    <div className={classes.line}>
                      <b>{job.name}</b>
                      <span className={classes.fault}>{job.fault}. The others are not touched by it.</span>
                    </div>
                  )}
                  <DeleteJob id={job.id} name={job.name} />
                </li>
              ))}
            </ul>
          )}
        </main>
      )}
    </TakeJob>
  )
}
