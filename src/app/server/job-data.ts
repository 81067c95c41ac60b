/** What the pages of a job show, read once for each request. */
import 'server-only'
import { notFound } from 'next/navigation'
import { cache } from 'react'
import { getStore } from '../../actions/store'
import { modelsOf } from '../../core/kit/kit-card'
import { reviewRoster } from '../../core/kit/roster'
import { countryName } from '../../core/regulatory/country'
import { reviewBrief } from '../../core/review/review'
import { viewJob } from '../../jobs/job-view'
import { loadSite } from '../../jobs/plan'
import { radioRules } from '../../jobs/rules'
import { weakSecrets } from '../../jobs/secrets'
import type { JobData } from '../../ui/live/job-data'

export const loadJobData = cache(async (slug: string): Promise<JobData> => {
  const store = await getStore()
  const view = await viewJob(store, slug)
  if (!view) notFound()
  const { job, units, plans, before, planFaults, cards, secretTimes, roll } = view
  const [rules, weak, { site, version }] = await Promise.all([
    radioRules(store),
    weakSecrets(store, job.id),
    loadSite(store, job.id),
  ])
  const country = rules.database.get(job.brief.country)
  const models = modelsOf(units, cards)
  return {
    job,
    units,
    plans,
    before,
    roll,
    cards,
    country,
    countryName: countryName(job.brief.country),
    rulesOrigin: rules.origin,
    briefFaults: reviewBrief({ brief: job.brief, country, models, weak, today: new Date() }).filter(
      (fault) => fault.weight === 'mend',
    ).length,
    rosterFaults: reviewRoster(units, cards),
    planFaults,
    secretTimes,
    weak,
    site,
    siteVersion: version,
  }
})
