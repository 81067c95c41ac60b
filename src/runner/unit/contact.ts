/**
 * How long a unit has not been heard. Where that is as long as it takes to start, it may have lost its power and what
 * was not saved: then it is read anew before anything else is written. A connection would break and tell; requests that
 * stand by themselves do not.
 */

import { message } from '../../core/message/message'
import { ToldError } from '../../core/message/told-error'
import { instantOf } from '../order/lease'
import type { AwakeClock } from '../ports/awake-clock'

/** Thrown inside where a unit may have restarted unseen; nothing is held by it. */
export class MayHaveRestarted extends ToldError {
  override readonly name = 'MayHaveRestarted'
}

/** A rehearsal makes the wire faster, not the laptop: its own hesitation is no restart, real ms. */
const shortestStartMs = 3000

type ContactClock = Pick<AwakeClock, 'monotonic' | 'wall' | 'rest' | 'disturbances'>

export class Contact {
  readonly #clock: ContactClock
  readonly #startMs: number
  #heard: ReturnType<typeof instantOf>
  #longestSilenceMs = 0
  /** Told something after which it may go away for a while, and come back with all that it was given. */
  #isSent = false
  /** How often the laptop had slept when it was asked last. */
  #sleptBefore: number

  /** @param startMs  how long it takes to start at least, as fast as the wire runs */
  constructor(clock: ContactClock, startMs: number) {
    this.#clock = clock
    this.#startMs = Math.max(shortestStartMs, startMs)
    this.#heard = instantOf(clock)
    this.#sleptBefore = clock.disturbances
  }

  /** What is known of it is read from now on. */
  begins(): void {
    this.#longestSilenceMs = 0
    this.#isSent = false
    this.#heard = instantOf(this.#clock)
  }

  /** It is told to move, or to let changes take effect: its silence afterwards is expected. */
  sends(): void {
    this.#isSent = true
  }

  /** It is found again. @throws MayHaveRestarted where nothing was told to it that it would go away for */
  isBack(): void {
    if (!this.#isSent) this.isUnbroken()
  }

  /** It is asked for something. */
  asks(): void {
    this.#longestSilenceMs = Math.max(this.#longestSilenceMs, this.#silenceMs())
    this.#sleptBefore = this.#clock.disturbances
  }

  /** It has answered. Where the laptop slept since it asked, nobody knows when: the answer may be from before. */
  answered(): void {
    if (this.#clock.disturbances === this.#sleptBefore) this.#heard = instantOf(this.#clock)
  }

  /** @throws MayHaveRestarted */
  isUnbroken(): void {
    this.asks()
    if (this.#longestSilenceMs > this.#startMs)
      throw new MayHaveRestarted(message('not-heard-for', { seconds: Math.round(this.#longestSilenceMs / 1000) }))
  }

  /** By either clock: one may have stood still while the laptop slept, the other may have been set. */
  #silenceMs(): number {
    const now = instantOf(this.#clock)
    return Math.max(now.monotonic - this.#heard.monotonic, now.wall - this.#heard.wall)
  }
}
