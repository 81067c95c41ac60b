/** One look into the database for all browsers that follow jobs, as long as any does; and a pulse every second. */
import type { PlacedEvent } from '../../core/muster/events'
import type { Pulse } from '../../core/muster/pulse'

/** A browser: its jobs, each with the newest event that it has. */
export interface Follower {
  readonly followed: Map<string, number>
  tell(slug: string, events: readonly PlacedEvent[]): void
  pulse(pulse: Pulse): void
}

export interface NewsSource {
  newsOf(slug: string, seq: number): Promise<readonly PlacedEvent[]>
  /** How everything stands, by a database that answers or does not. It may take its time, and never fails. */
  pulse(slugs: readonly string[], database: Pulse['database']): Promise<Pulse>
  /** What a promise comes to, or `away` where it fails or takes too long. */
  orAway(looking: Promise<unknown>): Promise<Pulse['database']>
  rest(ms: number): Promise<void>
  /** ms; only differences count. */
  now(): number
}

const lookEveryMs = 200
const pulseEveryMs = 1000

export class NewsDesk {
  readonly #source: NewsSource
  readonly #followers = new Set<Follower>()
  #isOpen = false
  #pulsedAt = Number.NEGATIVE_INFINITY

  constructor(source: NewsSource) {
    this.#source = source
  }

  /** Tells a browser the news until its signal is given. */
  follow(follower: Follower, signal: AbortSignal): void {
    if (signal.aborted) return
    this.#followers.add(follower)
    signal.addEventListener('abort', () => this.#followers.delete(follower), { once: true })
    // Who has just come is not left to wait for the next pulse.
    this.#pulsedAt = Number.NEGATIVE_INFINITY
    if (!this.#isOpen) void this.#open()
  }

  async #open(): Promise<void> {
    this.#isOpen = true
    let looking: Promise<void> | undefined
    while (this.#followers.size > 0) {
      // A look that hangs is not asked a second time beside itself.
      looking ??= this.#look().finally(() => {
        looking = undefined
      })
      const database = await this.#source.orAway(looking)
      if (this.#source.now() - this.#pulsedAt > pulseEveryMs) {
        this.#pulsedAt = this.#source.now()
        const pulse = await this.#source.pulse([...this.#jobs().keys()], database)
        for (const follower of this.#followers) this.#told(follower, () => follower.pulse(partOf(pulse, follower)))
      }
      await this.#source.rest(lookEveryMs)
    }
    this.#isOpen = false
  }

  /** Every job that is followed, with the oldest number from which one of its followers asks. */
  #jobs(): Map<string, number> {
    const jobs = new Map<string, number>()
    for (const { followed } of this.#followers)
      for (const [slug, seq] of followed) jobs.set(slug, Math.min(seq, jobs.get(slug) ?? seq))
    return jobs
  }

  async #look(): Promise<void> {
    for (const [slug, oldest] of this.#jobs()) {
      const events = await this.#source.newsOf(slug, oldest)
      for (const follower of this.#followers) {
        const seq = follower.followed.get(slug)
        const fresh = seq === undefined ? [] : events.filter((event) => event.seq > seq)
        const last = fresh.at(-1)
        if (!last) continue
        follower.followed.set(slug, last.seq)
        this.#told(follower, () => follower.tell(slug, fresh))
      }
    }
  }

  /** A browser that cannot be told any more is gone: it comes back by itself, and asks from where it was. */
  #told(follower: Follower, tell: () => void): void {
    try {
      tell()
    } catch {
      this.#followers.delete(follower)
    }
  }
}

function partOf(pulse: Pulse, { followed }: Follower): Pulse {
  return { ...pulse, failed: Object.fromEntries(Object.entries(pulse.failed).filter(([slug]) => followed.has(slug))) }
}
