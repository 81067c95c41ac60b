/** Jobs with their briefs. */

import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import { type Brief, briefSchema } from '../core/brief/brief'
import { type Message, message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import { BrokenRowError } from './faults'
import { readJson } from './json-column'
import type { Store } from './open'
import { jobs } from './schema'

export interface Job {
  readonly id: number
  readonly slug: string
  readonly name: string
  readonly brief: Brief
  readonly version: number
}

/** Somebody else changed it in the meantime; nothing was written. */
export class StaleVersionError extends ToldError {
  override readonly name = 'StaleVersionError'
  constructor(what: Message) {
    super(message('version-stale', { what }))
  }
}

/** A job whose row cannot be read: a fault of that job alone. */
export interface BrokenJob {
  readonly id: number
  readonly slug: string
  readonly name: string
  readonly told: Message
}

const named = { id: jobs.id, slug: jobs.slug, name: jobs.name }
const columns = { ...named, brief: jobs.brief, version: jobs.version }
const isThere = isNull(jobs.deletedAt)

/** All jobs by name, those that can be read and those that cannot. */
export async function listJobs(store: Store): Promise<{ jobs: Job[]; broken: BrokenJob[] }> {
  const rows = await store.db
    .select({ ...named, version: jobs.version, brief: sql<string>`${jobs.brief}` })
    .from(jobs)
    .where(isThere)
    .orderBy(asc(jobs.name))
  const list = { jobs: [] as Job[], broken: [] as BrokenJob[] }
  for (const { brief, ...row } of rows) {
    try {
      list.jobs.push({ ...row, brief: readJson('jobs.brief', briefSchema, brief) })
    } catch (error) {
      if (!(error instanceof BrokenRowError)) throw error
      list.broken.push({ id: row.id, slug: row.slug, name: row.name, told: error.told })
    }
  }
  return list
}

/** Names of all jobs, also of those that cannot be read. */
export function namedJobs(store: Store): Promise<{ id: number; slug: string; name: string }[]> {
  return store.db.select(named).from(jobs).where(isThere).orderBy(asc(jobs.slug))
}

export async function jobIdOf(store: Store, slug: string): Promise<number | undefined> {
  const [job] = await store.db
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.slug, slug), isThere))
  return job?.id
}

/** Every slug that is taken, by deleted jobs too. */
export async function jobSlugs(store: Store): Promise<string[]> {
  return (await store.db.select({ slug: jobs.slug }).from(jobs).orderBy(asc(jobs.slug))).map(({ slug }) => slug)
}

export async function findJob(store: Store, slug: string): Promise<Job | undefined> {
  const [job] = await store.db
    .select(columns)
    .from(jobs)
    .where(and(eq(jobs.slug, slug), isThere))
  return job
}

export async function jobById(store: Store, id: number): Promise<Job | undefined> {
  const [job] = await store.db
    .select(columns)
    .from(jobs)
    .where(and(eq(jobs.id, id), isThere))
  return job
}

export async function createJob(
  store: Store,
  job: { slug: string; name: string; brief: Brief; at: Date },
): Promise<number> {
  const [result] = await store.db
    .insert(jobs)
    .values({ slug: job.slug, name: job.name, brief: briefSchema.parse(job.brief), createdAt: job.at })
  return result.insertId
}

/**
 * Saves the brief. Where it changes what a plan is made from, the plan is outdated from the same moment on.
 *
 * @returns the new version
 * @throws StaleVersionError where `version` is no longer the newest
 */
export function saveBrief(
  store: Store,
  id: number,
  brief: Brief,
  version: number,
): Promise<{ version: number; plan: 'outdated' | 'holds' }> {
  const next = briefSchema.parse(brief)
  return store.db.transaction(async (transaction) => {
    const [before] = await transaction
      .select({ brief: jobs.brief })
      .from(jobs)
      .where(and(eq(jobs.id, id), eq(jobs.version, version), isThere))
      .for('update')
    if (!before) throw new StaleVersionError(message('what-brief'))
    const plan = plannedPart(before.brief) === plannedPart(next) ? 'holds' : 'outdated'
    await transaction
      .update(jobs)
      .set({
        brief: next,
        version: version + 1,
        ...(plan === 'outdated' ? { revision: sql`${jobs.revision} + 1` } : {}),
      })
      .where(eq(jobs.id, id))
    return { version: version + 1, plan }
  })
}

/** What of a brief a plan is made from. */
const plannedPart = ({ country, management, radio }: Brief): string => JSON.stringify([country, management, radio])

/** Marks the plan of a job as outdated: something that it is made from is about to change. The row stays locked. */
export async function outdatePlan(db: Store['db'], jobId: number): Promise<void> {
  await db
    .update(jobs)
    .set({ revision: sql`${jobs.revision} + 1` })
    .where(eq(jobs.id, jobId))
}

/** Marks the plans of all jobs as outdated. */
export async function outdatePlans(db: Store['db']): Promise<void> {
  await db.update(jobs).set({ revision: sql`${jobs.revision} + 1` })
}

/** The newest revision of what a job's plan is made from; undefined where the job is gone. */
export async function revisionOf(db: Store['db'], jobId: number, lock: 'locked' | 'free'): Promise<number | undefined> {
  const query = db.select({ revision: jobs.revision }).from(jobs).where(eq(jobs.id, jobId))
  const [row] = await (lock === 'locked' ? query.for('update') : query)
  return row?.revision
}
