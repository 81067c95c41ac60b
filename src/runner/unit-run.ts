/**
 * One unit's way through a muster: what it is to be, where it was found, the session that is open, and what is told.
 */
import { type Asked, secretMark } from '../core/config/asked'
import type { Compiled } from '../core/config/compile'
import type { DirectCard } from '../core/kit/kit-card'
import type { Unit } from '../core/kit/unit'
import type { Check, StepState } from '../core/muster/events'
import type { Step } from '../core/muster/procedure'
import { emptyRow, type RollRow } from '../core/muster/roll'
import type { UnitPlan } from '../core/plan/plan'
import type { Store } from '../store/open'
import { rest } from '../store/rest'
import { type FormerPassword, pinOnFirstSight } from '../store/secrets'
import type { Credentials, Dialect } from '../wire/dialect/dialect'
import { dialectOf } from '../wire/dialect/dialect-of'
import type { Host, Lane } from '../wire/host/host'
import { WireError } from '../wire/wire-error'
import type { AwakeClock, Deadline } from './awake-clock'
import type { EventLog } from './event-log'

export interface Mover {
  readonly name: string
  readonly address: string
  readonly is: 'on its way' | 'over'
}

export interface UnitRunInput {
  readonly store: Store
  readonly host: Host
  /** How many times faster than life the wire runs. */
  readonly pace: number
  readonly log: EventLog
  readonly unit: Unit
  readonly card: DirectCard
  readonly plan: UnitPlan
  readonly compiled: Compiled
  readonly asked: Asked
  /** What earlier musters left: doors that were opened, what was proven. */
  readonly before: RollRow | undefined
  /** Where the last sweep saw it. */
  readonly seenAt: string | undefined
  /** Units of this muster by MAC, with the address that each is to have, and whether it is still on its way. */
  readonly movers: ReadonlyMap<string, Mover>
  /** Names of all units of the kit list, by MAC. */
  readonly names: ReadonlyMap<string, string>
  /** Admin passwords that were replaced, the newest first. */
  readonly formerPasswords: readonly FormerPassword[]
  readonly signal: AbortSignal
  /** Waits while nobody may act for this muster. */
  readonly mayAct: () => Promise<void>
  readonly clock: AwakeClock
}

/** Some units lock out whoever guesses: no more old passwords than these are tried. */
const mostOldLogins = 3
/** Real milliseconds. */
const shortestPauseMs = 40
const shortestDeadlineMs = 4000

export type DoorState = 'shut' | 'opened' | 'passed'

/** Thrown inside when the muster is called off; nothing is held by it. */
export class CalledOff extends Error {
  override readonly name = 'CalledOff'
}

export class UnitRun {
  readonly unit: Unit
  readonly card: DirectCard
  readonly plan: UnitPlan
  readonly compiled: Compiled
  readonly asked: Asked
  readonly seenAt: string | undefined
  readonly movers: UnitRunInput['movers']
  readonly names: UnitRunInput['names']
  readonly host: Host
  readonly store: Store
  readonly log: EventLog
  readonly pace: number
  readonly clock: AwakeClock
  readonly mayAct: () => Promise<void>
  /** One-way doors, as far as they were ever opened for this unit. */
  readonly doors: { password: DoorState; address: DoorState }
  /** Address at which it was found. */
  address: string | undefined
  /** Login that opened the session. */
  credentials: Credentials | undefined
  readonly #proven: Asked | undefined
  readonly #givenPassword: string | undefined
  readonly #formerPasswords: readonly FormerPassword[]
  readonly #signal: AbortSignal
  #dialect: Dialect | undefined
  readonly #lanes = new Map<string, Lane>()
  /** The wait that was told last, to be told anew when the laptop has slept or its clock was set. */
  #waiting:
    | {
        readonly step: Step
        readonly state: Extract<StepState, { is: 'waiting' }>
        readonly due: Deadline
        readonly disturbances: number
      }
    | undefined

  constructor(input: UnitRunInput) {
    this.unit = input.unit
    this.card = input.card
    this.plan = input.plan
    this.compiled = input.compiled
    this.asked = input.asked
    this.seenAt = input.seenAt
    this.movers = input.movers
    this.names = input.names
    this.#formerPasswords = input.formerPasswords
    this.host = input.host
    this.store = input.store
    this.log = input.log
    this.pace = input.pace
    this.clock = input.clock
    this.mayAct = input.mayAct
    const before = input.before ?? emptyRow
    this.doors = { password: before.passwordDoor, address: before.addressDoor }
    this.#givenPassword = before.givenPassword
    // What another box has proven under this name says nothing of this one.
    this.#proven = before.proven?.mac === input.unit.mac ? before.proven : undefined
    this.#signal = input.signal
  }

  get newLogin(): Credentials {
    return { user: this.compiled.config.admin.user, password: this.compiled.password }
  }

  /** Address at which it has proven itself last; the plan may have moved on since. */
  get provenAddress(): string | undefined {
    return this.#proven?.config.management.address ?? undefined
  }

  /** Admin passwords that it may still have, the one that it was given last first. */
  get oldLogins(): Credentials[] {
    const { user, password } = this.newLogin
    const given = this.#formerPasswords.filter(
      ({ name, changedAt }) => secretMark(name, changedAt) === this.#givenPassword,
    )
    const passwords = [...given, ...this.#formerPasswords]
      .map(({ clear }) => clear)
      .filter((clear) => clear !== password)
    return [...new Set(passwords)].slice(0, mostOldLogins).map((each) => ({ user, password: each }))
  }

