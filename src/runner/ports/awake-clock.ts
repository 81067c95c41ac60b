/**
 * The clock that waits are measured by: it runs only while this laptop is awake, and nobody can set it.
 *
 * A wall clock jumps when somebody sets it. A monotonic clock goes on while a lid is shut, or stands still, by system.
 * Either way a unit would be called late for time in which nobody has looked at it.
 */
import { type Clock, systemClock } from './clock'

/** A gap between two looks at the clock that is longer than this was sleep, ms. */
const longestAwakeGapMs = 3000
const lookEveryMs = 500
/** Wall and monotonic clock drift apart by less than this between two looks, ms. */
const driftMs = 2000

export class AwakeClock implements Clock {
  #awake = 0
  #disturbances = 0
  #monotonic: number
  #wall: number
  readonly #clock: Clock
  #looking: AbortController | undefined

  constructor(clock: Clock = systemClock) {
    this.#clock = clock
    this.#monotonic = clock.monotonic()
    this.#wall = clock.wall()
  }

  monotonic(): number {
    return this.#clock.monotonic()
  }

  wall(): number {
    return this.#clock.wall()
  }

  /** The wall clock's time, as what is kept has it. */
  date(): Date {
    return new Date(this.#clock.wall())
  }

  rest(ms: number, signal?: AbortSignal): Promise<void> {
    return this.#clock.rest(ms, signal)
  }

  /** Looks at the clock by itself from now on, so that a sleep shows as a gap. */
  start(): void {
    if (this.#looking) return
    this.#looking = new AbortController()
    void this.#lookOften(this.#looking.signal)
  }

  stop(): void {
    this.#looking?.abort()
    this.#looking = undefined
  }

  /** Time awake since it was made, ms. */
  now(): number {
    this.#look()
    return this.#awake
  }

  /** How often it has seen this laptop sleep, or its wall clock be set. */
  get disturbances(): number {
    this.#look()
    return this.#disturbances
  }

  /** @param ms  from now on, awake */
  deadline(ms: number): Deadline {
    const due = this.now() + ms
    return { hasPassed: () => this.now() > due, leftMs: () => Math.max(0, due - this.now()) }
  }

  async #lookOften(signal: AbortSignal): Promise<void> {
    while (!signal.aborted) {
      await this.#clock.rest(lookEveryMs, signal)
      this.#look()
    }
  }

  #look(): void {
    const monotonic = this.#clock.monotonic()
    const wall = this.#clock.wall()
    const passed = monotonic - this.#monotonic
    const slept = passed > longestAwakeGapMs
    const wasSet = Math.abs(wall - this.#wall - passed) > driftMs
    if (slept || wasSet) this.#disturbances += 1
    this.#awake += Math.min(passed, longestAwakeGapMs)
    this.#monotonic = monotonic
    this.#wall = wall
  }
}

export interface Deadline {
  hasPassed(): boolean
  leftMs(): number
}
