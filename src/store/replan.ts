/** Plans a job anew from what is kept: brief, kit list, addresses and locks. What a unit has, it keeps where it may. */
import { makePlan, type Planning } from '../core/config/plan'
import type { Job } from './jobs'
import { listUnits, loadPlans, savePlans } from './kit'
import { loadKitCards } from './kit-card-files'
import type { Store } from './open'
import { loadRegulatory } from './regulatory-file'

/** @returns undefined, with nothing changed, where the country has no radio rules */
export async function replan(store: Store, job: Job): Promise<Planning | undefined> {
  const country = loadRegulatory().get(job.brief.country)
  if (!country) return undefined
  const [units, { before }] = await Promise.all([listUnits(store, job.id), loadPlans(store, job.id)])
  const planning = makePlan(job.brief, units, loadKitCards(), country, before)
  await savePlans(store, job.id, planning.plans, before)
  return planning
}
