/**
 * Watches the bench: sweeps it, by itself and when it is asked to, tells what was seen and how the laptop stands, and
 * has units mustered again that hands have helped.
 */
import { keptOff } from '../core/addressing/kept-off'
import { managedWithTag } from '../core/brief/brief'
import type { Unit } from '../core/kit/unit'
import type { Laptop } from '../core/muster/events'
import type { Roll } from '../core/muster/roll'
import { theseUnits } from '../core/muster/selection'
import { jobById } from '../store/jobs'
import { listUnits } from '../store/kit'
import { kitCardsOf } from '../store/kit-card-files'
import type { Store } from '../store/open'
import { MusterOpenError, musterIsOpen, placeOrder } from '../store/orders'
import { loadPlans } from '../store/plans'
import { rollOf } from '../store/rolls'
import { type Host, HostAwayError } from '../wire/host/host'
import type { EventLog } from './event-log'
import { Resumption } from './resumption'
import { sweep } from './sweep'

export interface BenchWatchParts {
  readonly store: Store
  readonly host: Host
  readonly logOf: (jobId: number) => EventLog
  readonly complain: (error: unknown, fields: object) => void
}

/** The wire's seconds between two sweeps by itself, and real ones at the least. */
const sweepEverySeconds = 10
const sweepAtMostEveryMs = 600
/** A muster knows where its units are; the sweep leaves it the wire. */
const slowerWhileMustering = 3
/** A sweep that failed is not tried again at once, ms. */
const restAfterFailureMs = 5000

export class BenchWatch {
  readonly #parts: BenchWatchParts
  readonly #rolls = new Map<number, Roll>()
  readonly #resumption = new Resumption()
  #sweeping: { readonly jobId: number; readonly over: Promise<void> } | undefined
  #laptopTold = ''
  /** What units said of themselves by LLDP when it was last listened to, by MAC. */
  #introductions: ReadonlyMap<string, string> = new Map()
  /** Monotonic, ms. */
  #sweptAt: number | undefined
  #nextSweepAt = 0
  #rest = 1
  /** Once it was put back, nothing that stays is added to the laptop before somebody sweeps or musters. */
  #laptop: 'in use' | 'put back' = 'in use'

  constructor(parts: BenchWatchParts) {
    this.#parts = parts
  }

  /** How long ago the bench was swept last, ms. */
  get sweptMsAgo(): number | null {
    return this.#sweptAt === undefined ? null : performance.now() - this.#sweptAt
  }

  /** Ends when the sweep that is under way does. */
  async over(): Promise<void> {
    await this.#sweeping?.over
  }

  /** The roll of a job, brought up to the newest event. */
  async #rollOf(jobId: number): Promise<Roll> {
    const roll = await rollOf(this.#parts.store, jobId, this.#rolls.get(jobId))
    this.#rolls.set(jobId, roll)
    return roll
  }

  /** Somebody works with the laptop again. */
  takeUp(): void {
    this.#laptop = 'in use'
  }

  /** Puts the laptop back as it was. */
  async putBack(jobId: number): Promise<void> {
    this.#laptop = 'put back'
    await this.#sweeping?.over.catch(() => undefined)
    await this.#parts.host.restore()
    await this.tellLaptop(jobId)
  }

