/**
 * The lab's clock: real times multiplied by a pace, so that an hour passes in a minute at pace 60.
 *
 * Times are lab milliseconds since the lab began.
 */
export class LabClock {
  readonly #began = performance.now()
  readonly #timers = new Set<NodeJS.Timeout>()

  /** @param pace  how many times faster than life; above 0 */
  constructor(readonly pace: number) {
    if (!(pace > 0 && pace <= 1000)) throw new RangeError(`a pace is above 0 and at most 1000, not ${pace}`)
  }

  now(): number {
    return (performance.now() - this.#began) * this.pace
  }

  /** Runs something after so many lab seconds. Returns the way to call it off. */
  after(seconds: number, then: () => void): () => void {
    const timer = setTimeout(
      () => {
        this.#timers.delete(timer)
        then()
      },
      (seconds * 1000) / this.pace,
    )
    this.#timers.add(timer)
    return () => {
      clearTimeout(timer)
      this.#timers.delete(timer)
    }
  }

  stop(): void {
    for (const timer of this.#timers) clearTimeout(timer)
    this.#timers.clear()
  }
}
