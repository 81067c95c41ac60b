/** Jobs that are deleted: their log is kept, with their name; everything else of them is gone. */

import { asc, desc, eq, isNotNull, sql } from 'drizzle-orm'
import { newBrief } from '../core/brief/brief'
import type { Message } from '../core/message/message'
import { musterEventSchema, type PlacedEvent } from '../core/muster/events'
import { BrokenRowError } from './faults'
import { readJson } from './json-column'
import type { Store } from './open'
import {
  backups,
  events,
  floorDrawings,
  formerPasswords,
  jobs,
  orders,
  pins,
  plannings,
  rolls,
  secrets,
  sites,
  unitLocks,
  unitPlans,
  units,
} from './schema'

/** Everything of a job but its own row and its events. */
const belongings = [
  unitPlans,
  rolls,
  unitLocks,
  units,
  plannings,
  sites,
  floorDrawings,
  secrets,
  formerPasswords,
  backups,
  pins,
  orders,
] as const

/** The name of a job, locked until the transaction ends; also of a job whose brief cannot be read. */
export async function lockedName({ db }: Store, jobId: number): Promise<string | undefined> {
  const [job] = await db.select({ name: jobs.name }).from(jobs).where(eq(jobs.id, jobId)).for('update')
  return job?.name
}

/** Takes everything of a job away but its name and its log; its address is free for another. */
export async function forgetJob({ db }: Store, jobId: number, at: Date): Promise<void> {
  for (const table of belongings) await db.delete(table).where(eq(table.jobId, jobId))
  await db
    .update(jobs)
    .set({
      deletedAt: at,
      slug: sql`concat(left(${jobs.slug}, 40), '~', ${jobId})`,
      brief: newBrief('deleted', '00', 'UTC'),
      revision: sql`${jobs.revision} + 1`,
    })
    .where(eq(jobs.id, jobId))
}

export interface DeletedJob {
  readonly id: number
  readonly name: string
  readonly deletedAt: Date
}

export async function deletedJobs(store: Store): Promise<DeletedJob[]> {
  const rows = await store.db
    .select({ id: jobs.id, name: jobs.name, deletedAt: jobs.deletedAt })
    .from(jobs)
    .where(isNotNull(jobs.deletedAt))
    .orderBy(desc(jobs.deletedAt))
  return rows.flatMap(({ deletedAt, ...row }) => (deletedAt ? [{ ...row, deletedAt }] : []))
}

/** An event of a job's log; what is wrong in its place where its row cannot be read. */
export type LoggedEvent = { readonly seq: number; readonly at: Date } & (
  | { readonly event: PlacedEvent['event'] }
  | { readonly told: Message }
)

/** The log of a job, there or deleted, oldest first. */
export async function jobLog(store: Store, jobId: number): Promise<LoggedEvent[]> {
  const rows = await store.db
    .select({ seq: events.seq, at: events.at, text: sql<string>`${events.event}` })
    .from(events)
    .where(eq(events.jobId, jobId))
    .orderBy(asc(events.seq))
  return rows.map(({ seq, at, text }) => {
    try {
      return { seq, at, event: readJson('events.event', musterEventSchema, text) }
    } catch (error) {
      if (!(error instanceof BrokenRowError)) throw error
      return { seq, at, told: error.told }
    }
  })
}
