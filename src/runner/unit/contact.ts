/**
 * How long nobody has heard of a unit. Where that is as long as it takes to start, it may have lost its power and what
 * was not saved: then it is read anew before anything else is written. A connection would break and tell; requests that
 * stand by themselves do not.
 */
import { instantOf } from '../lease'
import type { Clock } from '../ports/clock'

/** Thrown inside where a unit may have restarted unseen; nothing is held by it. */
export class MayHaveRestarted extends Error {
  override readonly name = 'MayHaveRestarted'
}

/** A rehearsal makes the wire faster, not the laptop: its own hesitation is no restart, real ms. */
const shortestStartMs = 3000

export class Contact {
  readonly #clock: Clock
  readonly #startMs: number
  #heard: ReturnType<typeof instantOf>
  #longestSilenceMs = 0

  /** @param startMs  how long it takes to start at least, as fast as the wire runs */
  constructor(clock: Clock, startMs: number) {
    this.#clock = clock
    this.#startMs = Math.max(shortestStartMs, startMs)
    this.#heard = instantOf(clock)
  }

  /** What is known of it is read from now on. */
  begins(): void {
    this.#longestSilenceMs = 0
    this.#heard = instantOf(this.#clock)
  }

  /** It is asked for something. */
  asks(): void {
    this.#longestSilenceMs = Math.max(this.#longestSilenceMs, this.#silenceMs())
  }

  /** It has answered. */
  answered(): void {
    this.#heard = instantOf(this.#clock)
  }

  /** @throws MayHaveRestarted */
  isUnbroken(): void {
    this.asks()
    if (this.#longestSilenceMs > this.#startMs)
      throw new MayHaveRestarted(
        `nobody has heard of it for ${Math.round(this.#longestSilenceMs / 1000)} s, and it may have lost its power`,
      )
  }

  /** By either clock: one may have stood still while the laptop slept, the other may have been set. */
  #silenceMs(): number {
    const now = instantOf(this.#clock)
    return Math.max(now.monotonic - this.#heard.monotonic, now.wall - this.#heard.wall)
  }
}
