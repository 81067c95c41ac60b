/**
 * The runner: claims orders, keeps their leases, sweeps the bench between them, and tells everything as events.
 */
import { parseCidr } from '../core/addressing/ipv4'
import type { Unit } from '../core/kit/unit'
import type { Laptop } from '../core/muster/events'
import { emptyRoll, foldRoll, type Roll } from '../core/muster/roll'
import { eventsAfter } from '../store/events'
import { jobById } from '../store/jobs'
import { listUnits } from '../store/kit'
import { kitCardsOf } from '../store/kit-card-files'
import type { Store } from '../store/open'
import { claimOrder, endOrder, musterIsOpen, type Order, placeOrder, renewLease } from '../store/orders'
import { loadPlans } from '../store/plans'
import { reportRunner } from '../store/runners'
import type { Host } from '../wire/host/host'
import { EventLog } from './event-log'
import { muster, waitingForHands } from './muster'
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
}

/** Seconds; a lease that is not renewed is another runner's after that. */
const leaseSeconds = 4
const renewEveryMs = 1000
const lookForOrdersEveryMs = 150
/** The wire's seconds between two sweeps by itself, and real ones at the least. */
const sweepEverySeconds = 10
const sweepAtMostEveryMs = 600
/** A muster knows where its units are; the sweep leaves it the wire. */
const slowerWhileMustering = 3

export class Runner {
  readonly #options: RunnerOptions
  readonly #logs = new Map<number, EventLog>()
  readonly #rolls = new Map<number, Roll>()
  /** The job that is on the bench: the one of the newest order. */
  #onBench: number | undefined
  readonly #working = new Set<Promise<void>>()
  #laptopTold = ''
  #sweptAt = 0
  /** Units seen to be away since they were held at sign-in: coming back, they may have been reset. */
  readonly #wasAway = new Set<string>()

  constructor(options: RunnerOptions) {
    this.#options = options
  }

