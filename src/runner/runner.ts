/**
 * The runner: claims orders, keeps their leases, sweeps the bench between them, and tells everything as events.
 */
import { parseCidr } from '../core/addressing/ipv4'
import type { Unit } from '../core/kit/unit'
import type { Laptop } from '../core/muster/events'
import { emptyRoll, foldRoll, type Roll } from '../core/muster/roll'
import { theseUnits } from '../core/muster/selection'
import { eventsAfter } from '../store/events'
import { jobById } from '../store/jobs'
import { listUnits } from '../store/kit'
import { kitCardsOf } from '../store/kit-card-files'
import type { Store } from '../store/open'
import { claimOrder, endOrder, MusterOpenError, musterIsOpen, type Order, orderThrew, placeOrder } from '../store/orders'
import { loadPlans } from '../store/plans'
import { reportRunner } from '../store/runners'
import { type Host, HostAwayError } from '../wire/host/host'
import { sharedLanes } from '../wire/host/shared-lanes'
import { AwakeClock } from './awake-clock'
import { EventLog } from './event-log'
import { Lease, leaseSeconds } from './lease'
import { muster } from './muster'
import { Resumption } from './resumption'
import { sweep } from './sweep'

export interface RunnerLog {
  info(fields: object, text: string): void
  error(fields: object, text: string): void
}

export interface RunnerOptions {
  readonly id: string
  readonly store: Store
  readonly host: Host
  readonly log: RunnerLog
  /** What waits are measured by. */
  readonly clock?: AwakeClock
}

const lookForOrdersEveryMs = 150
const reportEveryMs = 1000
/** The wire's seconds between two sweeps by itself, and real ones at the least. */
const sweepEverySeconds = 10
const sweepAtMostEveryMs = 600
/** A muster knows where its units are; the sweep leaves it the wire. */
const slowerWhileMustering = 3
/** A sweep that failed is not tried again at once, ms. */
const restAfterFailureMs = 5000

export class Runner {
  readonly #options: RunnerOptions
  readonly #host: Host
  readonly #clock: AwakeClock
  readonly #logs = new Map<number, EventLog>()
  readonly #rolls = new Map<number, Roll>()
  /** The job that is on the bench: the one of the newest order. */
  #onBench: number | undefined
  /** Orders that are worked on, by number. */
  readonly #working = new Map<number, Promise<void>>()
  #sweeping: { readonly jobId: number; readonly over: Promise<void> } | undefined
  #laptopTold = ''
  /** Monotonic, ms. */
  #sweptAt: number | undefined
  #nextSweepAt = 0
  #wire: 'works' | 'away' = 'works'
  readonly #resumption = new Resumption()

  constructor(options: RunnerOptions) {
    this.#options = options
    this.#host = sharedLanes(options.host)
    this.#clock = options.clock ?? new AwakeClock()
  }

