/** Plans of a job: what each unit is given, what the user locked, and what the newest planning said. */
import { and, eq } from 'drizzle-orm'
import { type PlannedBefore, type Planning, plannedNothing, type UnitPlan } from '../core/plan/plan'
import type { Band } from '../core/regulatory/blocks'
import { outdatePlan, revisionOf } from './jobs'
import { inTransaction, type Store } from './open'
import { jobs, plannings, unitLocks, unitPlans } from './schema'

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
      {
        ...plannedNothing,
        address,
        set: Object.fromEntries(
          radios.map(({ band, channel, width }) => [band, { channel, width }]),
        ) as PlannedBefore['set'],
      },
    ]),
  )
  for (const { unitId, channels, address } of locks) {
    const kept = before.get(unitId) ?? plannedNothing
    before.set(unitId, { ...kept, locks: channels, ...(address === null ? {} : { address, addressLocked: true }) })
  }
  return {
    plans: rows.map(({ unitId, address, radios }) => ({ unit: unitId, address, radios })),
    before,
    faults: (planning?.faults ?? []).map(({ code, params, unit }) => ({ code, params, unit })),
    cost: planning?.cost ?? 0,
  }
}

/**
 * Replaces the plan of a job, all units at once: addresses may change hands between them. A plan that was made from
 * something that has changed since is thrown away.
 *
 * @param revision  the revision of the job that it was made from
 */
export function savePlans(
  store: Store,
  jobId: number,
  { plans, faults, cost }: Planning,
  revision: number,
  at: Date,
): Promise<'kept' | 'outdated'> {
  const result = {
    faults: faults.map(({ code, params, unit }) => ({ code, params, ...(unit === undefined ? {} : { unit }) })),
    cost,
    at,
    revision,
  }
  return inTransaction(store, async ({ db }) => {
    if ((await revisionOf(db, jobId, 'locked')) !== revision) return 'outdated'
    await db.delete(unitPlans).where(eq(unitPlans.jobId, jobId))
    if (plans.length > 0)
      await db
        .insert(unitPlans)
        .values(plans.map(({ unit, address, radios }) => ({ jobId, unitId: unit, address, radios: [...radios] })))
    await db
      .insert(plannings)
      .values({ jobId, ...result })
      .onDuplicateKeyUpdate({ set: result })
    return 'kept'
  })
}

/** Was the plan that is kept made from what is there now? */
export async function planIsCurrent(store: Store, jobId: number): Promise<boolean> {
  const rows = await store.db
    .select({ revision: jobs.revision })
    .from(plannings)
    .innerJoin(jobs, and(eq(jobs.id, plannings.jobId), eq(jobs.revision, plannings.revision)))
    .where(eq(plannings.jobId, jobId))
  return rows.length > 0
}

/** Locks a unit's channel in a band, or lets it go with undefined. */
export function lockChannel(
  store: Store,
  jobId: number,
  unitId: string,
  band: Band,
  channel: number | undefined,
): Promise<void> {
  return changeLocks(store, jobId, unitId, ({ channels, address }) => {
    const { [band]: _before, ...others } = channels
    return { channels: channel === undefined ? others : { ...others, [band]: channel }, address }
  })
}

/** Locks a unit's address, or lets it go with undefined. */
export function lockAddress(store: Store, jobId: number, unitId: string, address: string | undefined): Promise<void> {
  return changeLocks(store, jobId, unitId, ({ channels }) => ({ channels, address: address ?? null }))
}

/** Two who lock at once wait for each other, since both outdate the plan: neither lock is lost. */
function changeLocks(store: Store, jobId: number, unitId: string, change: (before: Locks) => Locks): Promise<void> {
  return inTransaction(store, async (inner) => {
    await outdatePlan(inner.db, jobId)
    await saveLocks(inner, jobId, unitId, change(await locksOf(inner, jobId, unitId)))
  })
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
