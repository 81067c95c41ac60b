/**
 * Watches the bench: sweeps it, by itself and when it is asked to, tells what was seen and how the laptop stands, and
 * has units mustered again that hands have helped.
 */
import { dequal } from 'dequal/lite'
import { lendingOf } from '../core/addressing/bench-subnet'
import { keptOff } from '../core/addressing/kept-off'
import { managedWithTag } from '../core/brief/brief'
import { serverNames } from '../core/brief/servers'
import type { Unit } from '../core/kit/unit'
import type { Laptop } from '../core/muster/events'
import type { Place, Roll } from '../core/muster/roll'
import { theseUnits } from '../core/muster/selection'
import { MusterOpenError } from '../store/orders'
import { type Host, HostAwayError } from '../wire/host/host'
import type { Sessions } from '../wire/sessions'
import type { EventLog } from './order/event-log'
import type { AwakeClock } from './ports/awake-clock'
import type { BenchRecord, Records } from './ports/records'
import { Resumption } from './resumption'
import { sweep } from './sweep'

export interface BenchWatchParts {
  readonly records: Records
  readonly host: Host
  readonly sessions: Sessions
  readonly clock: AwakeClock
  /** Seconds of the wire between two sweeps that nobody asked for. */
  readonly sweepEverySeconds: number
  readonly logOf: (jobId: number) => EventLog
  readonly complain: (error: unknown, fields: object) => void
}

/** The least time between two such sweeps, ms. */
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
    return this.#sweptAt === undefined ? null : this.#parts.clock.monotonic() - this.#sweptAt
  }

  /** Ends when the sweep that is under way does. */
  async over(): Promise<void> {
    await this.#sweeping?.over
  }

  /** The roll of a job, brought up to the newest event. */
  async #rollOf(jobId: number): Promise<Roll> {
    const roll = await this.#parts.records.rollOf(jobId, this.#rolls.get(jobId))
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
    if (this.#sweeping || this.#parts.clock.monotonic() < this.#nextSweepAt) return
    this.sweep(jobId).catch((error: unknown) => {
      this.#nextSweepAt = this.#parts.clock.monotonic() + restAfterFailureMs
      if (!(error instanceof HostAwayError)) this.#parts.complain(error, { job: jobId })
    })
  }

  /** One sweep of a bench at a time: a second request in that time gets the result of the first. */
  sweep(jobId: number): Promise<void> {
    if (this.#sweeping?.jobId === jobId) return this.#sweeping.over
    const over = this.#sweepOnce(jobId).finally(() => {
      if (this.#sweeping?.over === over) this.#sweeping = undefined
    })
    this.#sweeping = { jobId, over }
    return over
  }

  async #sweepOnce(jobId: number): Promise<void> {
    const { records, host, sessions, clock } = this.#parts
    const [bench, before] = await Promise.all([records.bench(jobId), this.#rollOf(jobId)])
    if (!bench) {
      // It was deleted: there is nothing to sweep for.
      this.#nextSweepAt = this.#parts.clock.monotonic() + restAfterFailureMs
      return
    }
    const { brief, units, plans, cards } = bench
    const taken = [...plans, ...before.heard.named].map(({ address }) => address)
    await host.keepOff(keptOff(brief, taken))
    if (this.#laptop === 'in use') await host.reachVlans(managedWithTag(brief))
    await this.#lend(bench, before)
    const hearing = host.heard()
    const naming = host.resolve(serverNames(brief), brief.management.dnsServers)
    // If the sweep fails first, a failure of these must not go unhandled.
    for (const asked of [hearing, naming]) asked.catch(() => undefined)
    const sightings = await sweep({
      records,
      host,
      sessions,
      jobId,
      units,
      plans: new Map(plans.map((plan) => [plan.unit, plan])),
      cards,
      management: brief.management.cidr,
      lent: before.heard.lending.leases,
      provenAt: provenPlaces(before),
      before: before.sightings,
      old: new Map([...before.rows].map(([unit, { old }]) => [unit, old])),
      introductions: this.#introductions,
      now: clock.wall(),
    })
    this.#sweptAt = this.#parts.clock.monotonic()
    const [{ introductions, ...everything }, named] = await Promise.all([hearing, naming])
    this.#introductions = new Map(introductions.map(({ mac, words }) => [mac, words]))
    const silent = new Set(units.map(({ mac }) => mac))
    for (const { mac } of sightings) silent.delete(mac)
    // Of whom is seen nothing more need be heard; of strays, who answers is enough.
    const heard = { ...everything, named, onLink: everything.onLink.filter(({ mac }) => silent.has(mac)) }
    const known = { sightings: before.sightings, heard: before.heard }
    if (before.sweptAt === undefined || !dequal(asKept({ sightings, heard }), asKept(known)))
      await this.#parts.logOf(jobId).append({ kind: 'sweep', sightings, heard })
    const { pace } = await this.tellLaptop(jobId)
    const every = (this.#parts.sweepEverySeconds * 1000) / pace
    this.#nextSweepAt = this.#sweptAt + Math.max(sweepAtMostEveryMs, every) * this.#rest
    const planned = new Map(plans.map(({ unit, address }) => [unit, address]))
    await this.#resume(jobId, units, await this.#rollOf(jobId), planned)
  }

  /** Lends addresses where somebody wants that, and the laptop was not put back since. */
  async #lend({ brief, units, cards }: BenchRecord, { lending, laptop }: Roll): Promise<void> {
    const isWanted = lending.state === 'on' && this.#laptop === 'in use'
    const own = (laptop?.addresses ?? []).flatMap(({ cidr, origin }) => (origin === 'own' ? [cidr] : []))
    await this.#parts.host.lend((isWanted && lendingOf(brief, units, cards, own)) || null)
  }

  /** A held unit that now shows that somebody has helped it is mustered again without a press. */
  async #resume(
    jobId: number,
    units: readonly Unit[],
    roll: Roll,
    planned: ReadonlyMap<string, string>,
  ): Promise<void> {
    if (roll.muster !== 'idle' || (await this.#parts.records.musterIsOpen(jobId))) return
    const ready = this.#resumption.ready(jobId, units, roll, planned)
    if (ready.length === 0) return
    const order = { jobId, kind: 'muster', units: theseUnits(...ready) } as const
    await this.#parts.records.placeOrder(order).catch((error: unknown) => {
      // Somebody was faster and musters already.
      if (!(error instanceof MusterOpenError)) throw error
    })
  }

  /** Tells the state of the laptop, if it has changed. */
  async tellLaptop(jobId: number): Promise<Laptop> {
    const laptop = await this.#parts.host.laptop()
    const told = `${jobId} ${JSON.stringify(laptop)}`
    if (told === this.#laptopTold) return laptop
    this.#laptopTold = told
    await this.#parts.logOf(jobId).append({ kind: 'laptop', laptop })
    return laptop
  }
}

/** Where units were left, by unit: where one was sent, came to, or has proven itself. */
function provenPlaces(roll: Roll): Map<string, Place> {
  return new Map(
    [...roll.rows].flatMap(([unit, { proven, addressDoor, sentTo, cameTo }]) => {
      const place = addressDoor === 'opened' ? sentTo : cameTo
      if (place) return [[unit, place] as const]
      const { 'management.address': address, 'management.prefix': prefix } = proven?.config.unit ?? {}
      return address === undefined || prefix === undefined ? [] : [[unit, { address, prefix }] as const]
    }),
  )
}

/** As the log gives it back: without what is undefined. */
const asKept = (value: object): unknown => JSON.parse(JSON.stringify(value))