  /** Works until the signal is given, then ends what it does between two steps and leaves the rest to its next start. */
  async run(signal: AbortSignal): Promise<void> {
    const { store, id } = this.#options
    this.#clock.start()
    const reporting = this.#report(signal)
    while (!signal.aborted) {
      try {
        const order = await claimOrder(store, id, leaseSeconds, [...this.#working.keys()])
        if (order) this.#start(order, signal)
        else this.#sweepByItself()
      } catch (error) {
        if (!signal.aborted) this.#complain(error, 'the runner goes on')
      }
      await rest(lookForOrdersEveryMs, signal)
    }
    await Promise.allSettled([...this.#working.values(), this.#sweeping?.over, reporting])
    for (const log of this.#logs.values()) log.close()
    this.#clock.stop()
  }

  /** Tells every second that somebody works here, and whether the wire answers. */
  async #report(signal: AbortSignal): Promise<void> {
    const { store, id } = this.#options
    while (!signal.aborted) {
      try {
        await this.#host.laptop()
        this.#wire = 'works'
      } catch {
        this.#wire = 'away'
      }
      const sweptMsAgo = this.#sweptAt === undefined ? null : performance.now() - this.#sweptAt
      await reportRunner(store, id, this.#host.name, { wire: this.#wire, sweptMsAgo }).catch((error: unknown) => signal.aborted || this.#complain(error, 'not reported'))
      await rest(reportEveryMs, signal)
    }
  }

  #complain(error: unknown, words: string, fields: object = {}): void {
    this.#options.log.error({ ...fields, error: error instanceof Error ? (error.stack ?? error.message) : String(error) }, words)
  }

  #logOf(jobId: number): EventLog {
    const log = this.#logs.get(jobId) ?? new EventLog(this.#options.store, jobId, (error) => this.#complain(error, 'an event is lost', { job: jobId }))
    this.#logs.set(jobId, log)
    return log
  }

  /** The roll of a job, brought up to the newest event. */
  async #rollOf(jobId: number): Promise<Roll> {
    let roll = this.#rolls.get(jobId) ?? emptyRoll
    for (;;) {
      const more = await eventsAfter(this.#options.store, jobId, roll.seq)
      if (more.length === 0) return roll
      roll = foldRoll(more, roll)
      this.#rolls.set(jobId, roll)
    }
  }

  #start(order: Order, signal: AbortSignal): void {
    this.#options.log.info({ order: order.id, kind: order.kind, job: order.jobId }, 'order claimed')
    this.#onBench = order.jobId
    const work = this.#carryOut(order, signal).finally(() => this.#working.delete(order.id))
    this.#working.set(order.id, work)
  }

  /** Whatever an order does, its lease is kept meanwhile; what it throws is said, and it is begun again or has failed. */
  async #carryOut(order: Order, signal: AbortSignal): Promise<void> {
    const { store, id } = this.#options
    const callOff = new AbortController()
    const stop = (): void => callOff.abort()
    signal.addEventListener('abort', stop)
    const lease = new Lease({
      store,
      orderId: order.id,
      owner: id,
      onRenewed: (wish) => this.#renewed(order, wish),
      onLost: stop,
      complain: (error) => this.#complain(error, 'lease not renewed', { order: order.id }),
    })
    try {
      const status = await this.#work(order, lease, callOff.signal)
      if (status) await endOrder(store, order.id, id, status)
      if (order.kind === 'muster' && status) await this.#musterOver(order.jobId, status === 'paused' ? 'paused' : 'ended')
    } catch (error) {
      if (callOff.signal.aborted) return
      this.#complain(error, 'order failed', { order: order.id, kind: order.kind })
      await this.#threw(order, error).catch((second: unknown) => this.#complain(second, 'order not put down', { order: order.id }))
    } finally {
      lease.end()
      this.#pausing.delete(order.id)
      signal.removeEventListener('abort', stop)
    }
  }

  /** @returns how the order ends; undefined where it was called off, and whoever finds its lease run out goes on */
  async #work(order: Order, lease: Lease, signal: AbortSignal): Promise<'done' | 'paused' | undefined> {
    const { store } = this.#options
    switch (order.kind) {
      case 'sweep':
        await this.#sweep(order.jobId)
        return 'done'
      case 'restore-laptop':
        await this.#host.restore()
        await this.#tellLaptop(order.jobId)
        return 'done'
      case 'muster': {
        const outcome = await muster({
          store,
          order,
          signal,
          host: this.#host,
          clock: this.#clock,
          log: this.#logOf(order.jobId),
          mayGoOn: () => lease.wish === 'go-on' && !signal.aborted,
          mayAct: () => lease.holds(),
          complain: (error, unit) => this.#complain(error, 'a unit went wrong', { unit: unit.id }),
        })
        if (outcome === 'ended') return 'done'
        return signal.aborted ? undefined : 'paused'
      }
    }
  }

  /** Musters that were told to be pausing. */
  readonly #pausing = new Set<number>()

