/** What pages follow: events of jobs from a number on, and the state of the work. */
import type { PlacedEvent } from '../core/muster/events'
import type { Pulse } from '../core/muster/pulse'
import { eventsAfter } from '../store/events'
import { BrokenRowError } from '../store/faults'
import { jobIdOf } from '../store/jobs'
import type { Store } from '../store/open'
import { failedOrder } from '../store/orders'
import { newestReport } from '../store/runners'

/** How long ago a runner was seen, ms; undefined where none ever was. */
export async function runnerSilentMs(store: Store): Promise<number | undefined> {
  return (await newestReport(store))?.silentMs
}

export interface News {
  /** Events of a job after a number, in order; none where there is no such job. */
  newsOf(slug: string, seq: number): Promise<readonly PlacedEvent[]>
  /** What a pulse tells from the database: the runner, and the orders of these jobs that failed. */
  workOn(slugs: Iterable<string>): Promise<Pick<Pulse, 'runnerSilentMs' | 'wire' | 'sweptMsAgo' | 'failed'>>
  /** Which job a slug names is looked up once, until this is called: the slug of a deleted job may name another. */
  lookAnew(): void
}

export function newsFrom(opening: () => Promise<Store>): News {
  const ids = new Map<string, number>()
  const idOf = async (store: Store, slug: string): Promise<number | undefined> => {
    const id = ids.get(slug) ?? (await jobIdOf(store, slug))
    if (id !== undefined) ids.set(slug, id)
    return id
  }
  const failedOf = async (store: Store, slug: string) => {
    const id = await idOf(store, slug)
    return id === undefined ? undefined : failedOrder(store, id)
  }
  return {
    newsOf: async (slug, seq) => {
      const store = await opening()
      const id = await idOf(store, slug)
      if (id === undefined) return []
      try {
        return await eventsAfter(store, id, seq)
      } catch (error) {
        // A row of one job that cannot be read is told by its own page; the others' news go on.
        if (error instanceof BrokenRowError) return []
        throw error
      }
    },
    workOn: async (slugs) => {
      const store = await opening()
      const [report, failed] = await Promise.all([
        newestReport(store),
        Promise.all([...slugs].map(async (slug) => [slug, await failedOf(store, slug)] as const)),
      ])
      return {
        runnerSilentMs: report?.silentMs ?? null,
        wire: report?.wire ?? 'works',
        sweptMsAgo: report?.sweptMsAgo ?? null,
        failed: Object.fromEntries(
          failed.flatMap(([slug, order]) => (order ? [[slug, { kind: order.kind, reason: order.reason ?? '' }]] : [])),
        ),
      }
    },
    lookAnew: () => ids.clear(),
  }
}
