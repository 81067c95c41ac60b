/** Deletes a job. Its log is kept, with its name; secrets, copies of configurations, plans and drawings are gone. */
import { asc, desc, eq, isNotNull, sql } from 'drizzle-orm'
import { newBrief } from '../core/brief/brief'
import { musterEventSchema, type PlacedEvent } from '../core/muster/events'
import { BrokenRowError } from '../store/faults'
import { readJson } from '../store/json-column'
import { inTransaction, type Store } from '../store/open'
import { musterIsOpen } from '../store/orders'
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
} from '../store/schema'

/** It cannot be deleted; the message says why. Nothing was changed. */
export class NotDeletedError extends Error {
  override readonly name = 'NotDeletedError'
}

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
  rolls,
] as const

/**
 * @param typedName  the name of the job as somebody typed it: a slip of the hand deletes nothing
 * @throws NotDeletedError
 */
export async function deleteJob(store: Store, jobId: number, typedName: string, at: Date): Promise<void> {
  await inTransaction(store, async (inner) => {
    const { db } = inner
    // The name alone: a job whose brief cannot be read can be deleted too.
    const [job] = await db
      .select({ name: jobs.name, slug: jobs.slug })
      .from(jobs)
      .where(eq(jobs.id, jobId))
      .for('update')
    if (!job) throw new NotDeletedError('This job is no longer there.')
    if (typedName.trim() !== job.name)
      throw new NotDeletedError(`To delete it, type its name as it stands: ${job.name}`)
    if (await musterIsOpen(inner, jobId))
      throw new NotDeletedError(
        'A muster of this job is under way. Pause it or wait until it is over, then delete the job.',
      )
    for (const table of belongings) await db.delete(table).where(eq(table.jobId, jobId))
    await db
      .update(jobs)
      .set({
        deletedAt: at,
        slug: `${job.slug.slice(0, 40)}~${jobId}`,
        brief: newBrief('deleted', '00', 'UTC'),
        revision: sql`${jobs.revision} + 1`,
      })
      .where(eq(jobs.id, jobId))
  })
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

/** An event of a job's log; a reason in its place where its row cannot be read. */
export type LoggedEvent = { readonly seq: number; readonly at: Date } & (
  | { readonly event: PlacedEvent['event'] }
  | { readonly reason: string }
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
      return { seq, at, reason: error.message }
    }
  })
}
