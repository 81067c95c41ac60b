/**
 * The clock that waits are measured by: it runs only while this laptop is awake, and nobody can set it.
 *
 * A wall clock jumps when somebody sets it. A monotonic clock goes on while a lid is shut, or stands still, by system.
 * Either way a unit would be called late for time in which nobody has looked at it.
 */
export interface ClockSources {
  /** ms, never set, never going back. */
  readonly monotonic: () => number
  /** ms since 1970. */
  readonly wall: () => number
}

/** A gap between two looks at the clock that is longer than this was sleep, ms. */
const longestAwakeGapMs = 3000
const lookEveryMs = 500
/** Wall and monotonic clock drift apart by less than this between two looks, ms. */
const driftMs = 2000

const system: ClockSources = { monotonic: () => performance.now(), wall: () => Date.now() }

export class AwakeClock {
  #awake = 0
  #disturbances = 0
  #monotonic: number
  #wall: number
  readonly #sources: ClockSources
  #looking: NodeJS.Timeout | undefined

  constructor(sources: ClockSources = system) {
    this.#sources = sources
    this.#monotonic = sources.monotonic()
    this.#wall = sources.wall()
  }

  /** Looks at the clock by itself from now on, so that a sleep shows as a gap. */
  start(): void {
    this.#looking ??= setInterval(() => this.#look(), lookEveryMs).unref()
  }

  stop(): void {
    clearInterval(this.#looking)
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

  #look(): void {
    const monotonic = this.#sources.monotonic()
    const wall = this.#sources.wall()
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
