/** The kit list of a job, with what is planned for each unit. */

import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import { type Unit, unitSchema } from '../core/kit/unit'
import { asTold } from '../core/message/message'
import { outdatePlan, StaleVersionError } from './jobs'
import { inTransaction, type Store } from './open'
import { units } from './schema'

export interface KeptUnit extends Unit {
  readonly version: number
}

const columns = {
  id: units.id,
  name: units.name,
  location: units.location,
  model: units.model,
  mac: units.mac,
  serial: units.serial,
  port: units.port,
  siteSwitch: units.siteSwitch,
  sitePort: units.sitePort,
  version: units.version,
}

export async function listUnits(store: Store, jobId: number): Promise<KeptUnit[]> {
  return store.db.select(columns).from(units).where(eq(units.jobId, jobId)).orderBy(asc(units.position))
}

export async function addUnits(store: Store, jobId: number, added: readonly Unit[]): Promise<void> {
  await changeKit(store, jobId, { add: added, change: [], remove: [], order: undefined })
}

/** What is to become of the kit list, all at once or not at all. */
export interface KitChanges {
  readonly add: readonly Unit[]
  /** Rows with the version that they were read at. */
  readonly change: readonly KeptUnit[]
  readonly remove: readonly string[]
  /** Ids in the new order; undefined leaves the order alone. */
  readonly order: readonly string[] | undefined
}

/**
 * Changes the kit list. Rows may trade names and MACs among each other.
 *
 * @throws StaleVersionError naming the row that somebody else changed; nothing is written then
 */
export async function changeKit(
  store: Store,
  jobId: number,
  { add, change, remove, order }: KitChanges,
): Promise<void> {
  await inTransaction(store, async ({ db }) => {
    await outdatePlan(db, jobId)
    const of = (id: string) => and(eq(units.jobId, jobId), eq(units.id, id))
    if (remove.length > 0) await db.delete(units).where(and(eq(units.jobId, jobId), inArray(units.id, [...remove])))
    // Names and MACs are set aside first: two rows that swap theirs would meet half-way.
    for (const [index, { id, version, name }] of change.entries()) {
      const [result] = await db
        .update(units)
        .set({ name: `~${index}`, mac: `~${index}` })
        .where(and(of(id), eq(units.version, version)))
      if (result.affectedRows === 0) throw new StaleVersionError(asTold(name))
    }
    for (const { version: _version, ...unit } of change) {
      const { id, ...fields } = unitSchema.parse(unit)
      await db
        .update(units)
        .set({ ...fields, version: sql`${units.version} + 1` })
        .where(of(id))
    }
    if (add.length > 0) {
      const [last] = await db
        .select({ position: sql<number>`coalesce(max(${units.position}), -1)` })
        .from(units)
        .where(eq(units.jobId, jobId))
      const from = Number(last?.position ?? -1) + 1
      await db
        .insert(units)
        .values(add.map((unit, index) => ({ ...unitSchema.parse(unit), jobId, position: from + index })))
    }
    if (order) for (const [position, id] of order.entries()) await db.update(units).set({ position }).where(of(id))
  })
}
