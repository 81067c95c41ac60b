/**
 * Orders: what somebody wants done. A runner claims one with a lease that it renews as long as it works on it; a lease
 * that runs out is claimed by another. The database's own clock decides, so that runners need not agree on the time.
 */

import { and, asc, desc, eq, inArray, notInArray, sql } from 'drizzle-orm'
import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import { covers, type Selection, selectionSchema } from '../core/muster/selection'
import { BrokenRowError } from './faults'
import { readJson } from './json-column'
import type { Store } from './open'
import { jobs, orders } from './schema'

export type OrderKind = 'sweep' | 'muster' | 'restore-laptop'

export interface Order {
  readonly id: number
  readonly jobId: number
  readonly kind: OrderKind
  readonly units: Selection
}

/** A muster of this job is under way, and is not for these units; nothing was placed. */
export class MusterOpenError extends ToldError {
  override readonly name = 'MusterOpenError'
  constructor() {
    super(message('muster-open'))
  }
}

/** An order that throws is begun so often; then it has failed. */
export const mostAttempts = 3
/** Seconds before it is begun again. */
const pauseAfterAttempt = 2

const now = sql`utc_timestamp(3)`
const fromNow = (seconds: number) => sql`utc_timestamp(3) + interval ${Math.round(seconds * 1000) * 1000} microsecond`
const openStatuses = ['open', 'claimed', 'pausing'] as const

/**
 * Places an order, unless the same one waits already: pressing a button twice does no harm. A job has one open muster
 * at the most.
 *
 * @throws MusterOpenError where a muster is open that is for other units
 */
export function placeOrder(store: Store, order: Omit<Order, 'id'>): Promise<number> {
  return store.db.transaction(async (transaction) => {
    // Whoever places for the same job at the same time waits here.
    await transaction.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, order.jobId)).for('update')
    const waiting = await transaction
      .select({ id: orders.id, units: orders.units })
      .from(orders)
      .where(
        and(
          eq(orders.jobId, order.jobId),
          eq(orders.kind, order.kind),
          order.kind === 'muster' ? inArray(orders.status, [...openStatuses]) : eq(orders.status, 'open'),
        ),
      )
    const same = waiting.find(({ units }) => covers(units, order.units))
    if (same) return same.id
    if (order.kind === 'muster') {
      if (waiting.length > 0) throw new MusterOpenError()
      await transaction
        .update(orders)
        .set({ status: 'done' })
        .where(and(eq(orders.jobId, order.jobId), eq(orders.status, 'paused')))
    }
    const [result] = await transaction
      .insert(orders)
      .values({ jobId: order.jobId, kind: order.kind, units: order.units, createdAt: now })
    return result.insertId
  })
}

/**
 * Leases the oldest order that no runner works on, for so many seconds; undefined where there is none.
 *
 * @param working  orders that this runner works on already: a late lease does not make it claim them a second time
 * @returns        an order that cannot be read is marked as failed, and the next one is claimed
 */
export async function claimOrder(
  store: Store,
  owner: string,
  leaseSeconds: number,
  working: readonly number[] = [],
): Promise<Order | undefined> {
  for (;;) {
    const claimed = await claimNext(store, owner, leaseSeconds, working)
    if (!claimed) return undefined
    const { units, ...order } = claimed
    try {
      return { ...order, units: readJson('orders.units', selectionSchema, units) }
    } catch (error) {
      if (!(error instanceof BrokenRowError)) throw error
      await failOrder(store, order.id, owner, error.message)
    }
  }
}

function claimNext(
  store: Store,
  owner: string,
  leaseSeconds: number,
  working: readonly number[],
): Promise<(Omit<Order, 'units'> & { units: string }) | undefined> {
  return store.db.transaction(async (transaction) => {
    const others = working.length > 0 ? notInArray(orders.id, [...working]) : undefined
    const [free] = await transaction
      // The text of the units, not their reading: a broken row must not stand in the way of the others.
      .select({
        id: orders.id,
        jobId: orders.jobId,
        kind: orders.kind,
        status: orders.status,
        units: sql<string>`${orders.units}`,
      })
      .from(orders)
      .where(
        and(
          others,
          sql`(${orders.status} = 'open' or (${orders.status} in ('claimed', 'pausing') and (${orders.leaseUntil} <
            ${now} or ${orders.leaseOwner} = ${owner})))`,
          sql`(${orders.notBefore} is null or ${orders.notBefore} <= ${now})`,
        ),
      )
      .orderBy(asc(orders.id))
      .limit(1)
      .for('update', { skipLocked: true })
    if (!free) return undefined
    await transaction
      .update(orders)
      .set({
        status: free.status === 'pausing' ? 'pausing' : 'claimed',
        leaseOwner: owner,
        leaseUntil: fromNow(leaseSeconds),
      })
      .where(eq(orders.id, free.id))
    return { id: free.id, jobId: free.jobId, kind: free.kind, units: free.units }
  })
}

