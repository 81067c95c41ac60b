/** Floors of a job, where its units hang, and the drawings behind them. */

import { and, eq } from 'drizzle-orm'
import { message } from '../core/message/message'
import { emptySite, type Site, siteSchema } from '../core/radio/propagation/floor'
import { outdatePlan, StaleVersionError } from './jobs'
import { inTransaction, type Store } from './open'
import { floorDrawings, sites } from './schema'

export interface KeptSite {
  readonly site: Site
  /** 0 before it was ever saved. */
  readonly version: number
}

export async function loadSite(store: Store, jobId: number): Promise<KeptSite> {
  const [row] = await store.db
    .select({ site: sites.site, version: sites.version })
    .from(sites)
    .where(eq(sites.jobId, jobId))
  return row ?? { site: emptySite, version: 0 }
}

/**
 * @returns the new version
 * @throws StaleVersionError where `version` is no longer the newest
 */
export function saveSite(store: Store, jobId: number, site: Site, version: number): Promise<number> {
  const checked = siteSchema.parse(site)
  return inTransaction(store, async ({ db }) => {
    await outdatePlan(db, jobId)
    const [row] = await db.select({ version: sites.version }).from(sites).where(eq(sites.jobId, jobId)).for('update')
    if ((row?.version ?? 0) !== version) throw new StaleVersionError(message('what-floors'))
    const fields = { site: checked, version: version + 1 }
    await db
      .insert(sites)
      .values({ jobId, ...fields })
      .onDuplicateKeyUpdate({ set: fields })
    return version + 1
  })
}

/** Bytes of the largest drawing that is taken. */
export const largestDrawing = 25 * 1024 * 1024

export interface Drawing {
  readonly type: string
  /** Where its bytes lie among the files. */
  readonly file: string
}

/** Shows a file as the drawing of a floor, in the place of the one before. */
export async function keepDrawing(
  store: Store,
  jobId: number,
  floorId: string,
  { type, file }: Drawing,
  at: Date,
): Promise<void> {
  await store.db
    .insert(floorDrawings)
    .values({ jobId, floorId, type, file, at })
    .onDuplicateKeyUpdate({ set: { type, file, at } })
}

export async function findDrawing(store: Store, jobId: number, floorId: string): Promise<Drawing | undefined> {
  const [row] = await store.db
    .select({ type: floorDrawings.type, file: floorDrawings.file })
    .from(floorDrawings)
    .where(and(eq(floorDrawings.jobId, jobId), eq(floorDrawings.floorId, floorId)))
  return row
}

export async function listDrawings(store: Store, jobId: number): Promise<(Drawing & { readonly floor: string })[]> {
  return store.db
    .select({ floor: floorDrawings.floorId, type: floorDrawings.type, file: floorDrawings.file })
    .from(floorDrawings)
    .where(eq(floorDrawings.jobId, jobId))
}
