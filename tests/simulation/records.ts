/** The records port in memory, for simulations: the same contract as MariaDB's (tests/store/records.test.ts). */

import { type Asked, askingOf } from '../../src/core/config/asked'
import { message } from '../../src/core/message/message'
import type { MusterEvent, PlacedEvent } from '../../src/core/muster/events'
import { emptyRoll, foldRoll, type Roll, withChanges } from '../../src/core/muster/roll'
import { covers } from '../../src/core/muster/selection'
import type { CountryRules } from '../../src/core/regulatory/database'
import type { Records } from '../../src/runner/ports/records'
import { JobGoneError, type TimedEvent } from '../../src/store/events'
import { MusterOpenError, mostAttempts, type Order } from '../../src/store/orders'
import type { Copy, FormerPassword } from '../../src/store/secrets'
import type { SimulatedJob } from './site'

type Status = 'open' | 'claimed' | 'pausing' | 'paused' | 'done' | 'failed'

export interface KeptOrder extends Order {
  status: Status
  owner: string | undefined
  leaseUntil: number
  notBefore: number
  attempts: number
}

interface KeptJob {
  job: SimulatedJob
  readonly events: PlacedEvent[]
  roll: Roll
  isDeleted: boolean
  readonly secrets: Map<string, string>
  /** Never changed in place. */
  times: ReadonlyMap<string, string>
  readonly former: FormerPassword[]
  readonly pins: Map<string, string>
  readonly backups: Map<string, string>
}

/** Seconds before an order that threw is begun again, for each attempt. */
const pauseAfterAttempt = 2
const isOpen = (status: Status): boolean => status === 'open' || status === 'claimed' || status === 'pausing'

export class MemoryRecords implements Records {
  readonly jobs = new Map<number, KeptJob>()
  readonly orders: KeptOrder[] = []
  readonly files = new Map<string, Uint8Array>()

  /**
   * @param now      the database's clock, ms since 1970
   * @param country  rules of every job's country
   */
  constructor(
    private readonly now: () => number,
    private readonly country: CountryRules,
  ) {}

  load(jobId: number, job: SimulatedJob): void {
    const at = new Date(this.now()).toISOString()
    this.jobs.set(jobId, {
      job,
      events: [],
      roll: emptyRoll,
      isDeleted: false,
      secrets: new Map(job.secrets),
      times: new Map([...job.secrets.keys()].map((name) => [name, at])),
      former: [],
      pins: new Map(),
      backups: new Map(),
    })
  }

  /** What people do: a secret is another from now on. */
  changeSecret(jobId: number, name: string, clear: string): void {
    const kept = this.jobs.get(jobId)
    const before = kept?.secrets.get(name)
    if (!kept) return
    if (before !== undefined && name.startsWith('admin/password'))
      kept.former.unshift({ name, changedAt: kept.times.get(name) ?? '', clear: before })
    kept.secrets.set(name, clear)
    kept.times = new Map(kept.times).set(name, new Date(this.now()).toISOString())
  }

  /** Nothing is deleted while a muster is open. Its events stay. */
  async deleteJob(jobId: number): Promise<void> {
    const kept = this.jobs.get(jobId)
    if (await this.musterIsOpen(jobId)) throw new Error('a muster of this job is under way')
    if (kept) kept.isDeleted = true
    for (let index = this.orders.length - 1; index >= 0; index -= 1)
      if (this.orders[index]?.jobId === jobId) this.orders.splice(index, 1)
  }

  askPause(jobId: number): void {
    for (const order of this.orders)
      if (order.jobId === jobId && order.kind === 'muster' && order.status === 'claimed') order.status = 'pausing'
  }

  async claimOrder(owner: string, leaseSeconds: number, working: readonly number[]): Promise<Order | undefined> {
    const now = this.now()
    const free = this.orders.find(
      (order) =>
        !working.includes(order.id) &&
        (order.status === 'open' ||
          ((order.status === 'claimed' || order.status === 'pausing') &&
            (order.leaseUntil < now || order.owner === owner))) &&
        order.notBefore <= now,
    )
    if (!free) return undefined
    free.status = free.status === 'pausing' ? 'pausing' : 'claimed'
    free.owner = owner
    free.leaseUntil = now + leaseSeconds * 1000
    const { id, jobId, kind, units } = free
    return { id, jobId, kind, units }
  }

  async renewLease(orderId: number, owner: string, leaseSeconds: number): Promise<'go-on' | 'pause' | 'lost'> {
    const order = this.orders.find(({ id }) => id === orderId)
    if (order?.owner !== owner) return 'lost'
    order.leaseUntil = this.now() + leaseSeconds * 1000
    return order.status === 'pausing' ? 'pause' : 'go-on'
  }

