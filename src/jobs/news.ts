/** What pages follow: events of jobs from a number on, and how the work stands. */
import type { PlacedEvent } from '../core/muster/events'
import type { Pulse } from '../core/muster/pulse'
import { eventsAfter } from '../store/events'
import { BrokenRowError } from '../store/faults'
import { jobIdOf } from '../store/jobs'
import type { Store } from '../store/open'
import { failedOrder } from '../store/orders'
import { newestReport } from '../store/runners'

/** Events of a job after a number, in order; none where there is no such job. */
export async function newsOf(store: Store, slug: string, seq: number): Promise<readonly PlacedEvent[]> {
  const id = await jobIdOf(store, slug)
  if (id === undefined) return []
  try {
    return await eventsAfter(store, id, seq)
  } catch (error) {
    // A row of one job that cannot be read is told by its own page; the others' news go on.
    if (error instanceof BrokenRowError) return []
    throw error
  }
}

/** How long ago a runner was seen, ms; undefined where none ever was. */
export async function runnerSilentMs(store: Store): Promise<number | undefined> {
  return (await newestReport(store))?.silentMs
}

/** What a pulse tells from the database: the runner, and the orders of these jobs that failed. */
export async function workOn(
  store: Store,
  slugs: Iterable<string>,
): Promise<Pick<Pulse, 'runnerSilentMs' | 'wire' | 'sweptMsAgo' | 'failed'>> {
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
}

async function failedOf(store: Store, slug: string) {
  const id = await jobIdOf(store, slug)
  return id === undefined ? undefined : failedOrder(store, id)
}
