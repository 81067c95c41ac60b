import { type Step, type SteppedCard, steps, stepsFor } from '../../core/muster/procedure'

/** Steps that any unit of the kit goes through: the others have no column. */
export function shownSteps(cards: Iterable<SteppedCard | undefined>): Step[] {
  const needed = new Set([...cards].flatMap((card) => (card ? stepsFor(card) : [])))
  return steps.filter((step) => needed.has(step))
}
