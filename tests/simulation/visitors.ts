/** Who is signed in to a simulated unit. */
import { lingerSeconds } from './site'
import type { Surroundings } from './unit'
import type { World } from './world'

export interface Visitor {
  usedAt: number
  /** Start of the unit that the session belongs to. */
  readonly boot: number
  /** Gone without a goodbye. */
  left: boolean
}

export class Visitors {
  readonly #all = new Set<Visitor>()

  constructor(
    private readonly world: World,
    private readonly around: Pick<Surroundings, 'ms'>,
  ) {}

  add(visitor: Visitor): void {
    this.#all.add(visitor)
  }

  delete(visitor: Visitor): void {
    this.#all.delete(visitor)
  }

  /** Power goes. */
  clear(): void {
    this.#all.clear()
  }

  /** Is anybody signed in who keeps another from signing in? */
  holdOff(besides: Visitor | undefined): boolean {
    const over = this.world.now - this.around.ms(lingerSeconds)
    for (const visitor of this.#all) if (visitor.left && visitor.usedAt < over) this.#all.delete(visitor)
    return [...this.#all].some((visitor) => visitor !== besides)
  }
}
