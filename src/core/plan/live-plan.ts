/**
 * A plan as it is looked at: why each radio has its channel, who hears whom, and where units stand on the air.
 *
 * In: what the plan was made of, and the plan. Out: reasons by radio, pairs that hear each other, the cost.
 */

import { type ChannelOption, type ChannelProblem, costOf, type Hearing } from '../radio/channels/channel-problem'
import { crowdedRadios } from '../radio/channels/crowded'
import { explainRadios, type RadioReason } from '../radio/channels/explain'
import { conductedOf } from '../radio/channels/power'
import { radioId } from '../radio/channels/radio-request'
import { coverage, wantedDbm } from '../radio/coverage/coverage'
import { emptySite, type Site } from '../radio/propagation/floor'
import type { PlacedRadio } from '../radio/propagation/levels'
import { situated } from '../radio/propagation/situation'
import type { Misfit } from '../radio/survey/fit'
import type { Band } from '../regulatory/blocks'
import { makePlan, type PlanInput, type Planning, plannedNothing, type UnitPlan } from './plan'
import { channelProblemOf } from './plan-radios'
import { fitInUse } from './radio-hearings'

export interface Crowded {
  readonly units: readonly string[]
  /** Share of the floors on which the wanted level is heard at 2.4 GHz, 0 to 1. */
  readonly coveredNow: number
  readonly coveredWithout: number
}

export interface LivePlan {
  readonly plans: readonly UnitPlan[]
  readonly faults: Planning['faults']
  readonly reasons: ReadonlyMap<string, RadioReason>
  readonly hears: readonly Hearing[]
  readonly cost: number
  /** Units whose radio at 2.4 GHz hears too many others, and what switching them off would do; none where none does. */
  readonly crowded: Crowded | undefined
  /** What measuring says of the model, by band. */
  readonly misfits: readonly Misfit[]
}

/** Plans anew and explains it. */
export function planLive(input: PlanInput): LivePlan {
  const { plans, faults } = makePlan(input)
  return { ...explainPlan(input, plans), faults }
}

/** Explains a plan that is there. */
export function explainPlan(
  { brief, units, cards, country, before, site = emptySite, shut = new Map() }: PlanInput,
  plans: readonly UnitPlan[],
): LivePlan {
  const requests = units.flatMap((unit) => {
    const card = cards.get(unit.model)
    const { locks } = before.get(unit.id) ?? plannedNothing
    return card ? [{ unit: unit.id, card, locks, set: {}, shut: shut.get(unit.id) ?? [] }] : []
  })
  const { problem, faults, misfits } = channelProblemOf(country, brief.radio, requests, site)
  const chosen = new Map<string, ChannelOption>(
    plans.flatMap(({ unit, radios }) =>
      radios.map(
        ({ band, channel, width, lowMhz, radar, listenSeconds }) =>
          [
            radioId(unit, band),
            { channel, width, lowMhz, highMhz: lowMhz + width, radar, listenSeconds, price: 0 },
          ] as const,
      ),
    ),
  )
  return {
    plans,
    faults,
    reasons: explainRadios(problem, chosen),
    hears: problem.hears,
    cost: costOf(problem, chosen),
    crowded: crowdedOf(problem, chosen, site, plans, misfits),
    misfits,
  }
}

/** Radios of one band where they hang, as loud as they are planned. */
export function radiosOnAir(band: Band, site: Site, plans: ReadonlyMap<string, UnitPlan>): PlacedRadio[] {
  const floors = situated(site.floors)
  return site.placements.flatMap(({ unit, floor: floorId, x, y }): PlacedRadio[] => {
    const floor = floors.get(floorId)
    const radio = plans.get(unit)?.radios.find((each) => each.band === band)
    if (!floor || !radio) return []
    const { lowMhz, width, power } = radio
    const centreMhz = lowMhz + width / 2
    return [{ id: unit, floor, x, y, powerDbm: conductedOf(power), gain: power.gain, centreMhz }]
  })
}

/** The step at which floors are looked at, m. */
const stepM = 2

function crowdedOf(
  problem: ChannelProblem,
  chosen: ReadonlyMap<string, ChannelOption>,
  site: Site,
  plans: readonly UnitPlan[],
  misfits: readonly Misfit[],
): Crowded | undefined {
  const off = new Set(crowdedRadios(problem, chosen))
  if (off.size === 0) return undefined
  const units = plans.flatMap(({ unit }) => (off.has(radioId(unit, '2.4')) ? [unit] : []))
  const radios = radiosOnAir('2.4', site, new Map(plans.map((plan) => [plan.unit, plan])))
  const floors = [...situated(site.floors).values()]
  const fit = fitInUse(site, misfits, '2.4')
  const covered = (on: readonly PlacedRadio[]): number => {
    const levels = floors.flatMap((floor) => [...coverage('2.4', floor, on, stepM, fit).dbm])
    return levels.length === 0 ? 0 : levels.filter((dbm) => dbm >= wantedDbm).length / levels.length
  }
  return {
    units,
    coveredNow: covered(radios),
    coveredWithout: covered(radios.filter(({ id }) => !units.includes(id))),
  }
}
