/**
 * Plans a job anew from what is kept: brief, kit list, floors, addresses and locks. What a unit has, it keeps where it
 * may.
 */

import { withBareCards } from '../core/kit/bare-card'
import { shutChannels } from '../core/muster/shut-channels'
import type { PlanInput, Planning } from '../core/plan/plan'
import type { Effort } from '../core/radio/channels/search-effort'
import { jobById, revisionOf } from '../store/jobs'
import { listUnits } from '../store/kit'
import { kitCardsOf } from '../store/kit-card-files'
import type { Store } from '../store/open'
import { loadPlans, savePlans } from '../store/plans'
import { radioRules } from '../store/regulatory-file'
import { rollOf } from '../store/rolls'
import { loadSite } from '../store/sites'
import { planInThread } from './plan-in-thread'

export interface ReplanOptions {
  /** `brief` mends what is there, `full` looks for the best there is. */
  readonly effort?: Effort
  /** Works out the plan. */
  readonly planner?: (input: PlanInput) => Promise<Planning>
}

/** Whoever changes something plans by himself: a plan that is outdated again and again is left to him. */
const mostTries = 5

/**
 * Plans, and keeps the plan only if nothing that it was made from has changed in the meantime. Else it is thrown away
 * and made once more, from the newest.
 *
 * @returns undefined, with nothing changed, where the job is gone or its country has no radio rules
 */
export async function replan(
  store: Store,
  jobId: number,
  { effort = 'quick', planner = planInThread }: ReplanOptions = {},
): Promise<Planning | undefined> {
  for (let tries = 1; ; tries += 1) {
    // First the revision, then what it numbers: what changes in between makes the plan outdated, never the other way.
    const revision = await revisionOf(store.db, jobId, 'free')
    const input = revision === undefined ? undefined : await planInputOf(store, jobId, effort)
    if (revision === undefined || !input) return undefined
    const planning = await planner(input)
    if ((await savePlans(store, jobId, planning, revision, new Date())) === 'kept' || tries === mostTries)
      return planning
  }
}

async function planInputOf(store: Store, jobId: number, effort: Effort): Promise<PlanInput | undefined> {
  const job = await jobById(store, jobId)
  const country = job && (await radioRules(store)).database.get(job.brief.country)
  if (!job || !country) return undefined
  const [units, { before }, written, { site }, roll] = await Promise.all([
    listUnits(store, jobId),
    loadPlans(store, jobId),
    kitCardsOf(store),
    loadSite(store, jobId),
    rollOf(store, jobId),
  ])
  const cards = withBareCards(written, units)
  const own = new Set(units.map((unit) => unit.mac))
  // Whoever answers on the wire and is not on the list keeps the address.
  const strangers = roll.sightings.flatMap((sighting) => (own.has(sighting.mac) ? [] : [sighting.address]))
  const inUse = [...strangers, ...roll.heard.named.map(({ address }) => address)]
  return { brief: job.brief, units, cards, country, before, inUse, site, effort, shut: shutChannels(roll, Date.now()) }
}
