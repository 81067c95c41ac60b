/** Where a unit of any job is on the wire now, by its name. */
import { isDirect, servicePorts } from '../core/kit/kit-card'
import type { Store } from '../store/open'
import { namedJobs } from './installation'
import { viewJob } from './job-view'

export interface UnitPlace {
  readonly name: string
  readonly mac: string
  readonly address: string
  readonly prefix: number
  readonly by?: 'link-local' | 'ipv4' | 'both'
  /** Of its management service. */
  readonly port?: number
}

/** @returns undefined where no unit of that name, id or MAC was seen in the last sweep of its job */
export async function unitPlace(store: Store, name: string): Promise<UnitPlace | undefined> {
  for (const { slug } of await namedJobs(store)) {
    const view = await viewJob(store, slug)
    const unit = view?.units.find((each) => [each.name, each.id, each.mac].includes(name))
    const seen = unit && view?.roll.sightings.find(({ mac }) => mac === unit.mac)
    const card = unit && view?.cards.get(unit.model)
    if (!unit || !seen || !card || !isDirect(card)) continue
    const { factory, does } = card
    const prefix = seen.address === factory.address ? factory.prefix : prefixOf(view?.job.brief.management.cidr)
    // Set up, it is met by the safer door.
    const port = seen.address === factory.address ? factory.port : (servicePorts(card)[0] ?? factory.port)
    return { name: unit.name, mac: unit.mac, address: seen.address, prefix, by: does.reachedBy, port }
  }
  return undefined
}

const prefixOf = (cidr: string | undefined): number => Number(cidr?.split('/')[1] ?? 24)
