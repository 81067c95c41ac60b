/**
 * Orders: what somebody wants done. A runner claims one with a lease that it renews; a lease that runs out is claimed
 * by another. The database's own clock decides, so that runners need not agree on the time.
 */
import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import type { Store } from './open'
import { orders } from './schema'

export type OrderKind = 'sweep' | 'muster' | 'restore-laptop'

export interface Order {
  readonly id: number
  readonly jobId: number
  readonly kind: OrderKind
  /** Empty means all units on the list. */
  readonly units: readonly string[]
}

const now = sql`utc_timestamp(3)`
const leaseEnd = (seconds: number) => sql`utc_timestamp(3) + interval ${Math.round(seconds * 1000) * 1000} microsecond`

/** Places an order, unless the same one waits already: pressing a button twice does no harm. */
export async function placeOrder(store: Store, order: Omit<Order, 'id'>): Promise<number> {
  return store.db.transaction(async (transaction) => {
    const open = await transaction
      .select()
      .from(orders)
      .where(and(eq(orders.jobId, order.jobId), eq(orders.kind, order.kind), eq(orders.status, 'open')))
    const same = open.find((each) => each.units.join() === order.units.join())
    if (same) return same.id
    if (order.kind === 'muster')
      await transaction
        .update(orders)
        .set({ status: 'done' })
        .where(and(eq(orders.jobId, order.jobId), eq(orders.status, 'paused')))
    const [result] = await transaction.insert(orders).values({ jobId: order.jobId, kind: order.kind, units: [...order.units], createdAt: now as never })
    return result.insertId
  })
}

/** The oldest order that nobody works on, now ours for so many seconds; undefined where there is none. */
export async function claimOrder(store: Store, owner: string, leaseSeconds: number): Promise<Order | undefined> {
  return store.db.transaction(async (transaction) => {
    const [free] = await transaction
      .select()
      .from(orders)
      .where(sql`${orders.status} = 'open' or (${orders.status} in ('claimed', 'pausing') and ${orders.leaseUntil} < ${now})`)
      .orderBy(asc(orders.id))
      .limit(1)
      .for('update', { skipLocked: true })
    if (!free) return undefined
    await transaction
      .update(orders)
      .set({ status: free.status === 'pausing' ? 'pausing' : 'claimed', leaseOwner: owner, leaseUntil: leaseEnd(leaseSeconds) as never })
      .where(eq(orders.id, free.id))
    return { id: free.id, jobId: free.jobId, kind: free.kind, units: free.units }
  })
}

/** @returns what is wanted of the order now; `lost` where another runner has taken it */
export async function renewLease(store: Store, orderId: number, owner: string, leaseSeconds: number): Promise<'go-on' | 'pause' | 'lost'> {
  await store.db
    .update(orders)
    .set({ leaseUntil: leaseEnd(leaseSeconds) as never })
    .where(and(eq(orders.id, orderId), eq(orders.leaseOwner, owner)))
  const [row] = await store.db.select({ owner: orders.leaseOwner, status: orders.status }).from(orders).where(eq(orders.id, orderId))
  if (row?.owner !== owner) return 'lost'
  return row.status === 'pausing' ? 'pause' : 'go-on'
}

export async function endOrder(store: Store, orderId: number, owner: string, status: 'done' | 'paused'): Promise<void> {
  await store.db
    .update(orders)
    .set({ status, leaseOwner: null, leaseUntil: null })
    .where(and(eq(orders.id, orderId), eq(orders.leaseOwner, owner)))
}

/** Asks for the muster of a job to stop after the steps that are under way. Does nothing where none is. */
export async function askPause(store: Store, jobId: number): Promise<void> {
  await store.db
    .update(orders)
    .set({ status: 'pausing' })
    .where(and(eq(orders.jobId, jobId), eq(orders.kind, 'muster'), inArray(orders.status, ['claimed'])))
}

/** Is there a muster of this job that is neither done nor paused? */
export async function musterIsOpen(store: Store, jobId: number): Promise<boolean> {
  const rows = await store.db
    .select({ id: orders.id })
    .from(orders)
    .where(and(eq(orders.jobId, jobId), eq(orders.kind, 'muster'), inArray(orders.status, ['open', 'claimed', 'pausing'])))
    .limit(1)
  return rows.length > 0
}