  /** Beside the orders, never before them: an order does not wait for a sweep that nobody asked for. */
  sweepByItself(jobId: number, runner: 'busy' | 'free'): void {
    this.#rest = runner === 'busy' ? slowerWhileMustering : 1
    if (this.#sweeping || performance.now() < this.#nextSweepAt) return
    this.sweep(jobId).catch((error: unknown) => {
      this.#nextSweepAt = performance.now() + restAfterFailureMs
      if (!(error instanceof HostAwayError)) this.#parts.complain(error, { job: jobId })
    })
  }

  /** One sweep of a bench at a time: who asks for another meanwhile has this one's. */
  sweep(jobId: number): Promise<void> {
    if (this.#sweeping?.jobId === jobId) return this.#sweeping.over
    const over = this.#sweepOnce(jobId).finally(() => {
      if (this.#sweeping?.over === over) this.#sweeping = undefined
    })
    this.#sweeping = { jobId, over }
    return over
  }

  async #sweepOnce(jobId: number): Promise<void> {
    const { store, host } = this.#parts
    const job = await jobById(store, jobId)
    if (!job) {
      // It was deleted: there is nothing to sweep for.
      this.#nextSweepAt = performance.now() + restAfterFailureMs
      return
    }
    const [units, { plans }, before, cards] = await Promise.all([
      listUnits(store, jobId),
      loadPlans(store, jobId),
      this.#rollOf(jobId),
      kitCardsOf(store),
    ])
    await host.keepOff(
      keptOff(
        job.brief.management,
        plans.map(({ address }) => address),
      ),
    )
    if (this.#laptop === 'in use') await host.reachVlans(managedWithTag(job.brief))
    const hearing = host.heard()
    // Whatever the sweep comes to first, this is not left alone.
    hearing.catch(() => undefined)
    const sightings = await sweep({
      store,
      host,
      jobId,
      units,
      plans: new Map(plans.map((plan) => [plan.unit, plan])),
      cards,
      management: job.brief.management.cidr,
      provenAt: provenPlaces(before),
      before: before.sightings,
      introductions: this.#introductions,
      now: Date.now(),
    })
    this.#sweptAt = performance.now()
    const { introductions, ...everything } = await hearing
    this.#introductions = new Map(introductions.map(({ mac, words }) => [mac, words]))
    const silent = new Set(units.map(({ mac }) => mac))
    for (const { mac } of sightings) silent.delete(mac)
    // Of whom is seen nothing more need be heard; of strays, who answers is enough.
    const heard = { ...everything, onLink: everything.onLink.filter(({ mac }) => silent.has(mac)) }
    const seen = JSON.stringify({ sightings, heard })
    if (seen !== JSON.stringify({ sightings: before.sightings, heard: before.heard }) || before.sweptAt === undefined)
      await this.#parts.logOf(jobId).append({ kind: 'sweep', sightings, heard })
    const { pace } = await this.tellLaptop(jobId)
    this.#nextSweepAt = this.#sweptAt + Math.max(sweepAtMostEveryMs, (sweepEverySeconds * 1000) / pace) * this.#rest
    await this.#resume(jobId, units, await this.#rollOf(jobId))
  }

  /** A unit that was held until the hands did something, and now shows that they have, is mustered by itself. */
  async #resume(jobId: number, units: readonly Unit[], roll: Roll): Promise<void> {
    if (roll.muster !== 'idle' || (await musterIsOpen(this.#parts.store, jobId))) return
    const ready = this.#resumption.ready(jobId, units, roll)
    if (ready.length === 0) return
    await placeOrder(this.#parts.store, { jobId, kind: 'muster', units: theseUnits(...ready) }).catch(
      (error: unknown) => {
        // Somebody was faster and musters already.
        if (!(error instanceof MusterOpenError)) throw error
      },
    )
  }

  /** Tells how the laptop stands, where that has changed. */
  async tellLaptop(jobId: number): Promise<Laptop> {
    const laptop = await this.#parts.host.laptop()
    const told = `${jobId} ${JSON.stringify(laptop)}`
    if (told === this.#laptopTold) return laptop
    this.#laptopTold = told
    await this.#parts.logOf(jobId).append({ kind: 'laptop', laptop })
    return laptop
  }
}

/** Where units were left, by unit. */
function provenPlaces(roll: Roll): Map<string, { address: string; prefix: number }> {
  return new Map(
    [...roll.rows].flatMap(([unit, { proven }]) => {
      const { 'management.address': address, 'management.prefix': prefix } = proven?.config.unit ?? {}
      return address === undefined || prefix === undefined ? [] : [[unit, { address, prefix }] as const]
    }),
  )
}
