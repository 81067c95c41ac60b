/**
 * The lease of an order, kept as long as somebody works on it. While it cannot be renewed nothing more is done under
 * it: another runner may have the order by then.
 */
import type { Store } from '../store/open'
import { renewLease } from '../store/orders'
import { rest } from '../store/rest'

/** Seconds; a lease that is not renewed is another runner's after that. */
export const leaseSeconds = 4
const renewEveryMs = 1000
const lookEveryMs = 50

export interface LeaseOptions {
  readonly store: Store
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
  #confirmedAt = performance.now()

  /** Begins to renew a lease that was claimed just now. */
  constructor(options: LeaseOptions) {
    this.#options = options
    void this.#keep()
  }

  /** Waits while the lease may have run out without anybody telling. */
  async holds(): Promise<void> {
    while (
      this.wish !== 'lost' &&
      performance.now() - this.#confirmedAt > leaseSeconds * 1000 &&
      !this.#ending.signal.aborted
    ) {
      await rest(lookEveryMs, this.#ending.signal)
    }
  }

  /** Renews no more; it does not give the order back. */
  end(): void {
    this.#ending.abort()
  }

  async #keep(): Promise<void> {
    const { store, orderId, owner, onRenewed, onLost, complain } = this.#options
    const { signal } = this.#ending
    while (!signal.aborted) {
      await rest(renewEveryMs, signal)
      if (signal.aborted) return
      const sentAt = performance.now()
      try {
        this.wish = await renewLease(store, orderId, owner, leaseSeconds)
        if (this.wish === 'lost') return onLost()
        this.#confirmedAt = sentAt
        if (!signal.aborted) await onRenewed?.(this.wish)
      } catch (error) {
        if (!signal.aborted) complain(error)
      }
    }
  }
}
