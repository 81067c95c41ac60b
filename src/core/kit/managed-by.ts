/** Which controller sets which unit: the first of the kit list that the unit's card names. */
import { isManaged, type KitCard } from './kit-card'
import type { Unit } from './unit'

type Cards = ReadonlyMap<string, KitCard>

/** The controller of a unit; undefined where it is set by itself, or where the kit list has none for it. */
export function controllerOf(unit: Unit, units: readonly Unit[], cards: Cards): Unit | undefined {
  const card = cards.get(unit.model)
  if (!card || !isManaged(card)) return undefined
  const { by } = card.dialect
  return units.find(({ model }) => by.includes(model))
}

/** Units that are set through this one. */
export function managedBy(controller: Unit, units: readonly Unit[], cards: Cards): Unit[] {
  return units.filter((unit) => controllerOf(unit, units, cards) === controller)
}