  async #renewed(order: Order, wish: 'go-on' | 'pause'): Promise<void> {
    if (order.kind !== 'muster') return
    // A pause that comes when all is done already is not told: nothing would take it back.
    if (wish === 'pause' && !this.#pausing.has(order.id) && this.#working.has(order.id)) {
      this.#pausing.add(order.id)
      await this.#logOf(order.jobId).append({ kind: 'muster', phase: 'pausing', units: [] })
    }
    await this.#tellLaptop(order.jobId)
  }

  /** The order was ended before: whoever reads that the muster is paused may place the next one at once. */
  async #musterOver(jobId: number, phase: 'paused' | 'ended'): Promise<void> {
    await this.#logOf(jobId).append({ kind: 'muster', phase, units: [] })
    await this.#tellLaptop(jobId).catch(() => undefined)
  }

  async #threw(order: Order, error: unknown): Promise<void> {
    const { store, id } = this.#options
    const next = await orderThrew(store, order.id, id, error instanceof Error ? error.message : String(error))
    if (next === 'failed' && order.kind === 'muster') await this.#musterOver(order.jobId, 'ended')
  }

  /** Beside the orders, never before them: an order does not wait for a sweep that nobody asked for. */
  #sweepByItself(): void {
    if (this.#onBench === undefined || this.#sweeping || performance.now() < this.#nextSweepAt) return
    const jobId = this.#onBench
    this.#sweep(jobId).catch((error: unknown) => {
      this.#nextSweepAt = performance.now() + restAfterFailureMs
      if (!(error instanceof HostAwayError)) this.#complain(error, 'sweep failed', { job: jobId })
    })
  }

  /** One sweep of a bench at a time: who asks for another meanwhile has this one's. */
  #sweep(jobId: number): Promise<void> {
    if (this.#sweeping?.jobId === jobId) return this.#sweeping.over
    const over = this.#sweepOnce(jobId).finally(() => {
      if (this.#sweeping?.over === over) this.#sweeping = undefined
    })
    this.#sweeping = { jobId, over }
    return over
  }

  async #sweepOnce(jobId: number): Promise<void> {
    const { store } = this.#options
    const job = await jobById(store, jobId)
    if (!job) {
      if (this.#onBench === jobId) this.#onBench = undefined
      return
    }
    const [units, { plans }, before, cards] = await Promise.all([listUnits(store, jobId), loadPlans(store, jobId), this.#rollOf(jobId), kitCardsOf(store)])
    const sightings = await sweep({
      store,
      host: this.#host,
      jobId,
      units,
      plans: new Map(plans.map((plan) => [plan.unit, plan])),
      cards,
      managementPrefix: parseCidr(job.brief.management.cidr)?.prefix ?? 24,
      provenAt: provenPlaces(before),
      before: before.sightings,
    })
    this.#sweptAt = performance.now()
    const { pace } = await this.#host.laptop()
    const everyMs = Math.max(sweepAtMostEveryMs, (sweepEverySeconds * 1000) / pace)
    this.#nextSweepAt = this.#sweptAt + everyMs * (this.#working.size > 0 ? slowerWhileMustering : 1)
    if (JSON.stringify(sightings) !== JSON.stringify(before.sightings) || before.sweptAt === undefined) await this.#logOf(jobId).append({ kind: 'sweep', sightings })
    await this.#tellLaptop(jobId)
    await this.#resume(jobId, units, await this.#rollOf(jobId))
  }

  /** A unit that was held until the hands did something, and now shows that they have, is mustered by itself. */
  async #resume(jobId: number, units: readonly Unit[], roll: Roll): Promise<void> {
    if (roll.muster !== 'idle' || (await musterIsOpen(this.#options.store, jobId))) return
    const ready = this.#resumption.ready(jobId, units, roll)
    if (ready.length === 0) return
    await placeOrder(this.#options.store, { jobId, kind: 'muster', units: theseUnits(...ready) }).catch((error: unknown) => {
      // Somebody was faster and musters already.
      if (!(error instanceof MusterOpenError)) throw error
    })
  }

  async #tellLaptop(jobId: number): Promise<void> {
    const laptop: Laptop = await this.#host.laptop()
    const told = `${jobId} ${JSON.stringify(laptop)}`
    if (told === this.#laptopTold) return
    this.#laptopTold = told
    await this.#logOf(jobId).append({ kind: 'laptop', laptop })
  }
}

/** Where units were left, by unit. */
function provenPlaces(roll: Roll): Map<string, { address: string; prefix: number }> {
  return new Map(
    [...roll.rows].flatMap(([unit, { proven }]) => {
      const { address = null, prefix = null } = proven?.config.management ?? {}
      return address === null || prefix === null ? [] : [[unit, { address, prefix }] as const]
    }),
  )
}

function rest(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(done, ms)
    function done(): void {
      clearTimeout(timer)
      signal.removeEventListener('abort', done)
      resolve()
    }
    signal.addEventListener('abort', done)
  })
}
