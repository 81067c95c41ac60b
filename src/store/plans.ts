/** Plans of a job: what each unit is given, what the user locked, and what the newest planning said. */
import { and, eq } from 'drizzle-orm'
import { type PlannedBefore, type Planning, plannedNothing, type UnitPlan } from '../core/config/plan'
import type { Band } from '../core/regulatory/blocks'
import type { Store } from './open'
import { plannings, unitLocks, unitPlans } from './schema'

export interface KeptPlans {
  readonly plans: readonly UnitPlan[]
  /** Addresses, locks and channels that planning again starts from. */
  readonly before: ReadonlyMap<string, PlannedBefore>
  readonly faults: Planning['faults']
  readonly cost: number
}

export async function loadPlans(store: Store, jobId: number): Promise<KeptPlans> {
  const [rows, locks, [planning]] = await Promise.all([
    store.db.select().from(unitPlans).where(eq(unitPlans.jobId, jobId)),
    store.db.select().from(unitLocks).where(eq(unitLocks.jobId, jobId)),
    store.db.select().from(plannings).where(eq(plannings.jobId, jobId)),
  ])
  const before = new Map<string, PlannedBefore>(
    rows.map(({ unitId, address, radios }) => [
      unitId,
      { ...plannedNothing, address, set: Object.fromEntries(radios.map(({ band, channel, width }) => [band, { channel, width }])) as PlannedBefore['set'] },
    ]),
  )
  for (const { unitId, channels, address } of locks) {
    const kept = before.get(unitId) ?? plannedNothing
    before.set(unitId, { ...kept, locks: channels, ...(address === null ? {} : { address, addressLocked: true }) })
  }
  return {
    plans: rows.map(({ unitId, address, radios }) => ({ unit: unitId, address, radios })),
    before,
    faults: (planning?.faults ?? []).map(({ unit, sentence }) => ({ unit, sentence })),
    cost: planning?.cost ?? 0,
  }
}

/** Replaces the plan of a job, all units at once: addresses may change hands between them. */
export async function savePlans(store: Store, jobId: number, { plans, faults, cost }: Planning, at: Date): Promise<void> {
  const result = { faults: faults.map(({ unit, sentence }) => ({ ...(unit === undefined ? {} : { unit }), sentence })), cost, at }
  await store.db.transaction(async (transaction) => {
    await transaction.delete(unitPlans).where(eq(unitPlans.jobId, jobId))
    if (plans.length > 0) await transaction.insert(unitPlans).values(plans.map(({ unit, address, radios }) => ({ jobId, unitId: unit, address, radios: [...radios] })))
    await transaction
      .insert(plannings)
      .values({ jobId, ...result })
      .onDuplicateKeyUpdate({ set: result })
  })
}

/** Locks a unit's channel in a band, or lets it go with undefined. */
export async function lockChannel(store: Store, jobId: number, unitId: string, band: Band, channel: number | undefined): Promise<void> {
  const { channels, address } = await locksOf(store, jobId, unitId)
  const { [band]: _before, ...others } = channels
  await saveLocks(store, jobId, unitId, { channels: channel === undefined ? others : { ...others, [band]: channel }, address })
}

/** Locks a unit's address, or lets it go with undefined. */
export async function lockAddress(store: Store, jobId: number, unitId: string, address: string | undefined): Promise<void> {
  const { channels } = await locksOf(store, jobId, unitId)
  await saveLocks(store, jobId, unitId, { channels, address: address ?? null })
}

interface Locks {
  readonly channels: PlannedBefore['locks']
  readonly address: string | null
}

async function locksOf(store: Store, jobId: number, unitId: string): Promise<Locks> {
  const [row] = await store.db
    .select()
    .from(unitLocks)
    .where(and(eq(unitLocks.jobId, jobId), eq(unitLocks.unitId, unitId)))
  return row ?? { channels: {}, address: null }
}

export async function saveLocks(store: Store, jobId: number, unitId: string, locks: Locks): Promise<void> {
  await store.db
    .insert(unitLocks)
    .values({ jobId, unitId, ...locks })
    .onDuplicateKeyUpdate({ set: locks })
}
