/**
 * The lease of an order, kept as long as somebody works on it. While it cannot be renewed nothing more is done under
 * it: another runner may have the order by then.
 */
import type { Clock } from './ports/clock'
import type { Records } from './ports/records'

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
  readonly complain: (error: unknown) => void
}

export class Lease {
  wish: 'go-on' | 'pause' | 'lost' = 'go-on'
  readonly #options: LeaseOptions
  readonly #ending = new AbortController()
  #confirmedAt: number

  /** Begins to renew a lease that was claimed just now. */
  constructor(options: LeaseOptions) {
    this.#options = options
    this.#confirmedAt = options.clock.monotonic()
    void this.#keep()
  }

  /** Waits while the lease may have run out without anybody telling. */
  async holds(): Promise<void> {
    while (
      this.wish !== 'lost' &&
      this.#options.clock.monotonic() - this.#confirmedAt > leaseSeconds * 1000 &&
      !this.#ending.signal.aborted
    ) {
      await this.#options.clock.rest(lookEveryMs, this.#ending.signal)
    }
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
      const sentAt = clock.monotonic()
      try {
        this.wish = await records.renewLease(orderId, owner, leaseSeconds)
        if (this.wish === 'lost') return onLost()
        this.#confirmedAt = sentAt
        if (!signal.aborted) await onRenewed?.(this.wish)
      } catch (error) {
        if (!signal.aborted) complain(error)
      }
    }
  }
}
