/** How a unit's muster waits: by the wire's pace, by the time in which this laptop is awake, until it is called off. */
import type { AwakeClock, Deadline } from '../ports/awake-clock'

/** Thrown inside when the muster is called off; nothing is held by it. */
export class CalledOff extends Error {
  override readonly name = 'CalledOff'
}

/** Real milliseconds. */
const shortestPauseMs = 40
const shortestDeadlineMs = 4000

export interface WaitsInput {
  /** How many times faster than life the wire runs. */
  readonly pace: number
  readonly clock: AwakeClock
  readonly signal: AbortSignal
  /** Told after each pause. */
  readonly afterPause: () => Promise<void>
}

export class Waits {
  readonly #input: WaitsInput

  constructor(input: WaitsInput) {
    this.#input = input
  }

  get pace(): number {
    return this.#input.pace
  }

  /** Wall time at which so many of the wire's seconds will have passed, ms since 1970: to be shown, never waited by. */
  due(seconds: number): number {
    return this.#input.clock.wall() + (seconds * 1000) / this.pace
  }

  /**
   * So many of the wire's seconds from now on, in which this laptop is awake. A rehearsal makes the wire faster, not
   * the laptop: its own hesitation is not a unit's lateness.
   */
  deadline(seconds: number): Deadline {
    return this.#input.clock.deadline(Math.max(shortestDeadlineMs, (seconds * 1000) / this.pace))
  }

  /**
   * Waits so many of the wire's seconds; a fast rehearsal is not asked more often than it can answer.
   * @throws CalledOff
   */
  async pause(seconds: number): Promise<void> {
    this.#stopIfCalledOff()
    await this.#input.clock.rest(Math.max(shortestPauseMs, (seconds * 1000) / this.pace), this.#input.signal)
    this.#stopIfCalledOff()
    await this.#input.afterPause()
  }

  /**
   * Looks again and again until there is something, or time is up.
   *
   * @param look    undefined for not yet
   * @param every   the wire's seconds between two looks
   * @param within  seconds, or a deadline that somebody else may move
   * @returns       what was seen; undefined where time was up
   */
  async until<T>(
    look: () => Promise<T | undefined>,
    within: number | (() => Deadline),
    every = 2,
  ): Promise<T | undefined> {
    const own = typeof within === 'number' ? this.deadline(within) : undefined
    const isLate = (): boolean => (own ?? (within as () => Deadline)()).hasPassed()
    for (;;) {
      // A look that outlasts the wait may have missed something: it looks once more.
      const wasLate = isLate()
      const seen = await look()
      if (seen !== undefined) return seen
      if (wasLate && isLate()) return undefined
      await this.pause(every)
    }
  }

  #stopIfCalledOff(): void {
    if (this.#input.signal.aborted) throw new CalledOff()
  }
}
