/** Who works on a unit now: a muster, or somebody's hands in its window. Never both. */

export interface Turn {
  readonly kind: 'muster' | 'window'
  /** Whose window it is; empty for a muster. */
  readonly by: string
  readonly over: Promise<void>
}

export class UnitTurns {
  readonly #turns = new Map<string, Turn>()

  static key(jobId: number, unit: string): string {
    return `${jobId} ${unit}`
  }

  of(key: string): Turn | undefined {
    return this.#turns.get(key)
  }

  /** @returns the way to give the turn back; undefined where another has it */
  take(key: string, kind: Turn['kind'], by = ''): (() => void) | undefined {
    if (this.#turns.has(key)) return undefined
    let end = (): void => undefined
    const over = new Promise<void>((resolve) => {
      end = resolve
    })
    const turn: Turn = { kind, by, over }
    this.#turns.set(key, turn)
    return () => {
      if (this.#turns.get(key) !== turn) return
      this.#turns.delete(key)
      end()
    }
  }
}
