/** One simulated bench: units, wire, records and processes, and what happens to them. */

import type { TimedEvent } from '../../src/store/events'
import type { Order } from '../../src/store/orders'
import { sentence } from '../../src/words/en/sentence'
import type { Fault, Later } from './faults'
import { type CallName, isCallFault, portOf } from './faults'
import { type EffectTime, type Outcome, outcomeOf } from './outcome'
import { MemoryRecords } from './records'
import { type Change, whatIsTold, whatIsWritten, whatUnitIs, whoWrites } from './rules'
import type { SimulatedSession } from './session'
import { imageBytes, imageHash, jobOf, rulesOfCountry, type SimulatedJob } from './site'
import type { SiteTraits } from './traits'
import { SimulatedUnit, type Surroundings } from './unit'
import { Violation } from './violation'
import { type Process, World } from './world'

export const jobId = 1
/** A runner that was killed is started again after that, ms; one that stands still does so at least so long. */
export const restartMs = 700
export const frozenMs = 6000
/** Seconds in which an access point joins. */
const joinSeconds = 5
/** MAC of somebody who is on no list. */
export const stranger = '02:00:00:00:00:ee'

export interface Scenario {
  readonly seed: number
  readonly site: SiteTraits
  readonly faults: readonly Fault[]
  readonly later?: readonly Later[]
}

const neverAnswered = new Promise<never>(() => undefined)

export class Scene {
  readonly world: World
  readonly records: MemoryRecords
  readonly units: SimulatedUnit[]
  readonly violations: Violation[] = []
  /** Carries out what happens in the world. */
  happen: (fault: Fault) => void = () => undefined
  /** The order that each process works on, by its name. */
  readonly working = new Map<string, Order>()
  /** Until when somebody else has an address, ms. */
  readonly thieves = new Map<string, number>()
  /** What DHCP gives, by MAC. */
  readonly leases = new Map<string, string>()
  astrayUntil = 0
  databaseAwayUntil = 0
  wireAwayUntil = 0
  interruptions = 0
  /** Units whose ways in are not ours to know any more: reset, or changed by somebody else. */
  readonly outOfHand = new Set<string>()
  /** One-way doors that were ever opened, by unit. */
  readonly doors = new Map<string, Set<'password' | 'address'>>()
  /** Subnets that musters have sent each unit to, by its id. */
  readonly sentTo = new Map<string, Set<string>>()
  /** Sessions that are open or were never closed. */
  readonly sessions = new Set<SimulatedSession>()
  /** How often each call was made, and each fault took place. */
  readonly counts = new Map<string, number>()
  readonly #pending: Fault[]

  constructor(
    readonly scenario: Scenario,
    story: 'told' | 'untold' = 'untold',
  ) {
    this.world = new World(scenario.seed, story)
    this.records = new MemoryRecords(() => this.world.wall, rulesOfCountry)
    const job = jobOf(scenario.site)
    this.records.load(jobId, job)
    this.records.files.set(imageHash, imageBytes)
    this.#pending = [...scenario.faults]
    this.units = job.units.map((unit, index) => this.#unit(unit, index, job))
    this.#lease(job)
    this.#schedule(scenario.faults)
  }

  /** More goes wrong, counted from now on. */
  addFaults(faults: readonly Fault[]): void {
    this.#pending.push(...faults)
    this.#schedule(faults)
  }

  #schedule(faults: readonly Fault[]): void {
    for (const fault of faults)
      if ('second' in fault.when) this.world.after(this.ms(fault.when.second), () => this.#comes(fault))
  }

  #unit(unit: SimulatedJob['units'][number], index: number, job: SimulatedJob): SimulatedUnit {
    const { units } = this.scenario.site
    const traits = units[index] ?? managedTraits
    const card = job.cards.get(unit.model)
    if (!card) throw new Error(`no card for ${unit.model}`)
    const around: Surroundings = {
      ms: (seconds) => this.ms(seconds),
      unit: (mac) => this.units.find((each) => each.mac === mac),
      lease: (mac) => this.leases.get(mac),
      changed: (each) => this.#changed(each),
    }
    return new SimulatedUnit(unit, card, traits, this.world, around)
  }

