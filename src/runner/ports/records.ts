/**
 * The records port: everything that a runner keeps and looks up. One implementation is MariaDB's (`stored-records.ts`);
 * the simulation has one in memory. Both pass the same tests (`tests/store/records.test.ts`).
 *
 * Each call is one transaction. What it throws: StoreError where the database did not do it, JobGoneError where the
 * job of an event was deleted. A call whose answer was lost may have been carried out.
 */

import type { Brief } from '../../core/brief/brief'
import type { Secrets } from '../../core/config/asking'
import type { Clear } from '../../core/config/unit-config'
import type { KitCard } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import type { Roll } from '../../core/muster/roll'
import type { Planning, UnitPlan } from '../../core/plan/plan'
import type { CountryRules } from '../../core/regulatory/database'
import type { TimedEvent } from '../../store/events'
import type { Order } from '../../store/orders'
import type { RunnerReport } from '../../store/runners'
import type { Copy, FormerPassword } from '../../store/secrets'

/** What a sweep goes by. */
export interface BenchRecord {
  readonly brief: Brief
  readonly units: readonly Unit[]
  readonly plans: readonly UnitPlan[]
  /** By `maker model`. */
  readonly cards: ReadonlyMap<string, KitCard>
}

/** What a muster goes by: the job as it is now, with a plan that was made from it. */
export interface JobRecord {
  readonly brief: Brief
  readonly units: readonly Unit[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  readonly planFaults: Planning['faults']
  readonly cards: ReadonlyMap<string, KitCard>
  readonly roll: Roll
  /** Rules of the brief's country; undefined where there are none. */
  readonly country: CountryRules | undefined
}

/** The secrets of a job, opened. */
export interface JobSecrets {
  /** Clear text by name. */
  readonly secrets: Secrets<Clear>
  /** When each was last changed, by name: an instant, ISO 8601. */
  readonly times: ReadonlyMap<string, string>
  /** Admin passwords that were replaced, the newest first. */
  readonly former: readonly FormerPassword[]
}

export interface Records {
  /** Leases the oldest order that no runner works on, for so many seconds. */
  claimOrder(owner: string, leaseSeconds: number, working: readonly number[]): Promise<Order | undefined>
  /** @returns what is wanted of the order now; `lost` where another runner has it, or its job is gone */
  renewLease(orderId: number, owner: string, leaseSeconds: number): Promise<'go-on' | 'pause' | 'lost'>
  /** Does nothing where the order is another runner's. */
  endOrder(orderId: number, owner: string, status: 'done' | 'paused'): Promise<void>
  orderThrew(
    orderId: number,
    owner: string,
    reason: string,
    counts: 'counts' | 'wire-away',
  ): Promise<'again' | 'failed'>
  /** @throws MusterOpenError */
  placeOrder(order: Omit<Order, 'id'>): Promise<number>
  musterIsOpen(jobId: number): Promise<boolean>
  reportRunner(
    id: string,
    host: string,
    report: { wire: RunnerReport['wire']; sweptMsAgo: number | null },
  ): Promise<void>

  /** Appends events, all or none. @param known  `perhaps-there` where an earlier call for the same events has failed */
  appendEvents(jobId: number, events: readonly TimedEvent[], known: 'new' | 'perhaps-there'): Promise<void>
  /** The roll, brought up to the newest event. @param from  an earlier state of it */
  rollOf(jobId: number, from?: Roll): Promise<Roll>

  /** Undefined where the job is gone. */
  bench(jobId: number): Promise<BenchRecord | undefined>
  /** Plans anew first, where the plan is outdated. Undefined where the job is gone. */
  job(jobId: number): Promise<JobRecord | undefined>

  secrets(jobId: number): Promise<JobSecrets>
  /**
   * Pins what this MAC shows, where it never showed anything. @returns the pinned one, and whether it was pinned now
   */
  pinOnFirstSight(
    jobId: number,
    mac: string,
    shown: string,
    at: Date,
  ): Promise<{ fingerprint: string; first: 'now' | 'before' }>
  hasBackup(jobId: number, mac: string, copy: Copy): Promise<boolean>
  /** The first copy as found stays; of those as left, the newest. */
  keepBackup(jobId: number, mac: string, copy: Copy, text: string, at: Date): Promise<void>
  /** A copy that was kept; undefined where there is none. */
  backup(jobId: number, mac: string, copy: Copy): Promise<string | undefined>
  /** The bytes of a file that somebody brought, by its SHA-256. */
  fileParts(sha256: string): AsyncIterable<Uint8Array>
}
