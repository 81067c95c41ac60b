/** Everything about a job that a page, the command line or a runner needs, read at one time. */
import type { PlannedBefore, Planning, UnitPlan } from '../core/config/plan'
import { foldRoll, type Roll } from '../core/muster/roll'
import { allEvents } from './events'
import { findJob, type Job } from './jobs'
import { type KeptUnit, listUnits } from './kit'
import type { Store } from './open'
import { loadPlans } from './plans'

export interface JobView {
  readonly job: Job
  readonly units: readonly KeptUnit[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  /** Addresses and locks that planning again starts from. */
  readonly before: ReadonlyMap<string, PlannedBefore>
  readonly planFaults: Planning['faults']
  readonly roll: Roll
}

export async function viewJob(store: Store, slug: string): Promise<JobView | undefined> {
  const job = await findJob(store, slug)
  if (!job) return undefined
  const [units, { plans, before, faults }, events] = await Promise.all([listUnits(store, job.id), loadPlans(store, job.id), allEvents(store, job.id)])
  return { job, units, plans: new Map(plans.map((plan) => [plan.unit, plan])), before, planFaults: faults, roll: foldRoll(events) }
}
