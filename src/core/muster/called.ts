/** The units that a muster sets. Others are set by hand, and looked at from outside when the roll is called. */
import { isMustered, type KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'
import { answers, type Roll } from './roll'

export function called<U extends Pick<Unit, 'model'>>(
  units: readonly U[],
  cards: { get(model: string): KitCard | undefined },
): U[] {
  return units.filter(({ model }) => {
    const card = cards.get(model)
    return card === undefined || isMustered(card)
  })
}

/** How far the units of a job are. */
export interface Course {
  readonly units: number
  readonly answering: number
  /** Left to be set by hand. */
  readonly byHand: number
}
export function courseOf(units: readonly Unit[], roll: Roll, cards: Parameters<typeof called>[1]): Course {
  const answering = units.filter(({ id }) => answers(roll.rows.get(id))).length
  return { units: units.length, answering, byHand: leftToHands(units, cards, roll) }
}

/** How many of the units are still to be set by hand. */
export function leftToHands(
  units: readonly Pick<Unit, 'id' | 'model'>[],
  cards: Parameters<typeof called>[1],
  { rows }: Pick<Roll, 'rows'>,
): number {
  const silent = units.filter(({ id }) => !answers(rows.get(id)))
  return silent.length - called(silent, cards).length
}
