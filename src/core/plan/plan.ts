/**
 * The plan: an address and radios for each unit, from the brief, the kit, the floors and what was planned before.
 */

import { allocate } from '../addressing/allocate'
import type { Brief } from '../brief/brief'
import { serverAddresses } from '../brief/servers'
import type { KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'
import { message } from '../message/message'
import type { ChannelChoice, ChannelProblem } from '../radio/channels/channel-problem'
import type { PlanFault } from '../radio/channels/plan-fault'
import type { RadioPlan } from '../radio/channels/radio-plan'
import type { Effort } from '../radio/channels/search-effort'
import type { ShutChannels } from '../radio/channels/shut-span'
import { planLinks } from '../radio/links/plan-links'
import { emptySite, type Site } from '../radio/propagation/floor'
import type { Band } from '../regulatory/blocks'
import type { CountryRules } from '../regulatory/database'
import { planRadios } from './plan-radios'

export interface UnitPlan {
  readonly unit: string
  readonly address: string
  readonly radios: readonly RadioPlan[]
}

export interface PlannedBefore {
  readonly address: string | undefined
  readonly addressLocked: boolean
  /** Channels that the user set. */
  readonly locks: Readonly<Partial<Record<Band, number>>>
  /** What the radios were planned on. */
  readonly set: Readonly<Partial<Record<Band, ChannelChoice>>>
}

export const plannedNothing: PlannedBefore = { address: undefined, addressLocked: false, locks: {}, set: {} }

export interface PlanInput {
  readonly brief: Brief
  readonly units: readonly Unit[]
  readonly cards: ReadonlyMap<string, KitCard>
  readonly country: CountryRules
  readonly before: ReadonlyMap<string, PlannedBefore>
  /** Addresses that answer on the wire and belong to none of the units. */
  readonly inUse?: readonly string[]
  readonly site?: Site
  readonly effort?: Effort
  /** Channels that are shut for a unit now, since it heard radar there. */
  readonly shut?: ShutChannels
}

export interface Planning {
  readonly plans: readonly UnitPlan[]
  readonly faults: readonly PlanFault[]
  /** The channel problem behind the plan, to explain it by. */
  readonly problem: ChannelProblem
  readonly cost: number
}

/** Plans every unit. A unit with a fault has no plan; the others have theirs. */
export function makePlan({
  brief,
  units,
  cards,
  country,
  before,
  inUse = [],
  site = emptySite,
  effort = 'thorough',
  shut = new Map(),
}: PlanInput): Planning {
  const known = units.flatMap((unit) => {
    const card = cards.get(unit.model)
    const { locks, set, address, addressLocked } = before.get(unit.id) ?? plannedNothing
    return card ? [{ unit: unit.id, card, locks, set, address, addressLocked, shut: shut.get(unit.id) ?? [] }] : []
  })
  // A factory address within the management subnet is anybody's who comes out of a box.
  const factory = known.flatMap(({ card }) => card.factory.address ?? [])
  const allocation = allocate(
    brief.management,
    known.map(({ unit, card, address, addressLocked }) => ({
      unit,
      reserved: address,
      locked: addressLocked,
      rank: card.role === 'controller' ? 0 : 1,
    })),
    [...inUse, ...factory, ...serverAddresses(brief)],
  )
  const { plans, faults, problem, cost } = planRadios(country, brief.radio, known, site, effort)
  const busy = [...plans.values()].flat().map(({ lowMhz, width }) => ({ lowMhz, highMhz: lowMhz + width }))
  const links = planLinks(
    country,
    brief.radio,
    site,
    (unit) => known.find((each) => each.unit === unit)?.card,
    busy,
    (unit) => shut.get(unit) ?? [],
  )
  const allFaults = [...faults, ...links.faults]
  const faulty = new Set(allFaults.map((fault) => fault.unit))
  return {
    plans: known
      .filter(({ unit }) => !faulty.has(unit) && allocation.addresses.has(unit))
      .map(({ unit }) => ({
        unit,
        address: allocation.addresses.get(unit) ?? '',
        radios: [...(plans.get(unit) ?? []), ...[links.plans.get(unit)].flatMap((plan) => plan ?? [])],
      })),
    faults: [
      ...(allocation.ok ? [] : [{ ...allocation.reason, unit: undefined }]),
      ...allFaults,
      ...lostLocks(known, allocation.addresses),
    ],
    problem,
    cost,
  }
}

/** A locked address that could not be kept is said, not swapped in silence. */
function lostLocks(
  known: readonly { unit: string; address: string | undefined; addressLocked: boolean }[],
  given: ReadonlyMap<string, string>,
): Planning['faults'] {
  return known
    .filter(({ unit, address, addressLocked }) => addressLocked && address !== undefined && given.get(unit) !== address)
    .map(({ unit, address }) => ({
      ...message('locked-address-not-free', { unit, address: address ?? '', given: given.get(unit) ?? null }),
      unit,
    }))
}
