/** The units that a muster sets. Others are set by hand, and looked at from outside when the roll is called. */
import { isMustered, type KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'

export function called<U extends Pick<Unit, 'model'>>(
  units: readonly U[],
  cards: { get(model: string): KitCard | undefined },
): U[] {
  return units.filter(({ model }) => {
    const card = cards.get(model)
    return card === undefined || isMustered(card)
  })
}