  /** Works until the signal is given, then ends what it does between two steps and leaves the rest to its next start. */
  async run(signal: AbortSignal): Promise<void> {
    const { store, id, host } = this.#options
    let reportedAt = 0
    const { pace } = await host.laptop()
    const sweepEveryMs = Math.max(sweepAtMostEveryMs, (sweepEverySeconds * 1000) / pace)
    while (!signal.aborted) {
      try {
        if (Date.now() - reportedAt > 1000) {
          reportedAt = Date.now()
          await reportRunner(store, id, host.name, { seenAt: new Date(), sweptAt: this.#sweptAt === 0 ? null : new Date(this.#sweptAt) })
        }
        const order = await claimOrder(store, id, leaseSeconds)
        if (order) this.#start(order, signal)
        else if (this.#onBench !== undefined && Date.now() - this.#sweptAt > sweepEveryMs * (this.#working.size > 0 ? slowerWhileMustering : 1)) {
          await this.#sweep(this.#onBench)
        }
      } catch (error) {
        this.#options.log.error({ error: String(error) }, 'the runner goes on')
      }
      await rest(lookForOrdersEveryMs, signal)
    }
    await Promise.allSettled(this.#working)
  }

  #logOf(jobId: number): EventLog {
    const log = this.#logs.get(jobId) ?? new EventLog(this.#options.store, jobId)
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
    const work = this.#carryOut(order, signal)
      .catch((error: unknown) => this.#options.log.error({ order: order.id, error: String(error) }, 'order failed'))
      .finally(() => this.#working.delete(work))
    this.#working.add(work)
  }

  async #carryOut(order: Order, signal: AbortSignal): Promise<void> {
    const { store, id, host } = this.#options
    if (order.kind === 'sweep') await this.#sweep(order.jobId)
    if (order.kind === 'restore-laptop') {
      await host.restore()
      await this.#tellLaptop(order.jobId)
    }
    if (order.kind === 'muster') return this.#muster(order, signal)
    await endOrder(store, order.id, id, 'done')
  }

  async #muster(order: Order, signal: AbortSignal): Promise<void> {
    const { store, id, host } = this.#options
    const log = this.#logOf(order.jobId)
    const callOff = new AbortController()
    const stop = (): void => callOff.abort()
    signal.addEventListener('abort', stop)
    let wish: 'go-on' | 'pause' | 'lost' = await renewLease(store, order.id, id, leaseSeconds)
    let pauseTold = false
    let over = false
    const renewing = setInterval(() => {
      renewLease(store, order.id, id, leaseSeconds)
        .then(async (answer) => {
          wish = answer
          if (wish === 'lost') stop()
          // A pause that comes when all is done already is not told: nothing would take it back.
          if (wish === 'pause' && !pauseTold && !over) {
            pauseTold = true
            await log.append({ kind: 'muster', phase: 'pausing', units: [] })
          }
          await this.#tellLaptop(order.jobId)
        })
        .catch((error: unknown) => this.#options.log.error({ order: order.id, error: String(error) }, 'lease not renewed'))
    }, renewEveryMs)
    const complain = (error: unknown, unit: Unit): void =>
      this.#options.log.error({ unit: unit.id, error: error instanceof Error ? (error.stack ?? error.message) : String(error) }, 'a unit went wrong')
    try {
      const outcome = await muster({ store, host, log, order, signal: callOff.signal, mayGoOn: () => wish === 'go-on' && !callOff.signal.aborted, complain })
      // Called off, not paused: the order stays claimed, and whoever finds its lease run out goes on.
      if (outcome === 'stopped' && callOff.signal.aborted) return
      over = true
      // The order first: whoever reads that the muster is paused may place the next one at once.
      await endOrder(store, order.id, id, outcome === 'stopped' ? 'paused' : 'done')
      await log.append({ kind: 'muster', phase: outcome === 'stopped' ? 'paused' : 'ended', units: [] })
      await this.#tellLaptop(order.jobId)
    } finally {
      clearInterval(renewing)
      signal.removeEventListener('abort', stop)
    }
  }

  async #sweep(jobId: number): Promise<void> {
    const { store, host } = this.#options
    const job = await jobById(store, jobId)
    if (!job) return
    const [units, { plans }, before, cards] = await Promise.all([listUnits(store, jobId), loadPlans(store, jobId), this.#rollOf(jobId), kitCardsOf(store)])
    const sightings = await sweep({
      store,
      host,
      jobId,
      units,
      plans: new Map(plans.map((plan) => [plan.unit, plan])),
      cards,
      managementPrefix: parseCidr(job.brief.management.cidr)?.prefix ?? 24,
      provenAt: provenPlaces(before),
      before: before.sightings,
    })
    this.#sweptAt = Date.now()
    if (JSON.stringify(sightings) !== JSON.stringify(before.sightings) || before.sweptAt === undefined) await this.#logOf(jobId).append({ kind: 'sweep', sightings })
    await this.#tellLaptop(jobId)
    await this.#resume(jobId, units, await this.#rollOf(jobId))
  }

  /** A unit that was held until the hands did something, and now shows that they have, is mustered by itself. */
  async #resume(jobId: number, units: readonly Unit[], roll: Roll): Promise<void> {
    if (roll.muster !== 'idle' || (await musterIsOpen(this.#options.store, jobId))) return
    const ready: string[] = []
    for (const [id, step] of waitingForHands(roll.rows)) {
      const unit = units.find((each) => each.id === id)
      const key = `${jobId} ${id}`
      const answers = roll.sightings.some((sighting) => sighting.mac === unit?.mac && sighting.answers === 'service')
      if (!answers) this.#wasAway.add(key)
      else if (step !== 'sign-in' || this.#wasAway.has(key)) {
        this.#wasAway.delete(key)
        ready.push(id)
      }
    }
    if (ready.length > 0) await placeOrder(this.#options.store, { jobId, kind: 'muster', units: ready })
  }

  async #tellLaptop(jobId: number): Promise<void> {
    const laptop: Laptop = await this.#options.host.laptop()
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
