/**
 * One unit's way through a muster: what it is to be, how it is reached, what is told, and how it waits.
 */

import type { Asked } from '../../core/config/asked'
import { type AsWritten, compare, type Difference } from '../../core/config/compare'
import { keyText, type ObservedConfig } from '../../core/config/unit-config'
import { isDirect } from '../../core/kit/kit-card'
import { message } from '../../core/message/message'
import type { RadarMove } from '../../core/muster/radar-move'
import type { RadioOnAir } from '../../wire/dialect/dialect'
import type { Host } from '../../wire/host/host'
import type { Sessions } from '../../wire/sessions'
import { pinCheck } from '../../wire/trust/pin'
import type { EventLog } from '../order/event-log'
import type { AwakeClock } from '../ports/awake-clock'
import type { Records } from '../ports/records'
import { Access } from './access'
import { Contact } from './contact'
import type { ControllerLink } from './controller-link'
import { Journal } from './journal'
import { Target, type TargetInput } from './target'
import { Waits } from './waits'

export { CalledOff } from './waits'

export interface Mover {
  readonly name: string
  readonly address: string
  /** Still to leave the address that it has, told to leave it, or done. */
  readonly kind: 'on its way' | 'leaves' | 'over'
  /** MAC of the controller that comes before it. */
  readonly after: string | undefined
}

/**
 * Does what only one unit on a power budget may do at a time: a budget that gives way would leave two without power.
 */
export type PowerTurn = <T>(work: () => Promise<T>) => Promise<T>

export interface UnitRunInput extends TargetInput {
  readonly records: Records
  readonly host: Host
  readonly sessions: Sessions
  /** How many times faster than life the wire runs. */
  readonly pace: number
  readonly log: EventLog
  /** Units of this muster by MAC, with the address that each is to have, and whether it is still on its way. */
  readonly movers: ReadonlyMap<string, Mover>
  /** Says to the others how far its own move is. */
  readonly moves: (kind: Mover['kind']) => void
  /** Names of all units of the kit list, by MAC. */
  readonly names: ReadonlyMap<string, string>
  readonly signal: AbortSignal
  /** Waits while the muster is paused. @throws CalledOff */
  readonly mayAct: () => Promise<void>
  readonly clock: AwakeClock
  /** Of a unit that is set through a controller. */
  readonly controller?: ControllerLink | undefined
  readonly powerTurn: PowerTurn
}

export class UnitRun {
  readonly target: Target
  readonly access: Access
  readonly journal: Journal
  readonly waits: Waits
  readonly host: Host
  readonly records: Records
  readonly sessions: Sessions
  readonly jobId: number
  readonly clock: AwakeClock
  readonly movers: UnitRunInput['movers']
  readonly moves: UnitRunInput['moves']
  readonly names: UnitRunInput['names']
  /** @throws CalledOff */
  readonly mayAct: () => Promise<void>
  readonly controller: ControllerLink | undefined
  readonly powerTurn: PowerTurn
  #configured: ObservedConfig | undefined
  #differences: readonly Difference[] | undefined
  /** Radios that radar has moved, as they were last looked at. */
  radarMoves: readonly RadarMove[] = []
  /** How often the browser ended that turned its pages. */
  browsersLost = 0
  /** What its radios did when they were last looked at. */
  onAir: readonly RadioOnAir[] = []

  constructor(input: UnitRunInput) {
    const { records, host, sessions, log, clock, pace, signal } = input
    this.target = new Target(input)
    this.journal = new Journal(this.target, log, clock)
    this.waits = new Waits({ pace, clock, signal, afterPause: () => this.journal.tellAnew() })
    const { mac } = input.unit
    const pin = pinCheck(
      (fingerprint) => records.pinOnFirstSight(log.jobId, mac, fingerprint, clock.date()),
      (fingerprint) =>
        this.journal.say(
          message('certificate-pinned', {
            fingerprint: fingerprint.slice(0, 5).toLowerCase(),
            end: fingerprint.slice(-2).toLowerCase(),
          }),
        ),
    )
    this.mayAct = input.mayAct
    // What a controller manages is known by its controller: whether that restarts, its session tells.
    const startMs = isDirect(this.target.card)
      ? (this.target.card.timing.start * 1000) / pace
      : Number.POSITIVE_INFINITY
    const contact = new Contact(clock, startMs)
    this.access = new Access(this.target, host, sessions, pin, this.mayAct, contact)
    this.host = host
    this.records = records
    this.sessions = sessions
    this.jobId = log.jobId
    this.clock = clock
    this.movers = input.movers
    this.moves = input.moves
    this.names = input.names
    this.controller = input.controller
    this.powerTurn = input.powerTurn
  }

  get asked(): Asked {
    return this.target.asked
  }

  /** Whether what a unit does not show is what was written to it last. */
  readonly asWritten: AsWritten = (key) => this.journal.markOf(keyText(key)) === this.target.markOf(key)

  /** What the unit is told to be now: as it was read last, where this muster has changed nothing since. */
  async configured(): Promise<ObservedConfig> {
    this.#configured ??= await this.access.dialect.read('configured')
    return this.#configured
  }

  /** What differs between what it is to be and what it is told to be now. */
  async differences(): Promise<readonly Difference[]> {
    this.#differences ??= compare(this.target.compiled.config, await this.configured(), this.asWritten)
    return this.#differences
  }

  /** What the unit is now. */
  inEffect(): Promise<ObservedConfig> {
    return this.access.dialect.read('in-effect')
  }

  /** Something is about to change: what was read last holds no more. */
  willChange(): void {
    this.#configured = undefined
    this.#differences = undefined
  }
}
