/** What a unit's muster tells, and what it must not forget: steps, log, checks, doors, marks, outcomes. */

import { hostname } from 'node:os'
import type { SettingOutcome } from '../../core/config/outcomes'
import type { Message } from '../../core/message/message'
import type { Cell, Check, StepState } from '../../core/muster/events'
import type { Step } from '../../core/muster/procedure'
import type { RadarMove } from '../../core/muster/radar-move'
import type { EventLog } from '../order/event-log'
import type { AwakeClock, Deadline } from '../ports/awake-clock'
import type { Target } from './target'

export type DoorState = 'shut' | 'opened' | 'passed'

export class Journal {
  readonly #target: Target
  readonly #log: EventLog
  readonly #clock: AwakeClock
  /** One-way doors, as far as they were ever opened for this unit. */
  readonly doors: { password: DoorState; address: DoorState }
  /** Marks of what was written and has taken effect. */
  readonly #inEffect: Map<string, string>
  /** Names the configuration that was to take effect; see Dialect.revision. */
  awaitedRevision: string | undefined
  /** Marks of what was written by this muster, and may be lost again until it is in effect. */
  readonly #written = new Map<string, string>()
  /** The wait that was told last, to be told anew when the laptop has slept or its clock was set. */
  #waiting:
    | {
        readonly step: Step
        readonly state: Extract<StepState, { kind: 'waiting' }>
        readonly due: Deadline
        readonly disturbances: number
      }
    | undefined

  constructor(target: Target, log: EventLog, clock: AwakeClock) {
    this.#target = target
    this.#log = log
    this.#clock = clock
    this.doors = { password: target.before.passwordDoor, address: target.before.addressDoor }
    this.#inEffect = new Map(Object.entries(target.writtenBefore))
  }

  get #unit(): string {
    return this.#target.unit.id
  }

  tell(step: Step, state: StepState): Promise<void> {
    this.#waiting =
      state.kind === 'waiting'
        ? {
            step,
            state,
            due: this.#clock.deadline(state.until - this.#clock.wall()),
            disturbances: this.#clock.disturbances,
          }
        : undefined
    return this.#log.append({ kind: 'step', unit: this.#unit, step, state })
  }

  /** A countdown that was told before the clock was set counts down to a wrong time. */
  async tellAnew(): Promise<void> {
    const waiting = this.#waiting
    if (!waiting || waiting.disturbances === this.#clock.disturbances) return
    await this.tell(waiting.step, { ...waiting.state, until: Math.round(this.#clock.wall() + waiting.due.leftMs()) })
  }

  /** A line of its log, kept in its place; the unit is not kept waiting for it. */
  say(told: Message): void {
    this.#log.note({ kind: 'log', unit: this.#unit, told })
  }

  /** As `say`, for the state of a step. Events keep their order: one that is awaited later is stored later. */
  note(step: Step, state: StepState): void {
    this.#log.note({ kind: 'step', unit: this.#unit, step, state })
  }

  check(check: Check): void {
    this.#log.note({ kind: 'check', unit: this.#unit, check })
  }

  /**
   * Opens or passes a one-way door. It is in the store when this resolves, before the unit hears of anything.
   * @param place  where the unit is to be looked for: where it is sent, or where DHCP has sent it
   */
  async door(door: 'password' | 'address', state: 'opened' | 'passed', place = this.#target.goal): Promise<void> {
    const { asked } = this.#target
    const through = state === 'passed' ? {} : door === 'password' ? { secret: asked.password } : { place }
    await this.#log.append({ kind: 'door', unit: this.#unit, door, state, ...through })
    this.doors[door] = state
  }

  heardRadar({ band, from, to }: RadarMove, width: number): Promise<void> {
    return this.#log.append({ kind: 'radar', unit: this.#unit, band, from, to, width })
  }

  /** @param since  when it was first seen, ms since 1970 */
  shippedOpen(ssid: string, state: 'found' | 'silenced', since?: number): Promise<void> {
    const seen = since === undefined ? {} : { since }
    return this.#log.append({ kind: 'shipped-open', unit: this.#unit, ssid, state, ...seen })
  }

  kept(copy: 'as-found' | 'as-left' | 'page-when-held'): Promise<void> {
    return this.#log.append({ kind: 'kept', unit: this.#unit, copy })
  }

  /** What was written to a setting that the unit does not show, by setting: this muster's, or what is in effect. */
  markOf(key: string): string | undefined {
    return this.#written.get(key) ?? this.#inEffect.get(key)
  }

  get marks(): ReadonlyMap<string, string> {
    return new Map([...this.#inEffect, ...this.#written])
  }

  wrote(key: string, mark: string): void {
    this.#written.set(key, mark)
  }

  /** It was found as out of its box: nothing that was written before is there any more. */
  async foundBoxed(): Promise<void> {
    if (this.#inEffect.size === 0) return
    this.#inEffect.clear()
    await this.#tellWritten('scratch', {})
  }

  /** It went away before its changes took effect: what was written may be lost, and is written again. */
  forgetWritten(): void {
    this.awaitedRevision = undefined
    this.#written.clear()
  }

  /** All that was written has taken effect, and survives a power cut. */
  async tookEffect(): Promise<void> {
    if (this.#written.size === 0) return
    await this.#tellWritten('before', Object.fromEntries(this.#written))
    for (const [key, mark] of this.#written) this.#inEffect.set(key, mark)
    this.#written.clear()
  }

  #tellWritten(from: 'before' | 'scratch', marks: Record<string, string>): Promise<void> {
    return this.#log.append({ kind: 'written', unit: this.#unit, mac: this.#target.unit.mac, from, marks })
  }

  /** @param told  what the unit runs, and the BSSID of each network on each radio, as far as it tells */
  async proven(
    outcomes: readonly SettingOutcome[],
    { firmware, cells }: { firmware: string | undefined; cells: Cell[] },
  ): Promise<void> {
    await this.#log.append({ kind: 'outcomes', unit: this.#unit, outcomes: [...outcomes] })
    const told = {
      by: hostname(),
      ...(firmware === undefined ? {} : { firmware }),
      ...(cells.length === 0 ? {} : { cells }),
    }
    await this.#log.append({ kind: 'proven', unit: this.#unit, asked: this.#target.asked, ...told })
  }
}
