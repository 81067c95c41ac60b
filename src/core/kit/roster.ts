/**
 * Checks of the kit list: what one row alone cannot know.
 *
 * In: the units and the cards by model. Out: faults, each with its unit, its column and a sentence.
 */
import type { KitCard } from './kit-card'
import type { Unit } from './unit'

export interface RosterFault {
  readonly unit: string
  readonly field: 'name' | 'mac' | 'serial' | 'port' | 'model'
  readonly sentence: string
}

const unique: readonly { field: 'name' | 'mac' | 'serial' | 'port'; words: string }[] = [
  { field: 'name', words: 'name' },
  { field: 'mac', words: 'MAC' },
  { field: 'serial', words: 'serial number' },
  { field: 'port', words: 'switch port' },
]

export function reviewRoster(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): RosterFault[] {
  const faults: RosterFault[] = []
  for (const { field, words } of unique) {
    const seen = new Map<string, Unit>()
    for (const unit of units) {
      const value = String(unit[field] ?? '').toLowerCase()
      if (value === '') continue
      const first = seen.get(value)
      if (first) faults.push({ unit: unit.id, field, sentence: `${unit.name} has the same ${words} as ${first.name}: ${unit[field]}.` })
      else seen.set(value, unit)
    }
  }
  for (const unit of units) {
    const card = cards.get(unit.model)
    if (!card) faults.push({ unit: unit.id, field: 'model', sentence: `There is no kit card for "${unit.model}".` })
    else if (!new RegExp(card.limits.namePattern).test(unit.name))
      faults.push({ unit: unit.id, field: 'name', sentence: `${unit.model} does not take the name "${unit.name}": small letters, digits and dashes only.` })
  }
  return faults
}