  #lease(job: SimulatedJob): void {
    const { leases } = this.scenario.site
    for (const [index, unit] of job.units.entries()) {
      if (leases === 'none' && index < this.scenario.site.units.length) continue
      const planned = leases === 'reserved' ? job.plans.get(unit.id)?.address : undefined
      this.leases.set(unit.mac, planned ?? `10.20.0.${120 + index}`)
    }
  }

  get job(): SimulatedJob {
    const kept = this.records.jobs.get(jobId)
    if (!kept) throw new Error('the job is gone')
    return kept.job
  }

  /** ms of the world for so many of the wire's seconds. */
  ms(seconds: number): number {
    return (seconds * 1000) / this.scenario.site.pace
  }

  count(what: string): void {
    this.counts.set(what, (this.counts.get(what) ?? 0) + 1)
  }

  violate(rule: string, detail: string): void {
    this.world.tell('RULE', `${rule}: ${detail}`)
    this.violations.push(new Violation(rule, detail))
  }

  /** Faults that a call of this name sets off now. */
  #setOff(name: CallName): Fault[] {
    let due: Fault[] | undefined
    for (let index = 0; index < this.#pending.length; index += 1) {
      const fault = this.#pending[index] as Fault
      if ('second' in fault.when || (fault.when.call !== 'any' && fault.when.call !== name)) continue
      if (fault.when.nth > 1) {
        this.#pending[index] = { ...fault, when: { ...fault.when, nth: fault.when.nth - 1 } }
        continue
      }
      this.#pending.splice(index, 1)
      index -= 1
      due ??= []
      due.push(fault)
    }
    return due ?? noFaults
  }

  #comes(fault: Fault): void {
    const index = this.#pending.indexOf(fault)
    if (index >= 0) this.#pending.splice(index, 1)
    if (isCallFault(fault.what)) this.#pending.push({ ...fault, when: { call: 'any', nth: 1 } })
    else this.#happens(fault)
  }

  #happens(fault: Fault): void {
    if (this.calm) return
    this.count(`fault ${fault.what.kind}`)
    this.faultsEnd = Math.max(this.faultsEnd, this.world.now + this.#lasts(fault.what))
    this.happen(fault)
  }

  #lasts(what: Fault['what']): number {
    if (what.kind === 'kill') return restartMs
    // It is set once, and stays so.
    if (what.kind === 'wall-clock') return 0
    if (what.kind === 'sleep' || what.kind === 'carried') return what.seconds * 1000 + restartMs
    if (what.kind === 'freeze') return Math.max(frozenMs, this.ms(what.seconds)) + restartMs
    return 'seconds' in what ? this.ms(what.seconds) : 0
  }

  /** When the last thing that went wrong is over, ms. */
  faultsEnd = 0
  /** Nothing goes wrong any more. */
  calm = false

  /**
   * One call of a process to the world: takes a while, may fail, and has its effect at one moment.
   * @param effect  throws what the call is to throw; of records it may be told that it is carried out a second time
   */
  call<T>(process: Process, name: CallName, effect: (time: EffectTime) => T, who = ''): Promise<Awaited<T>> {
    if (process.isDead) return neverAnswered
    const { world } = this
    const port = portOf(name)
    const faults = this.calm ? noFaults : this.#setOff(name)
    const own = faults.find(({ what }) => isCallFault(what))?.what
    let ms = (port === 'records' ? 1 : 3) * (0.5 + world.draw())
    if (own?.kind === 'late') ms += this.ms(own.seconds)
    if (port === 'records') ms = Math.max(ms, this.databaseAwayUntil - world.now)
    if (own) this.count(`fault ${own.kind}`)
    return new Promise<Awaited<T>>((resolve, reject) => {
      world.after(ms, () => {
        for (const fault of faults) if (!isCallFault(fault.what) && fault.moment === 'before') this.#happens(fault)
        // What a process had sent before it was killed may still arrive.
        if (process.isDead && world.draw() < 0.5) return
        const outcome = outcomeOf(this, name, own, effect)
        if (own || outcome.kind === 'error')
          world.tell(process.name, `${name} ${who} ${own?.kind ?? ''} -> ${wordsOf(outcome)}`)
        else if (world.story && toldCalls.has(name)) world.tell(process.name, `${name} ${who}`)
        for (const fault of faults) if (!isCallFault(fault.what) && fault.moment === 'after') this.#happens(fault)
        process.deliver(() => (outcome.kind === 'error' ? reject(outcome.error) : resolve(outcome.value as Awaited<T>)))
      })
    })
  }

  /** Who answers at an address now: MACs. */
  answering(address: string): string[] {
    const found = this.units
      .filter((unit) => unit.phase === 'up' && !unit.isAway && unit.address === address)
      .map(({ mac }) => mac)
    return (this.thieves.get(address) ?? 0) > this.world.now ? [...found, stranger] : found
  }

  /** The unit that a lane leads to; undefined where nobody answers there. */
  reached(mac: string, address: string): SimulatedUnit | undefined {
    if (this.astrayUntil > this.world.now) {
      const other = this.units.find((unit) => unit.phase === 'up' && unit.address === address && unit.mac !== mac)
      if (other) return other
    }
    const unit = this.units.find((each) => each.mac === mac)
    if (unit?.phase !== 'up' || unit.isAway) return undefined
    return unit.address === address || unit.card.does.reachedBy === 'both' ? unit : undefined
  }

  /** A process is about to send a change. */
  sends(process: Process, unit: SimulatedUnit | undefined): void {
    if (unit && !process.isDead) whoWrites(this, process, unit)
  }

  /** Somebody sends a password to a unit: what it shows is what was pinned. */
  isShownPassword(unit: SimulatedUnit): void {
    const pinned = this.records.jobs.get(jobId)?.pins.get(unit.mac)
    if (pinned !== undefined && pinned !== unit.certificate)
      this.violate('no password without the pinned certificate', unit.unit.name)
  }

  /** A change has come to a unit. */
  writes(process: Process, unit: SimulatedUnit, change: Change): void {
    this.count(`write ${change.kind}`)
    if (!process.isDead) whatIsWritten(this, process, unit, change)
  }

  /** Who answered at an address when a process last asked, by `process address`. */
  readonly seenAt = new Map<string, readonly string[]>()
  /** Units, by their id, that had another at their planned address when they were held. */
  readonly displaced = new Set<string>()
  /** Who left an address last, by that address, and when, ms. */
  readonly left = new Map<string, { readonly mac: string; readonly at: number }>()
  readonly #lastAt = new Map<string, string>()
  /** Events that were ever told, and those of which it was heard that they are kept. */
  readonly toldEvents = new Set<TimedEvent>()
  readonly keptEvents = new Set<TimedEvent>()

  /** Events are about to be kept. */
  appending(events: readonly TimedEvent[]): void {
    for (const event of events) this.toldEvents.add(event)
    whatIsTold(this, events)
    if (this.world.story)
      for (const { event } of events)
        if (event.kind === 'step') this.world.tell(event.unit, `${event.step}: ${JSON.stringify(event.state)}`)
        else if (event.kind === 'log') this.world.tell(event.unit, `"${sentence(event.told)}"`)
        else if (event.kind === 'door') this.world.tell(event.unit, `door of its ${event.door} ${event.state}`)
        else if (event.kind === 'muster') this.world.tell('muster', `${event.phase} ${event.units.join(' ')}`)
  }

  #changed(unit: SimulatedUnit): void {
    const { mac, address = '' } = unit
    const last = this.#lastAt.get(mac) ?? ''
    if (last !== address) this.left.set(last, { mac, at: this.world.now })
    this.#lastAt.set(mac, address)
    this.#joins(unit)
    whatUnitIs(this, unit)
  }

  /** Access points that a controller manages come to it a moment after both are there. */
  #joins(unit: SimulatedUnit): void {
    const [controller] = this.units
    if (!controller || this.scenario.site.managed === 0) return
    const managed = this.units.slice(this.scenario.site.units.length)
    if (unit !== controller && !managed.includes(unit)) return
    if (controller.phase !== 'up') for (const each of managed) each.joined = false
    this.world.after(this.ms(joinSeconds), () => {
      for (const each of managed) {
        const told = controller.told.get(each.mac)
        if (told && !each.joined && each.phase === 'up' && controller.phase === 'up') each.join(told)
      }
    })
  }
}

const noFaults: Fault[] = []
const wordsOf = (outcome: Outcome<unknown>): string =>
  outcome.kind === 'error' ? String((outcome.error as Error).message ?? outcome.error) : 'done'
/** Calls that are told, even where nothing goes wrong with them. */
const toldCalls = new Set<CallName>([
  'sign-in',
  'write',
  'password',
  'apply',
  'confirm',
  'save',
  'install',
  'job',
  'end',
])

const managedTraits = {
  applies: 'at-once',
  saves: 'itself',
  move: 'for-good',
  country: 'leaves-radios',
  restarts: 'never',
  boxed: 'dhcp-first',
  secrets: 'shown',
  sessions: 'many',
  session: 'requests',
  reachedBy: 'ipv4',
  networks: 'none',
  radios: 'on',
  writes: 'whole',
  speed: 'quick',
  ping: 'answers',
  listening: 'counted',
  firmware: 'as-wanted',
  clock: 'right',
} as const
