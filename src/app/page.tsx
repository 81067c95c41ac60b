import { summary } from '../core/muster/roll-text'
import { countriesByName, countryName } from '../core/regulatory/country'
import { BrokenRowError } from '../store/faults'
import { viewJob } from '../store/job-view'
import { type Job, listJobs } from '../store/jobs'
import type { Store } from '../store/open'
import { radioRules } from '../store/regulatory-file'
import { type JobLine, JobsView } from '../ui/jobs/jobs-view'
import { getStore } from './server/store'

export const dynamic = 'force-dynamic'

export default async function JobsPage() {
  const store = await getStore()
  const { jobs, broken } = await listJobs(store)
  const whole = await Promise.all(jobs.map((job) => lineOf(store, job)))
  const faulty = broken.map(({ id, slug, name, reason }): JobLine => ({ id, slug, name, where: '', course: '', fault: reason }))
  const { database } = await radioRules(store)
  const countries = countriesByName(database.keys()).map(({ code, name }) => ({ value: code, words: name }))
  return <JobsView jobs={[...whole, ...faulty].sort((a, b) => a.name.localeCompare(b.name))} countries={countries} />
}

/** A job that cannot be read is a line of its own; the others are shown all the same. */
async function lineOf(store: Store, { id, slug, name, brief }: Job): Promise<JobLine> {
  const line = { id, slug, name, where: `${brief.site}, ${countryName(brief.country)}` }
  try {
    const view = await viewJob(store, slug)
    return { ...line, course: view ? summary(view.units, view.roll) : '' }
  } catch (error) {
    if (!(error instanceof BrokenRowError)) throw error
    return { ...line, course: '', fault: error.message }
  }
}
