/**
 * The time of a simulated muster. Nothing here waits: what is to happen later lies in a queue, and when nobody has
 * anything left to do the clock leaps to what comes next. One seed gives one order of events, however often it is run.
 */
import type { Clock } from '../../src/runner/ports/clock'

/** Wall time at which every simulation begins, ms since 1970. */
const begin = Date.UTC(2026, 0, 5, 8)

/** Who rests until a signal is given: one listener for all of them. */
const restingBySignal = new WeakMap<AbortSignal, Set<() => void>>()
function restingUntil(signal: AbortSignal): Set<() => void> {
  const known = restingBySignal.get(signal)
  if (known) return known
  const resting = new Set<() => void>()
  restingBySignal.set(signal, resting)
  signal.addEventListener('abort', () => {
    for (const over of [...resting]) over()
  })
  return resting
}

/** Turns of the microtask queue between two events. */
const turnsBetween = 6

interface Entry {
  readonly at: number
  readonly number: number
  readonly act: () => void
}

export class World {
  /** ms since the beginning. */
  now = 0
  /** How far people and time servers have moved the laptop's wall clock, ms. */
  wallShift = 0
  /** Entries that were carried out. */
  steps = 0
  readonly #queue: Entry[] = []
  #number = 0
  #random: number
  readonly story: string[] | undefined

  /** @param story  whether what happens is written down */
  constructor(seed: number, story: 'told' | 'untold') {
    this.#random = seed | 0
    this.story = story === 'told' ? [] : undefined
  }

  /** From 0 to 1, by the seed (mulberry32). */
  draw(): number {
    this.#random = (this.#random + 0x6d2b79f5) | 0
    let mixed = Math.imul(this.#random ^ (this.#random >>> 15), 1 | this.#random)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }

  /** Has something happen so many ms from now. */
  after(ms: number, act: () => void): void {
    const entry = { at: this.now + Math.max(0, ms), number: this.#number++, act }
    let place = this.#queue.length
    this.#queue.push(entry)
    while (place > 0) {
      const parent = (place - 1) >> 1
      const above = this.#queue[parent] as Entry
      if (!isEarlier(entry, above)) break
      this.#queue[place] = above
      place = parent
    }
    this.#queue[place] = entry
  }

  #next(): Entry | undefined {
    const [first] = this.#queue
    const last = this.#queue.pop()
    if (!first || !last || this.#queue.length === 0) return first
    const end = this.#queue.length
    let place = 0
    for (;;) {
      let child = 2 * place + 1
      if (child >= end) break
      if (child + 1 < end && isEarlier(this.#queue[child + 1] as Entry, this.#queue[child] as Entry)) child += 1
      if (!isEarlier(this.#queue[child] as Entry, last)) break
      this.#queue[place] = this.#queue[child] as Entry
      place = child
    }
    this.#queue[place] = last
    return first
  }

  get wall(): number {
    return begin + this.now + this.wallShift
  }

  tell(who: string, what: string): void {
    this.story?.push(`${(this.now / 1000).toFixed(3).padStart(9)} s  ${who.padEnd(9)} ${what}`)
  }

  /**
   * Leaps from one event to the next until something holds.
   * @param bound  ms from now, after which it is given up
   * @returns whether it held
   */
  async until(holds: () => boolean, bound: number): Promise<boolean> {
    const end = this.now + bound
    for (;;) {
      // Everybody who can go on does so before the next event: nothing that is simulated takes more turns than these.
      for (let turn = 0; turn < turnsBetween; turn += 1) await undefined
      if (holds()) return true
      if ((this.#queue[0]?.at ?? Number.POSITIVE_INFINITY) > end) {
        this.now = end
        return false
      }
      const entry = this.#next() as Entry
      this.now = entry.at
      this.steps += 1
      entry.act()
    }
  }
}

const isEarlier = (a: Entry, b: Entry): boolean => a.at < b.at || (a.at === b.at && a.number < b.number)

/**
 * A process of ours. One that was killed never hears an answer again; one that is frozen, or whose laptop sleeps, hears
 * all of them when it wakes up.
 */
export class Process {
  #state: 'runs' | 'frozen' | 'dead' = 'runs'
  readonly #missed: (() => void)[] = []
  /** How long the monotonic clock of its laptop has stood still in sleep, ms. */
  stoodStill = 0

  constructor(
    readonly name: string,
    readonly world: World,
  ) {}

  get isDead(): boolean {
    return this.#state === 'dead'
  }

  kill(): void {
    if (this.#state !== 'dead') this.world.tell(this.name, 'is killed')
    this.#state = 'dead'
    this.#missed.length = 0
  }

  freeze(): void {
    if (this.#state !== 'runs') return
    this.world.tell(this.name, 'stands still')
    this.#state = 'frozen'
  }

  wake(): void {
    if (this.#state !== 'frozen') return
    this.world.tell(this.name, 'goes on')
    this.#state = 'runs'
    for (const missed of this.#missed.splice(0)) missed()
  }

  /** Has the process hear of something, when it can. */
  deliver(act: () => void): void {
    if (this.#state === 'runs') act()
    else if (this.#state === 'frozen') this.#missed.push(act)
  }

  /** The laptop's clock, as this process has it. */
  get clock(): Clock {
    const { world } = this
    return {
      monotonic: () => world.now - this.stoodStill,
      wall: () => world.wall,
      rest: (ms, signal) =>
        new Promise((resolve) => {
          if (this.isDead) return
          if (signal?.aborted) return resolve()
          const over = (): void => {
            resting?.delete(over)
            this.deliver(resolve)
          }
          const resting = signal && restingUntil(signal)
          resting?.add(over)
          world.after(ms, over)
        }),
    }
  }
}
