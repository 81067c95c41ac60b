import { summary } from '../core/muster/roll-text'
import { countriesByName, countryName } from '../core/regulatory/country'
import { viewJob } from '../store/job-view'
import { listJobs } from '../store/jobs'
import { radioRules } from '../store/regulatory-file'
import { type JobLine, JobsView } from '../ui/jobs/jobs-view'
import { getStore } from './server/store'

export const dynamic = 'force-dynamic'

export default async function JobsPage() {
  const store = await getStore()
  const jobs = await listJobs(store)
  const lines = await Promise.all(
    jobs.map(async ({ slug, name, brief }): Promise<JobLine> => {
      const view = await viewJob(store, slug)
      return { slug, name, site: brief.site, country: countryName(brief.country), course: view ? summary(view.units, view.roll) : '' }
    }),
  )
  const { database } = await radioRules(store)
  const countries = countriesByName(database.keys()).map(({ code, name }) => ({ value: code, words: name }))
  return <JobsView jobs={lines} countries={countries} />
}
