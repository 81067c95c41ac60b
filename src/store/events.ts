/**
 * Events of a job: appended, never changed, numbered without gaps. The job's row is locked while its events are
 * numbered, so that nobody who reads from a number on can miss one that is written later with a smaller number.
 */

import { and, asc, eq, gt, gte, sql } from 'drizzle-orm'
import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import type { MusterEvent, PlacedEvent } from '../core/muster/events'
import type { Store } from './open'
import { events, jobs } from './schema'

export interface TimedEvent {
  readonly at: Date
  readonly event: MusterEvent
}

/**
 * Appends events, all or none.
 *
 * Where the answer to a commit was lost, the events may be there already: they are looked for before they are written
 * a second time.
 *
 * @param known  `perhaps-there` where an earlier call for the same events has failed
 * @throws JobGoneError
 */
export async function appendEvents(
  store: Store,
  jobId: number,
  appended: readonly TimedEvent[],
  known: 'new' | 'perhaps-there' = 'new',
): Promise<void> {
  if (appended.length === 0) return
  let tries = known === 'new' ? 0 : 1
  await store.db.transaction(async (transaction) => {
    tries += 1
    if (tries > 1 && (await holds(transaction, jobId, appended))) return
    const [result] = await transaction.execute(
      sql`update ${jobs} set last_seq = last_insert_id(last_seq + ${appended.length}) where id = ${jobId}`,
    )
    const { insertId: last, affectedRows } = result as unknown as { insertId: number; affectedRows: number }
    if (affectedRows === 0) throw new JobGoneError(message('job-gone', { job: jobId }))
    const first = last - appended.length + 1
    await transaction
      .insert(events)
      .values(appended.map(({ at, event }, index) => ({ jobId, seq: first + index, at, event })))
  })
}

/** The job of an event was deleted. */
export class JobGoneError extends ToldError {
  override readonly name = 'JobGoneError'
}

/** Do the newest events of the job hold these, one after the other? */
async function holds(db: Store['db'], jobId: number, appended: readonly TimedEvent[]): Promise<boolean> {
  const [first] = appended
  if (!first) return true
  const rows = await db
    .select({ seq: events.seq, at: events.at, event: events.event })
    .from(events)
    .where(and(eq(events.jobId, jobId), gte(events.at, first.at)))
    .orderBy(asc(events.seq))
  const texts = rows.map(({ at, event }) => `${at.getTime()} ${JSON.stringify(event)}`)
  const wanted = appended.map(({ at, event }) => `${at.getTime()} ${JSON.stringify(event)}`)
  return texts.some((_, index) => wanted.every((text, offset) => texts[index + offset] === text))
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
