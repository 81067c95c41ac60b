/** Plans a job anew from what is kept: brief, kit list, floors, addresses and locks. What a unit has, it keeps where it may. */
import type { Planning } from '../core/config/plan'
import { foldRoll } from '../core/muster/roll'
import type { Effort } from '../core/radio/plan-channels'
import { allEvents } from './events'
import type { Job } from './jobs'
import { listUnits } from './kit'
import { kitCardsOf } from './kit-card-files'
import type { Store } from './open'
import { planInThread } from './plan-in-thread'
import { loadPlans, savePlans } from './plans'
import { radioRules } from './regulatory-file'
import { loadSite } from './sites'

/**
 * @param effort  `brief` mends what is there, `full` looks for the best there is
 * @returns       undefined, with nothing changed, where the country has no radio rules
 */
export async function replan(store: Store, job: Job, effort: Effort = 'brief'): Promise<Planning | undefined> {
  const country = (await radioRules(store)).database.get(job.brief.country)
  if (!country) return undefined
  const [units, { before }, cards, { site }, events] = await Promise.all([
    listUnits(store, job.id),
    loadPlans(store, job.id),
    kitCardsOf(store),
    loadSite(store, job.id),
    allEvents(store, job.id),
  ])
  const own = new Set(units.map((unit) => unit.mac))
  // Whoever answers on the wire and is not on the list keeps the address.
  const inUse = foldRoll(events).sightings.flatMap((sighting) => (own.has(sighting.mac) ? [] : [sighting.address]))
  const planning = await planInThread({ brief: job.brief, units, cards, country, before, inUse, site, effort })
  await savePlans(store, job.id, planning, new Date())
  return planning
}
