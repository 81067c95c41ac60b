/**
 * A job's events on their way to the store: kept in order, written together where they come together.
 */
import type { MusterEvent } from '../core/muster/events'
import { appendEvents, type TimedEvent } from '../store/events'
import type { Store } from '../store/open'

interface Waiting {
  readonly timed: TimedEvent
  readonly resolve: () => void
  readonly reject: (error: unknown) => void
}

export class EventLog {
  #queue: Waiting[] = []
  #fault: unknown
  #state: 'idle' | 'writing' = 'idle'

  constructor(
    private readonly store: Store,
    readonly jobId: number,
  ) {}

  /** Told in its place without waiting for the store; a store that fails is thrown by the next `append`. */
  note(event: MusterEvent): void {
    this.append(event).catch((error: unknown) => {
      this.#fault ??= error
    })
  }

  /** Resolves when the event is in the store: whoever opens a one-way door waits for that. */
  append(event: MusterEvent): Promise<void> {
    if (this.#fault !== undefined) return Promise.reject(this.#fault)
    return new Promise((resolve, reject) => {
      this.#queue.push({ timed: { at: new Date(), event }, resolve, reject })
      if (this.#state === 'idle') void this.#write()
    })
  }

  async #write(): Promise<void> {
    this.#state = 'writing'
    while (this.#queue.length > 0) {
      const batch = this.#queue
      this.#queue = []
      try {
        await appendEvents(
          this.store,
          this.jobId,
          batch.map(({ timed }) => timed),
        )
        for (const { resolve } of batch) resolve()
      } catch (error) {
        for (const { reject } of batch) reject(error)
      }
    }
    // Nothing is awaited between the empty queue and this line: an event that comes later starts anew.
    this.#state = 'idle'
  }
}