  #ours(orderId: number, owner: string): KeptOrder | undefined {
    return this.orders.find((order) => order.id === orderId && order.owner === owner)
  }

  async endOrder(orderId: number, owner: string, status: 'done' | 'paused'): Promise<void> {
    const order = this.#ours(orderId, owner)
    if (order) Object.assign(order, { status, owner: undefined, leaseUntil: 0 })
  }

  async orderThrew(
    orderId: number,
    owner: string,
    _reason: string,
    counts: 'counts' | 'wire-away',
  ): Promise<'again' | 'failed'> {
    const order = this.#ours(orderId, owner)
    const attempts = (order?.attempts ?? 0) + (counts === 'counts' ? 1 : 0)
    const failed = attempts >= mostAttempts
    if (order)
      Object.assign(order, {
        status: failed ? 'failed' : 'open',
        attempts,
        owner: undefined,
        leaseUntil: 0,
        notBefore: failed ? 0 : this.now() + pauseAfterAttempt * Math.max(1, attempts) * 1000,
      })
    return failed ? 'failed' : 'again'
  }

  async placeOrder(order: Omit<Order, 'id'>): Promise<number> {
    const waiting = this.orders.filter(
      ({ jobId, kind, status }) =>
        jobId === order.jobId && kind === order.kind && (kind === 'muster' ? isOpen(status) : status === 'open'),
    )
    const same = waiting.find(({ units }) => covers(units, order.units))
    if (same) return same.id
    if (order.kind === 'muster') {
      if (waiting.length > 0) throw new MusterOpenError()
      for (const each of this.orders) if (each.jobId === order.jobId && each.status === 'paused') each.status = 'done'
    }
    const id = this.orders.reduce((most, each) => Math.max(most, each.id), 0) + 1
    this.orders.push({ ...order, id, status: 'open', owner: undefined, leaseUntil: 0, notBefore: 0, attempts: 0 })
    return id
  }

  async musterIsOpen(jobId: number): Promise<boolean> {
    return this.orders.some((order) => order.jobId === jobId && order.kind === 'muster' && isOpen(order.status))
  }

  async reportRunner(): Promise<void> {
    // Nobody reads it here.
  }

  async appendEvents(jobId: number, appended: readonly TimedEvent[], known: 'new' | 'perhaps-there'): Promise<void> {
    const kept = this.jobs.get(jobId)
    if (!kept) throw new JobGoneError(message('job-gone', { job: jobId }))
    if (known === 'perhaps-there' && holds(kept.events, appended)) return
    for (const { at, event } of appended) kept.events.push({ seq: kept.events.length + 1, at: at.getTime(), event })
  }

  async rollOf(jobId: number): Promise<Roll> {
    return this.rollNow(jobId)
  }

  rollNow(jobId: number): Roll {
    const kept = this.jobs.get(jobId)
    if (!kept) return emptyRoll
    kept.roll = foldRoll(kept.events.slice(kept.roll.seq), kept.roll)
    return kept.roll
  }

  #there(jobId: number): KeptJob | undefined {
    const kept = this.jobs.get(jobId)
    return kept?.isDeleted ? undefined : kept
  }

  async bench(jobId: number) {
    const kept = this.#there(jobId)
    if (!kept) return undefined
    const { brief, units, plans, cards } = kept.job
    return { brief, units, plans: [...plans.values()], cards }
  }

  async job(jobId: number) {
    const kept = this.#there(jobId)
    if (!kept) return undefined
    const told = this.rollNow(jobId)
    const isProven = [...told.rows.values()].some(({ proven }) => proven !== undefined)
    const roll = isProven ? withChanges(told, this.asked(kept)) : told
    return { ...kept.job, planFaults: [], roll, country: this.country }
  }

  /** What is asked of each unit now: worked out once, as long as nothing of it is changed. */
  asked({ job, times }: Pick<KeptJob, 'job' | 'times'>): ReadonlyMap<string, Asked> {
    if (this.#asked?.job !== job || this.#asked.times !== times)
      this.#asked = { job, times, asked: askingOf({ ...job, secretTimes: times, today: new Date(this.now()) }) }
    return this.#asked.asked
  }

  #asked: { job: SimulatedJob; times: ReadonlyMap<string, string>; asked: ReadonlyMap<string, Asked> } | undefined

  async secrets(jobId: number) {
    const kept = this.jobs.get(jobId)
    return {
      secrets: new Map(kept?.secrets),
      times: new Map(kept?.times),
      former: [...(kept?.former ?? [])],
    }
  }

  async pinOnFirstSight(
    jobId: number,
    mac: string,
    shown: string,
  ): Promise<{ fingerprint: string; first: 'now' | 'before' }> {
    const pins = this.jobs.get(jobId)?.pins
    const pinned = pins?.get(mac)
    if (pinned !== undefined) return { fingerprint: pinned, first: 'before' }
    pins?.set(mac, shown)
    return { fingerprint: shown, first: 'now' }
  }

  async hasBackup(jobId: number, mac: string, copy: Copy): Promise<boolean> {
    return this.jobs.get(jobId)?.backups.has(`${mac} ${copy}`) ?? false
  }

  async keepBackup(jobId: number, mac: string, copy: Copy, text: string): Promise<void> {
    const backups = this.jobs.get(jobId)?.backups
    if (copy !== 'as-found' || !backups?.has(`${mac} ${copy}`)) backups?.set(`${mac} ${copy}`, text)
  }

  async backup(jobId: number, mac: string, copy: Copy): Promise<string | undefined> {
    return this.jobs.get(jobId)?.backups.get(`${mac} ${copy}`)
  }

  async *fileParts(sha256: string): AsyncGenerator<Uint8Array> {
    const bytes = this.files.get(sha256)
    if (bytes) yield bytes
  }
}

/** Do the newest events hold these, one after the other? */
function holds(events: readonly PlacedEvent[], appended: readonly TimedEvent[]): boolean {
  const text = (at: number, event: MusterEvent): string => `${at} ${JSON.stringify(event)}`
  const wanted = appended.map(({ at, event }) => text(at.getTime(), event))
  const from = events.findIndex(({ at }) => at >= (appended[0]?.at.getTime() ?? 0))
  if (from === -1) return appended.length === 0
  const kept = events.slice(from).map(({ at, event }) => text(at, event))
  return kept.some((_, index) => wanted.every((each, offset) => kept[index + offset] === each))
}
