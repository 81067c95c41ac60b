/** Jobs with their briefs. */
import { and, asc, eq, sql } from 'drizzle-orm'
import { type Brief, briefSchema } from '../core/brief/brief'
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
export class StaleVersionError extends Error {
  override readonly name = 'StaleVersionError'
  constructor(what: string) {
    super(`Somebody else has changed ${what} in the meantime. Load it again and make your change once more.`)
  }
}

const columns = { id: jobs.id, slug: jobs.slug, name: jobs.name, brief: jobs.brief, version: jobs.version }

export async function listJobs(store: Store): Promise<Job[]> {
  return store.db.select(columns).from(jobs).orderBy(asc(jobs.name))
}

export async function findJob(store: Store, slug: string): Promise<Job | undefined> {
  const [job] = await store.db.select(columns).from(jobs).where(eq(jobs.slug, slug))
  return job
}

export async function jobById(store: Store, id: number): Promise<Job | undefined> {
  const [job] = await store.db.select(columns).from(jobs).where(eq(jobs.id, id))
  return job
}

export async function createJob(store: Store, job: { slug: string; name: string; brief: Brief; at: Date }): Promise<number> {
  const [result] = await store.db.insert(jobs).values({ slug: job.slug, name: job.name, brief: briefSchema.parse(job.brief), createdAt: job.at })
  return result.insertId
}

/**
 * @returns the new version
 * @throws StaleVersionError where `version` is no longer the newest
 */
export async function saveBrief(store: Store, id: number, brief: Brief, version: number): Promise<number> {
  const [result] = await store.db
    .update(jobs)
    .set({ brief: briefSchema.parse(brief), version: sql`${jobs.version} + 1` })
    .where(and(eq(jobs.id, id), eq(jobs.version, version)))
  if (result.affectedRows === 0) throw new StaleVersionError('the brief')
  return version + 1
}
