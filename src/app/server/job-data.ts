/** What the pages of a job show, read once for each request. */
import 'server-only'
import { notFound } from 'next/navigation'
import { cache } from 'react'
import { reviewBrief } from '../../core/brief/review'
import { makePlan } from '../../core/config/plan'
import { reviewRoster } from '../../core/kit/roster'
import { countryName } from '../../core/regulatory/country'
import { viewJob } from '../../store/job-view'
import { loadKitCards } from '../../store/kit-card-files'
import { loadRegulatory, regulatoryDate } from '../../store/regulatory-file'
import { secretNames } from '../../store/secrets'
import type { JobData } from '../../ui/live/job-data'
import { getStore } from './store'

export const loadJobData = cache(async (slug: string): Promise<JobData> => {
  const store = await getStore()
  const view = await viewJob(store, slug)
  if (!view) notFound()
  const { job, units, plans, before, roll } = view
  const cards = loadKitCards()
  const regulatory = loadRegulatory()
  const country = regulatory.get(job.brief.country)
  return {
    job,
    units,
    plans,
    roll,
    cards,
    countryName: countryName(job.brief.country),
    regulatoryDate: regulatoryDate(),
    briefFaults: reviewBrief(job.brief, regulatory),
    rosterFaults: reviewRoster(units, cards),
    planFaults: country ? makePlan(job.brief, units, cards, country, before).faults : [],
    secretNames: await secretNames(store, job.id),
  }
})
