/** Floors of a job, where its units hang, and the drawings behind them. */
import { and, eq, sql } from 'drizzle-orm'
import { emptySite, type Site, siteSchema } from '../core/radio/floor'
import { StaleVersionError } from './jobs'
import type { Store } from './open'
import { floorDrawings, sites } from './schema'

export interface KeptSite {
  readonly site: Site
  /** 0 before it was ever saved. */
  readonly version: number
}

export async function loadSite(store: Store, jobId: number): Promise<KeptSite> {
  const [row] = await store.db.select({ site: sites.site, version: sites.version }).from(sites).where(eq(sites.jobId, jobId))
  return row ?? { site: emptySite, version: 0 }
}

/**
 * @returns the new version
 * @throws StaleVersionError where `version` is no longer the newest
 */
export async function saveSite(store: Store, jobId: number, site: Site, version: number): Promise<number> {
  const checked = siteSchema.parse(site)
  if (version === 0) {
    const [result] = await store.db.insert(sites).ignore().values({ jobId, site: checked })
    if (result.affectedRows === 0) throw new StaleVersionError('the floors')
    return 1
  }
  const [result] = await store.db
    .update(sites)
    .set({ site: checked, version: sql`${sites.version} + 1` })
    .where(and(eq(sites.jobId, jobId), eq(sites.version, version)))
  if (result.affectedRows === 0) throw new StaleVersionError('the floors')
  return version + 1
}

export interface Drawing {
  readonly type: string
  readonly bytes: Buffer
}

/** Bytes; larger drawings slow every page that shows them. */
export const largestDrawing = 8 * 1024 * 1024

export async function keepDrawing(store: Store, jobId: number, floorId: string, { type, bytes }: Drawing, at: Date): Promise<void> {
  await store.db.insert(floorDrawings).values({ jobId, floorId, type, bytes, at }).onDuplicateKeyUpdate({ set: { type, bytes, at } })
}

export async function findDrawing(store: Store, jobId: number, floorId: string): Promise<Drawing | undefined> {
  const [row] = await store.db
    .select({ type: floorDrawings.type, bytes: floorDrawings.bytes })
    .from(floorDrawings)
    .where(and(eq(floorDrawings.jobId, jobId), eq(floorDrawings.floorId, floorId)))
  return row
}

export async function listDrawings(store: Store, jobId: number): Promise<(Drawing & { readonly floor: string })[]> {
  return store.db.select({ floor: floorDrawings.floorId, type: floorDrawings.type, bytes: floorDrawings.bytes }).from(floorDrawings).where(eq(floorDrawings.jobId, jobId))
}