  /** Whether the password that it was given last was replaced since. */
  get passwordWasReplaced(): boolean {
    return this.#givenPassword !== undefined && this.#givenPassword !== this.asked.password
  }

  /** The session that is signed in. */
  get dialect(): Dialect {
    if (!this.#dialect) throw new WireError('unreachable', 'no session is open')
    return this.#dialect
  }

  tell(step: Step, state: StepState): Promise<void> {
    this.#waiting =
      state.is === 'waiting'
        ? { step, state, due: this.clock.deadline(state.until - Date.now()), disturbances: this.clock.disturbances }
        : undefined
    return this.log.append({ kind: 'step', unit: this.unit.id, step, state })
  }

  /** A line of its log, kept in its place; the unit is not kept waiting for it. */
  say(text: string): void {
    this.log.note({ kind: 'log', unit: this.unit.id, text })
  }

  /** As `say`, for the state of a step. Events keep their order: whatever is awaited later is stored after it. */
  note(step: Step, state: StepState): void {
    this.log.note({ kind: 'step', unit: this.unit.id, step, state })
  }

  /** Opens or passes a one-way door. It is in the store when this resolves, before the unit hears of anything. */
  async door(door: 'password' | 'address', state: 'opened' | 'passed'): Promise<void> {
    const secret = door === 'password' && state === 'opened' ? { secret: this.asked.password } : {}
    await this.log.append({ kind: 'door', unit: this.unit.id, door, state, ...secret })
    this.doors[door] = state
  }

  check(check: Check): void {
    this.log.note({ kind: 'check', unit: this.unit.id, check })
  }

  /** Wall time at which so many of the wire's seconds will have passed, ms since 1970: to be shown, never waited by. */
  due(seconds: number): number {
    return Date.now() + (seconds * 1000) / this.pace
  }

  /**
   * So many of the wire's seconds from now on, in which this laptop is awake. A rehearsal makes the wire faster, not the
   * laptop: its own hesitation is not a unit's lateness.
   */
  deadline(seconds: number): Deadline {
    return this.clock.deadline(Math.max(shortestDeadlineMs, (seconds * 1000) / this.pace))
  }

  /**
   * Waits so many of the wire's seconds; a fast rehearsal is not asked more often than it can answer.
   * @throws CalledOff
   */
  async pause(seconds: number): Promise<void> {
    this.stopIfCalledOff()
    await rest(Math.max(shortestPauseMs, (seconds * 1000) / this.pace), this.#signal)
    this.stopIfCalledOff()
    await this.#tellAnew()
  }

  /** A countdown that was told before the clock was set counts down to a wrong time. */
  async #tellAnew(): Promise<void> {
    const waiting = this.#waiting
    if (!waiting || waiting.disturbances === this.clock.disturbances) return
    await this.tell(waiting.step, { ...waiting.state, until: Math.round(Date.now() + waiting.due.leftMs()) })
  }

  stopIfCalledOff(): void {
    if (this.#signal.aborted) throw new CalledOff()
  }

  /** The lane to this unit at an address. */
  async lane(address: string): Promise<Lane> {
    const open = this.#lanes.get(address)
    if (open) return open
    const lane = await this.host.openLane({ mac: this.unit.mac, address, prefix: this.#prefixAt(address) })
    this.#lanes.set(address, lane)
    return lane
  }

  #prefixAt(address: string): number {
    const { factory } = this.card
    const proven = this.#proven?.config.management
    const planned =
      address === factory.address
        ? factory.prefix
        : address === proven?.address
          ? proven.prefix
          : this.compiled.config.management.prefix
    return planned ?? factory.prefix
  }

  /** A session of its own at an address, not signed in yet. The caller closes it. */
  async session(address: string): Promise<Dialect> {
    return dialectOf(this.card, await this.lane(address), (fingerprint) => this.#pin(fingerprint))
  }

  /** Takes over a session that is signed in, and lets go of the one before. */
  keepSession(dialect: Dialect, credentials: Credentials, address: string): void {
    if (this.#dialect !== dialect) this.#dialect?.close()
    this.#dialect = dialect
    this.credentials = credentials
    this.address = address
  }

  dropSession(): void {
    this.#dialect?.close()
    this.#dialect = undefined
  }

  async closeLane(address: string): Promise<void> {
    const lane = this.#lanes.get(address)
    this.#lanes.delete(address)
    await lane?.close()
  }

  async close(): Promise<void> {
    this.dropSession()
    await Promise.allSettled([...this.#lanes.keys()].map((address) => this.closeLane(address)))
  }

  async #pin(fingerprint: string): Promise<void> {
    const pinned = await pinOnFirstSight(this.store, this.log.jobId, this.unit.mac, fingerprint, new Date())
    if (pinned.first === 'now')
      this.say(`certificate pinned ${fingerprint.slice(0, 5).toLowerCase()}…${fingerprint.slice(-2).toLowerCase()}`)
    if (pinned.fingerprint !== fingerprint)
      throw new WireError(
        'untrusted',
        `certificate ${fingerprint.slice(0, 11)}… is not the pinned ${pinned.fingerprint.slice(0, 11)}…`,
      )
  }
}
