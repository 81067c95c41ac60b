/**
 * The plan: an address and radios for each unit, from the brief, the kit and what was planned before.
 */
import { allocate } from '../addressing/allocate'
import type { Brief } from '../brief/brief'
import type { KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'
import { assignChannels, type RadioPlan } from '../radio/assign-channels'
import type { Band } from '../regulatory/blocks'
import type { CountryRules } from '../regulatory/database'

export interface UnitPlan {
  readonly unit: string
  readonly address: string
  readonly radios: readonly RadioPlan[]
}

export interface PlannedBefore {
  readonly address: string | undefined
  readonly locks: Readonly<Partial<Record<Band, number>>>
}

export interface Planning {
  readonly plans: readonly UnitPlan[]
  readonly faults: readonly { unit: string | undefined; sentence: string }[]
}

/**
 * Plans every unit. A unit with a fault has no plan; the others have theirs.
 *
 * @param inUse  addresses that answer on the wire and belong to none of the units
 */
export function makePlan(
  brief: Brief,
  units: readonly Unit[],
  cards: ReadonlyMap<string, KitCard>,
  country: CountryRules,
  before: ReadonlyMap<string, PlannedBefore>,
  inUse: readonly string[] = [],
): Planning {
  const allocation = allocate(
    brief.management,
    units.map((unit) => ({ unit: unit.id, held: before.get(unit.id)?.address })),
    inUse,
  )
  if (!allocation.ok) return { plans: [], faults: [{ unit: undefined, sentence: allocation.reason }] }
  const requests = units.flatMap((unit) => {
    const card = cards.get(unit.model)
    return card ? [{ unit: unit.id, card, locks: before.get(unit.id)?.locks ?? {} }] : []
  })
  const { plans, faults } = assignChannels(country, brief.radio, requests)
  const faulty = new Set(faults.map((fault) => fault.unit))
  return {
    plans: requests.filter(({ unit }) => !faulty.has(unit)).map(({ unit }) => ({ unit, address: allocation.addresses.get(unit) ?? '', radios: plans.get(unit) ?? [] })),
    faults,
  }
}
