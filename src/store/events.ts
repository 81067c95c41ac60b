/**
 * Events of a job: appended, never changed, numbered without gaps. The job's row is locked while its events are
 * numbered, so that nobody who reads from a number on can miss one that is written later with a smaller number.
 */
import { and, asc, eq, gt, sql } from 'drizzle-orm'
import type { MusterEvent, PlacedEvent } from '../core/muster/events'
import type { Store } from './open'
import { events, jobs } from './schema'

export interface TimedEvent {
  readonly at: Date
  readonly event: MusterEvent
}

export async function appendEvents(store: Store, jobId: number, appended: readonly TimedEvent[]): Promise<void> {
  if (appended.length === 0) return
  await store.db.transaction(async (transaction) => {
    const [result] = await transaction.execute(sql`update ${jobs} set last_seq = last_insert_id(last_seq + ${appended.length}) where id = ${jobId}`)
    const last = (result as unknown as { insertId: number }).insertId
    const first = last - appended.length + 1
    await transaction.insert(events).values(appended.map(({ at, event }, index) => ({ jobId, seq: first + index, at, event })))
  })
}

/** Events after a number, oldest first, at most `limit` of them. */
export async function eventsAfter(store: Store, jobId: number, seq: number, limit = 2000): Promise<PlacedEvent[]> {
  const rows = await store.db
    .select({ seq: events.seq, at: events.at, event: events.event })
    .from(events)
    .where(and(eq(events.jobId, jobId), gt(events.seq, seq)))
    .orderBy(asc(events.seq))
    .limit(limit)
  return rows.map((row) => ({ seq: row.seq, at: row.at.getTime(), event: row.event }))
}

export async function allEvents(store: Store, jobId: number): Promise<PlacedEvent[]> {
  const found: PlacedEvent[] = []
  for (;;) {
    const more = await eventsAfter(store, jobId, found.at(-1)?.seq ?? 0)
    if (more.length === 0) return found
    found.push(...more)
  }
}
