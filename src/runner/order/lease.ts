/**
 * The lease of an order, kept as long as somebody works on it. While it cannot be renewed nothing more is done under
 * it: another runner may have the order by then.
 */
import type { Clock } from '../ports/clock'
import type { Records } from '../ports/records'

/** Seconds; a lease that is not renewed is another runner's after that. */
export const leaseSeconds = 4
const renewEveryMs = 1000
const lookEveryMs = 50

export interface LeaseOptions {
  readonly records: Pick<Records, 'renewLease'>
  readonly clock: Clock
  readonly orderId: number
  readonly owner: string
  /** Told after each renewal, with what is wanted of the order. */
  readonly onRenewed?: (wish: 'go-on' | 'pause') => Promise<void>
  /** Another runner has the order. */
  readonly onLost: () => void
  /** When the order was asked for that was claimed: its lease counts from then at the latest. */
  readonly askedAt: Instant
  readonly complain: (error: unknown) => void
}

/** A moment by both clocks, ms. */
export interface Instant {
  readonly monotonic: number
  readonly wall: number
}
export const instantOf = (clock: Clock): Instant => ({ monotonic: clock.monotonic(), wall: clock.wall() })

export class Lease {
  wish: 'go-on' | 'pause' | 'lost' = 'go-on'
  readonly #options: LeaseOptions
  readonly #ending = new AbortController()
  #confirmed: Instant

  /** Begins to renew a lease that was claimed. */
  constructor(options: LeaseOptions) {
    this.#options = options
    this.#confirmed = options.askedAt
    void this.#keep()
  }

  /** Waits while the lease may have run out without anybody telling. */
  async holds(): Promise<void> {
    while (this.wish !== 'lost' && this.#mayHaveRunOut() && !this.#ending.signal.aborted) {
      await this.#options.clock.rest(lookEveryMs, this.#ending.signal)
    }
  }

  /** By either clock: one may have stood still while the laptop slept, the other may have been set. */
  #mayHaveRunOut(): boolean {
    const now = instantOf(this.#options.clock)
    const passed = Math.max(now.monotonic - this.#confirmed.monotonic, now.wall - this.#confirmed.wall)
    return passed > leaseSeconds * 1000
  }

  /** Renews no more; it does not give the order back. */
  end(): void {
    this.#ending.abort()
  }

  async #keep(): Promise<void> {
    const { records, clock, orderId, owner, onRenewed, onLost, complain } = this.#options
    const { signal } = this.#ending
    while (!signal.aborted) {
      await clock.rest(renewEveryMs, signal)
      if (signal.aborted) return
      const sentAt = instantOf(clock)
      try {
        this.wish = await records.renewLease(orderId, owner, leaseSeconds)
        if (this.wish === 'lost') return onLost()
        this.#confirmed = sentAt
        if (!signal.aborted) await onRenewed?.(this.wish)
      } catch (error) {
        if (!signal.aborted) complain(error)
      }
    }
  }
}
