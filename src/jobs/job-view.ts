/** Everything about a job that a page, the command line or a runner needs, read at one time. */
import { type AskingJob, askingOf, expectedOfAll } from '../core/config/asked'
import { type AsBuiltRow, asBuilt } from '../core/handover/as-built'
import { withBareCards } from '../core/kit/bare-card'
import type { KitCard } from '../core/kit/kit-card'
import { type Roll, withChanges } from '../core/muster/roll'
import type { PlannedBefore, Planning, UnitPlan } from '../core/plan/plan'
import { findJob, type Job } from '../store/jobs'
import { type KeptUnit, listUnits } from '../store/kit'
import { kitCardsOf } from '../store/kit-card-files'
import type { Store } from '../store/open'
import { failedOrder, type OrderState } from '../store/orders'
import { loadPlans, planIsCurrent } from '../store/plans'
import { rollOf } from '../store/rolls'
import { secretTimes } from '../store/secrets'

export interface JobView {
  readonly job: Job
  readonly units: readonly KeptUnit[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  /** Addresses and locks that planning again starts from. */
  readonly before: ReadonlyMap<string, PlannedBefore>
  readonly planFaults: Planning['faults']
  /** Whether the plan was made from the brief, kit and floors as they are now. */
  readonly planStanding: 'current' | 'outdated'
  readonly cards: ReadonlyMap<string, KitCard>
  /** All that settings are asked from, secrets as marks. */
  readonly asking: AskingJob
  /** When each secret was last changed, by its name. */
  readonly secretTimes: ReadonlyMap<string, string>
  /** With what was changed since each unit has proven itself. */
  readonly roll: Roll
  /** The newest order, where it failed. */
  readonly failed: OrderState | undefined
}

export async function viewJob(store: Store, slug: string): Promise<JobView | undefined> {
  const job = await findJob(store, slug)
  if (!job) return undefined
  const [units, kept, told, written, times, current, failed] = await Promise.all([
    listUnits(store, job.id),
    loadPlans(store, job.id),
    rollOf(store, job.id),
    kitCardsOf(store),
    secretTimes(store, job.id),
    planIsCurrent(store, job.id),
    failedOrder(store, job.id),
  ])
  const cards = withBareCards(written, units)
  const plans = new Map(kept.plans.map((plan) => [plan.unit, plan]))
  const asking: AskingJob = { brief: job.brief, units, plans, cards, secretTimes: times, today: new Date() }
  return {
    job,
    units,
    plans,
    before: kept.before,
    planFaults: kept.faults,
    planStanding: current ? 'current' : 'outdated',
    cards,
    asking,
    secretTimes: times,
    roll: withChanges(told, askingOf(asking)),
    failed,
  }
}

/** The as-built sheet of a job. */
export function sheetOf({ job, units, cards, plans, roll, asking }: JobView): AsBuiltRow[] {
  return asBuilt({ brief: job.brief, units, cards, plans, roll, expected: expectedOfAll(asking) })
}
