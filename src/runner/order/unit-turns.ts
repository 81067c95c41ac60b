/** Who works on a unit now: a muster, or somebody's hands in its window. Never both. */
export class UnitTurns {
  /** By unit: who has it, each turn a value of its own. */
  readonly #turns = new Map<string, { readonly by: string }>()

  static key(jobId: number, unit: string): string {
    return `${jobId} ${unit}`
  }

  /** Who has it; undefined where nobody does. */
  of(key: string): string | undefined {
    return this.#turns.get(key)?.by
  }

  /**
   * @param by  whose hands; empty for a muster
   * @returns   the way to give the turn back; undefined where another has it
   */
  take(key: string, by: string): (() => void) | undefined {
    if (this.#turns.has(key)) return undefined
    const turn = { by }
    this.#turns.set(key, turn)
    return () => {
      if (this.#turns.get(key) === turn) this.#turns.delete(key)
    }
  }
}