/** @returns what is wanted of the order now; `lost` where another runner has taken it, or its job is gone */
export async function renewLease(
  store: Store,
  orderId: number,
  owner: string,
  leaseSeconds: number,
): Promise<'go-on' | 'pause' | 'lost'> {
  await store.db
    .update(orders)
    .set({ leaseUntil: fromNow(leaseSeconds) })
    .where(and(eq(orders.id, orderId), eq(orders.leaseOwner, owner)))
  const [row] = await store.db
    .select({ owner: orders.leaseOwner, status: orders.status })
    .from(orders)
    .where(eq(orders.id, orderId))
  if (row?.owner !== owner) return 'lost'
  return row.status === 'pausing' ? 'pause' : 'go-on'
}

const ours = (orderId: number, owner: string) => and(eq(orders.id, orderId), eq(orders.leaseOwner, owner))
const letGo = { leaseOwner: null, leaseUntil: null }

export async function endOrder(store: Store, orderId: number, owner: string, status: 'done' | 'paused'): Promise<void> {
  await store.db
    .update(orders)
    .set({ status, ...letGo, endedAt: now })
    .where(ours(orderId, owner))
}

/** It threw: it is begun again after a pause, or has failed where it was begun often enough. */
export function orderThrew(
  store: Store,
  orderId: number,
  owner: string,
  reason: string,
  counts: 'counts' | 'wire-away' = 'counts',
): Promise<'again' | 'failed'> {
  return store.db.transaction(async (transaction) => {
    const [row] = await transaction
      .select({ attempts: orders.attempts })
      .from(orders)
      .where(ours(orderId, owner))
      .for('update')
    // No fault of the order, where the laptop has no way to the wire: it waits until there is one.
    const attempts = (row?.attempts ?? 0) + (counts === 'counts' ? 1 : 0)
    const failed = attempts >= mostAttempts
    await transaction
      .update(orders)
      .set(
        failed
          ? { status: 'failed', attempts, reason: shortened(reason), ...letGo, endedAt: now }
          : {
              status: 'open',
              attempts,
              reason: shortened(reason),
              ...letGo,
              notBefore: fromNow(pauseAfterAttempt * Math.max(1, attempts)),
            },
      )
      .where(ours(orderId, owner))
    return failed ? 'failed' : 'again'
  })
}

async function failOrder(store: Store, orderId: number, owner: string, reason: string): Promise<void> {
  await store.db
    .update(orders)
    .set({ status: 'failed', reason: shortened(reason), ...letGo, endedAt: now })
    .where(ours(orderId, owner))
}

const shortened = (text: string): string => text.slice(0, 480)

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
    .where(and(eq(orders.jobId, jobId), eq(orders.kind, 'muster'), inArray(orders.status, [...openStatuses])))
    .limit(1)
  return rows.length > 0
}

/** Does a runner work on any muster right now? */
export async function musterIsWorked({ db }: Store): Promise<boolean> {
  const rows = await db
    .select({ id: orders.id })
    .from(orders)
    .where(
      and(
        eq(orders.kind, 'muster'),
        inArray(orders.status, ['claimed', 'pausing']),
        sql`${orders.leaseUntil} >= ${now}`,
      ),
    )
    .limit(1)
  return rows.length > 0
}

export interface OrderState {
  readonly id: number
  readonly kind: OrderKind
  readonly status: 'open' | 'claimed' | 'pausing' | 'paused' | 'done' | 'failed'
  /** Why it failed, or why it is begun again. */
  readonly reason: string | null
}

const stateColumns = { id: orders.id, kind: orders.kind, status: orders.status, reason: orders.reason }

export async function orderState(store: Store, orderId: number): Promise<OrderState | undefined> {
  const [row] = await store.db.select(stateColumns).from(orders).where(eq(orders.id, orderId))
  return row
}

/** The newest order of a job, where that one failed: people must hear of it until another is placed. */
export async function failedOrder(store: Store, jobId: number): Promise<OrderState | undefined> {
  const [row] = await store.db
    .select(stateColumns)
    .from(orders)
    .where(eq(orders.jobId, jobId))
    .orderBy(desc(orders.id))
    .limit(1)
  return row?.status === 'failed' ? row : undefined
}
