/**
 * News from the server: one stream for a browser, however many tabs it has open. A browser keeps six connections to one
 * server at the most; a stream for each tab would leave the seventh without any.
 *
 * The tab that holds a lock reads the stream and passes on what it hears; when that tab is closed the lock, and with it
 * the stream, goes to another. Events are numbered without gaps, so a tab that has missed some asks for them.
 */
import { z } from 'zod'
import { type PlacedEvent, placedEventSchema } from '../../core/muster/events'
import { type Pulse, pulseSchema } from '../../core/muster/pulse'

const eventsSchema = z.object({ job: z.string(), events: z.array(placedEventSchema) })
const wordSchema = z.discriminatedUnion('kind', [
  /** A tab looks at a job and has its events up to a number. */
  z.object({ kind: z.literal('wants'), tab: z.string(), job: z.string(), seq: z.int() }),
  z.object({ kind: z.literal('leaves'), tab: z.string() }),
  /** A tab has begun to read the stream: who wants what? */
  z.object({ kind: z.literal('leads') }),
  z.object({ kind: z.literal('events'), ...eventsSchema.shape }),
  z.object({ kind: z.literal('pulse'), pulse: pulseSchema }),
])
type Word = z.infer<typeof wordSchema>

export interface NewsReader {
  readonly job: string
  /** Number of the newest event that this tab has. */
  readonly seq: () => number
  readonly onEvents: (events: readonly PlacedEvent[]) => void
  readonly onPulse: (pulse: Pulse) => void
  /** The server does not know this browser any more. */
  readonly onLockedOut: () => void
}

const name = 'air-muster-news'
/** The stream brings a pulse every second: one that is silent for so long is opened anew, ms. */
const silentStreamMs = 3500
const lookEveryMs = 500
/** A tab that reads for the others and passes nothing on for so long loses the stream, ms. */
const silentLeaderMs = 7000
const wantAgainMs = 10_000

/** Follows a job until it is stopped. */
export class NewsStream {
  readonly #reader: NewsReader
  readonly #tab = crypto.randomUUID()
  readonly #channel: BroadcastChannel | undefined
  readonly #stopping = new AbortController()
  readonly #wanted = new Map<string, { job: string; seq: number }>()
  /** How far the stream has brought each job. */
  readonly #brought = new Map<string, number>()
  #source: EventSource | undefined
  #heardAt = performance.now()
  #openedAt = 0
  #letGo: (() => void) | undefined

  constructor(reader: NewsReader) {
    this.#reader = reader
    const shares = typeof BroadcastChannel === 'function' && 'locks' in navigator
    this.#channel = shares ? new BroadcastChannel(name) : undefined
    this.#channel?.addEventListener('message', (message) => {
      const word = wordSchema.safeParse(message.data)
      if (word.success) this.#hear(word.data)
    })
    const looking = setInterval(() => this.#look(), lookEveryMs)
    const wanting = setInterval(() => this.want(), wantAgainMs)
    this.#stopping.signal.addEventListener('abort', () => {
      clearInterval(looking)
      clearInterval(wanting)
    })
    if (shares) this.#queue('wait')
    else this.#lead()
    this.want()
  }

  /** Asks for what this tab has not heard yet. */
  want(): void {
    this.#say({ kind: 'wants', tab: this.#tab, job: this.#reader.job, seq: this.#reader.seq() })
  }

  stop(): void {
    this.#say({ kind: 'leaves', tab: this.#tab })
    this.#stopping.abort()
    this.#stepDown()
    this.#channel?.close()
  }

  /** Waits for its turn to read the stream, or takes it from a tab that is stuck. */
  #queue(how: 'wait' | 'take'): void {
    const options = how === 'take' ? { steal: true } : { signal: this.#stopping.signal }
    navigator.locks
      .request(name, options, () => {
        if (this.#stopping.signal.aborted) return undefined
        this.#lead()
        return new Promise<void>((resolve) => {
          this.#letGo = resolve
        })
      })
      .catch(() => {
        // Another tab took it: wait for the next turn.
        this.#stepDown()
        if (!this.#stopping.signal.aborted) this.#queue('wait')
      })
  }

  #lead(): void {
    this.#letGo = () => {}
    this.#wanted.set(this.#tab, { job: this.#reader.job, seq: this.#reader.seq() })
    this.#open()
    this.#say({ kind: 'leads' })
  }

  #stepDown(): void {
    this.#source?.close()
    this.#source = undefined
    this.#letGo?.()
    this.#letGo = undefined
  }

  get #leads(): boolean {
    return this.#letGo !== undefined
  }

  /** Tells the other tabs, and this one. */
  #say(word: Word): void {
    this.#channel?.postMessage(word)
    this.#hear(word)
  }

  #hear(word: Word): void {
    switch (word.kind) {
      case 'events':
        this.#heardAt = performance.now()
        if (word.job === this.#reader.job) this.#reader.onEvents(word.events)
        return
      case 'pulse':
        this.#heardAt = performance.now()
        this.#reader.onPulse(word.pulse)
        return
      case 'leads':
        if (!this.#leads) this.want()
        return
      case 'leaves':
        this.#wanted.delete(word.tab)
        return
      case 'wants':
        this.#wanted.set(word.tab, { job: word.job, seq: word.seq })
        if (this.#leads && this.#isMissing(word.job, word.seq)) this.#open()
    }
  }

  #isMissing(job: string, seq: number): boolean {
    const brought = this.#brought.get(job)
    return brought === undefined || seq < brought
  }

  #open(): void {
    this.#source?.close()
    this.#openedAt = performance.now()
    const from = new Map<string, number>()
    for (const { job, seq } of this.#wanted.values()) from.set(job, Math.min(from.get(job) ?? seq, seq))
    this.#brought.clear()
    for (const [job, seq] of from) this.#brought.set(job, seq)
    const after = [...from].map(([job, seq]) => `${job}:${seq}`).join(',')
    const source = new EventSource(`/api/events?after=${after}`)
    source.addEventListener('events', (message) => {
      const { job, events } = eventsSchema.parse(JSON.parse(message.data))
      const last = events.at(-1)
      if (last) this.#brought.set(job, last.seq)
      for (const want of this.#wanted.values()) if (want.job === job && last) want.seq = Math.max(want.seq, last.seq)
      this.#say({ kind: 'events', job, events })
    })
    source.addEventListener('pulse', (message) =>
      this.#say({ kind: 'pulse', pulse: pulseSchema.parse(JSON.parse(message.data)) }),
    )
    this.#source = source
  }

  /** A stream that ended or is silent is opened anew; a tab that leads and is stuck is relieved. */
  #look(): void {
    const silent = performance.now() - this.#heardAt
    if (this.#leads) {
      const tried = performance.now() - this.#openedAt
      if (
        silent > silentStreamMs
          ? tried > silentStreamMs
          : this.#source?.readyState === EventSource.CLOSED && tried > 1000
      ) {
        void this.#askWhetherLockedOut()
        this.#open()
      }
    } else if (silent > silentLeaderMs && this.#channel) {
      this.#heardAt = performance.now()
      this.#queue('take')
    }
  }

  async #askWhetherLockedOut(): Promise<void> {
    try {
      const { status } = await fetch('/api/job-schema', { method: 'HEAD', cache: 'no-store' })
      if (status === 401) this.#reader.onLockedOut()
    } catch {
      // It does not answer at all, which the page says already.
    }
  }
}
