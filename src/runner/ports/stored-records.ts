/** The records port on MariaDB. */
import { withBareCards } from '../../core/kit/bare-card'
import { type JobView, viewJob } from '../../jobs/job-view'
import { replan } from '../../jobs/replan'
import { appendEvents } from '../../store/events'
import { readFileParts } from '../../store/files'
import { jobById } from '../../store/jobs'
import { listUnits } from '../../store/kit'
import { kitCardsOf } from '../../store/kit-card-files'
import type { Store } from '../../store/open'
import { claimOrder, endOrder, musterIsOpen, orderThrew, placeOrder, renewLease } from '../../store/orders'
import { loadPlans } from '../../store/plans'
import { radioRules } from '../../store/regulatory-file'
import { rollOf } from '../../store/rolls'
import { reportRunner } from '../../store/runners'
import {
  hasBackup,
  keepBackup,
  openBackup,
  openDatedSecrets,
  openFormerPasswords,
  pinOnFirstSight,
} from '../../store/secrets'
import type { Records } from './records'

export function storedRecords(store: Store): Records {
  return {
    claimOrder: (...asked) => claimOrder(store, ...asked),
    renewLease: (...asked) => renewLease(store, ...asked),
    endOrder: (...asked) => endOrder(store, ...asked),
    orderThrew: (...asked) => orderThrew(store, ...asked),
    placeOrder: (order) => placeOrder(store, order),
    musterIsOpen: (jobId) => musterIsOpen(store, jobId),
    reportRunner: (...asked) => reportRunner(store, ...asked),
    appendEvents: (...asked) => appendEvents(store, ...asked),
    rollOf: (...asked) => rollOf(store, ...asked),
    bench: async (jobId) => {
      const job = await jobById(store, jobId)
      if (!job) return undefined
      const [units, { plans }, cards] = await Promise.all([
        listUnits(store, jobId),
        loadPlans(store, jobId),
        kitCardsOf(store),
      ])
      return { brief: job.brief, units, plans, cards: withBareCards(cards, units) }
    },
    job: async (jobId) => {
      const job = await jobById(store, jobId)
      const view = job && (await currentView(store, job.slug))
      if (!view) return undefined
      const { brief } = view.job
      const { database } = await radioRules(store)
      return { ...view, brief, country: database.get(brief.country) }
    },
    secrets: async (jobId) => {
      const [dated, former] = await Promise.all([openDatedSecrets(store, jobId), openFormerPasswords(store, jobId)])
      return { ...dated, former }
    },
    pinOnFirstSight: (...asked) => pinOnFirstSight(store, ...asked),
    hasBackup: (...asked) => hasBackup(store, ...asked),
    keepBackup: (...asked) => keepBackup(store, ...asked),
    backup: (...asked) => openBackup(store, ...asked),
    fileParts: (sha256) => readFileParts(store, sha256),
  }
}

/** The job with a plan that was made from what is there now. */
async function currentView(store: Store, slug: string): Promise<JobView | undefined> {
  const view = await viewJob(store, slug)
  if (!view || (view.planStanding === 'current' && view.units.every((unit) => view.plans.has(unit.id)))) return view
  await replan(store, view.job.id)
  return viewJob(store, slug)
}
