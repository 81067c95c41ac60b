/**
 * A job's events on their way to the store: kept in order, written together where they come together. While the store
 * is away or full they wait here; what it refuses is a fault of those events alone.
 */
import type { MusterEvent } from '../../core/muster/events'
import type { TimedEvent } from '../../store/events'
import { StoreError } from '../../store/faults'
import type { Clock } from '../ports/clock'
import type { Records } from '../ports/records'

interface Waiting {
  readonly timed: TimedEvent
  readonly resolve: () => void
  readonly reject: (error: unknown) => void
}

const tryAgainMs = 300
/** An event that nothing waits for may be stored this much later, together with those that follow. */
const gatherMs = 40

export class EventLog {
  #queue: Waiting[] = []
  #state: 'idle' | 'gathering' | 'writing' = 'idle'
  readonly #closing = new AbortController()

  /** @param complain  told of a noted event that the store refuses */
  constructor(
    private readonly records: Pick<Records, 'appendEvents'>,
    readonly jobId: number,
    private readonly clock: Clock,
    private readonly complain: (error: unknown) => void = () => {},
  ) {}

  /** Told in its place without waiting for the store. */
  note(event: MusterEvent): void {
    this.#enqueue(event).catch(this.complain)
    if (this.#state !== 'idle') return
    this.#state = 'gathering'
    void this.#gathered()
  }

  /** Resolves when the event is in the store. Wait for it before anything that cannot be undone. */
  append(event: MusterEvent): Promise<void> {
    const stored = this.#enqueue(event)
    if (this.#state !== 'writing') void this.#write()
    return stored
  }

  #enqueue(event: MusterEvent): Promise<void> {
    return new Promise((resolve, reject) => {
      this.#queue.push({ timed: { at: new Date(this.clock.wall()), event }, resolve, reject })
    })
  }

  /** Stores what was gathered, and gives up what waits for a store that is away. */
  async close(): Promise<void> {
    this.#closing.abort()
    if (this.#state === 'gathering') await this.#write()
  }

  async #gathered(): Promise<void> {
    await this.clock.rest(gatherMs)
    if (this.#state === 'gathering') await this.#write()
  }

  async #write(): Promise<void> {
    this.#state = 'writing'
    while (this.#queue.length > 0) {
      const batch = this.#queue
      this.#queue = []
      try {
        await this.#store(batch.map(({ timed }) => timed))
        for (const { resolve } of batch) resolve()
      } catch (error) {
        for (const { reject } of batch) reject(error)
      }
    }
    // Nothing is awaited between the empty queue and this line: an event that comes later starts anew.
    this.#state = 'idle'
  }

  async #store(batch: readonly TimedEvent[]): Promise<void> {
    for (let tries = 1; ; tries += 1) {
      try {
        return await this.records.appendEvents(this.jobId, batch, tries === 1 ? 'new' : 'perhaps-there')
      } catch (error) {
        const passes = error instanceof StoreError && error.kind !== 'refused'
        if (!passes || this.#closing.signal.aborted) throw error
        await this.clock.rest(tryAgainMs, this.#closing.signal)
      }
    }
  }
}
