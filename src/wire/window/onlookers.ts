/** Those who look at a window: what is told goes to all of them, and whoever comes later is told how it stands. */
import type { Told } from '../../core/showing/window-talk'

export interface Onlooker {
  /** @returns once it can take another: pictures come as fast as the slowest takes them */
  picture(jpeg: Buffer): Promise<void> | void
  told(told: Told): void
}

/** What somebody who begins to look has to be told. */
const stays: ReadonlySet<Told['kind']> = new Set(['at', 'terminal', 'failed', 'moved', 'shown', 'acting-for'])

export class Onlookers {
  readonly #all = new Set<Onlooker>()
  readonly #standing = new Map<string, Told>()
  #lastPicture: Buffer | undefined

  /** @param first  told before anything else of what comes from now on @returns the way to look no more */
  add(onlooker: Onlooker, first: readonly Told[] = []): () => void {
    this.#all.add(onlooker)
    for (const told of [...this.#standing.values(), ...first]) onlooker.told(told)
    if (this.#lastPicture) void onlooker.picture(this.#lastPicture)
    return () => this.#all.delete(onlooker)
  }

  isStanding(told: Told): boolean {
    return JSON.stringify(told) === JSON.stringify(this.#standing.get(told.kind))
  }

  tell(told: Told): void {
    if (told.kind === 'at') this.#standing.delete('failed')
    if (stays.has(told.kind)) this.#standing.set(told.kind, told)
    if ('question' in told) {
      if (told.kind === 'settled') this.#standing.delete(`${told.question}`)
      else this.#standing.set(`${told.question}`, told)
    }
    for (const onlooker of this.#all) onlooker.told(told)
  }

  /** @returns once all of them can take another */
  async show(jpeg: Buffer): Promise<void> {
    this.#lastPicture = jpeg
    await Promise.all([...this.#all].map((onlooker) => onlooker.picture(jpeg)))
  }

  clear(): void {
    this.#all.clear()
  }
}
