/** Who is called at the roll: the units that a muster sets. What it cannot set is done by hand, and ticked there. */
import { isMustered, type KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'

export function called<U extends Pick<Unit, 'model'>>(
  units: readonly U[],
  cards: { get(model: string): KitCard | undefined },
): U[] {
  return units.filter(({ model }) => {
    const card = cards.get(model)
    // Whose card is missing is called all the same: that is mended, not done by hand.
    return card === undefined || isMustered(card)
  })
}
