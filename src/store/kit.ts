/** The kit list of a job, with what is planned for each unit. */
import { and, asc, eq, sql } from 'drizzle-orm'
import type { PlannedBefore, UnitPlan } from '../core/config/plan'
import { type Unit, unitSchema } from '../core/kit/unit'
import { StaleVersionError } from './jobs'
import type { Store } from './open'
import { unitPlans, units } from './schema'

export interface KeptUnit extends Unit {
  readonly version: number
}

const columns = { id: units.id, name: units.name, place: units.place, model: units.model, mac: units.mac, serial: units.serial, port: units.port, version: units.version }

export async function listUnits(store: Store, jobId: number): Promise<KeptUnit[]> {
  return store.db.select(columns).from(units).where(eq(units.jobId, jobId)).orderBy(asc(units.position))
}

export async function addUnits(store: Store, jobId: number, added: readonly Unit[]): Promise<void> {
  const [last] = await store.db
    .select({ position: sql<number>`coalesce(max(${units.position}), -1)` })
    .from(units)
    .where(eq(units.jobId, jobId))
  const from = Number(last?.position ?? -1) + 1
  await store.db.insert(units).values(added.map((unit, index) => ({ ...unitSchema.parse(unit), jobId, position: from + index })))
}

/** @throws StaleVersionError */
export async function changeUnit(store: Store, jobId: number, { version, ...unit }: KeptUnit): Promise<void> {
  const { id, ...fields } = unitSchema.parse(unit)
  const [result] = await store.db
    .update(units)
    .set({ ...fields, version: sql`${units.version} + 1` })
    .where(and(eq(units.jobId, jobId), eq(units.id, id), eq(units.version, version)))
  if (result.affectedRows === 0) throw new StaleVersionError(unit.name)
}

export async function loadPlans(store: Store, jobId: number): Promise<{ plans: UnitPlan[]; before: Map<string, PlannedBefore> }> {
  const rows = await store.db.select().from(unitPlans).where(eq(unitPlans.jobId, jobId))
  return {
    plans: rows.map(({ unitId, address, radios }) => ({ unit: unitId, address, radios })),
    before: new Map(rows.map(({ unitId, address, locks }) => [unitId, { address, locks }])),
  }
}

/** Replaces the plan of a job, all units at once: addresses may change hands between them. */
export async function savePlans(store: Store, jobId: number, plans: readonly UnitPlan[], before: ReadonlyMap<string, PlannedBefore>): Promise<void> {
  await store.db.transaction(async (transaction) => {
    await transaction.delete(unitPlans).where(eq(unitPlans.jobId, jobId))
    if (plans.length === 0) return
    await transaction
      .insert(unitPlans)
      .values(plans.map(({ unit, address, radios }) => ({ jobId, unitId: unit, address, radios: [...radios], locks: before.get(unit)?.locks ?? {} })))
  })
}

export async function removeUnit(store: Store, jobId: number, id: string): Promise<void> {
  await store.db.delete(units).where(and(eq(units.jobId, jobId), eq(units.id, id)))
}
