/**
 * Channels and power for every radio of a site.
 *
 * In: the country's rules, the policy, the units with their cards, locks and places, and what was heard. Out: a plan
 * for each radio, the problem that was solved for it, and the reasons where a radio has none.
 */

import { type RadioPolicy, targetDbm } from '../brief/policies'
import { type KitCard, modelName } from '../kit/kit-card'
import { type Message, message } from '../message/message'
import type { ChannelOption, ChannelProblem, ProblemRadio } from '../radio/channels/channel-problem'
import { crowdedRadios } from '../radio/channels/crowded'
import { planChannels, withBandwidth } from '../radio/channels/plan-channels'
import type { PlanFault } from '../radio/channels/plan-fault'
import { planPower, shortOf } from '../radio/channels/power'
import { radioOptions } from '../radio/channels/radio-options'
import type { RadioPlan } from '../radio/channels/radio-plan'
import { type RadioRequest, radioId, type Wanted } from '../radio/channels/radio-request'
import type { Effort } from '../radio/channels/search-effort'
import { overlapOf, type Span } from '../radio/channels/span'
import type { Site } from '../radio/propagation/floor'
import { situated } from '../radio/propagation/situation'
import type { Misfit } from '../radio/survey/fit'
import type { Band } from '../regulatory/blocks'
import type { CountryRules } from '../regulatory/database'
import { judgeChannel, type LegalBlock, legalBlocks, whyNothingIsLegal } from '../regulatory/legal'
import { hearingsOf, othersFor } from './radio-hearings'

export interface RadioPlans {
  readonly plans: ReadonlyMap<string, readonly RadioPlan[]>
  readonly problem: ChannelProblem
  readonly cost: number
  readonly faults: readonly PlanFault[]
  /** Radios of 2.4 GHz that hear too many others; where the policy says so, they are off and have no plan. */
  readonly crowded: readonly string[]
}

/**
 * The problem behind a plan: every radio with all of its options, who hears whom, and the reasons where one has none.
 */
export function channelProblemOf(
  country: CountryRules,
  policy: RadioPolicy,
  requests: readonly RadioRequest[],
  site: Site,
): {
  readonly wanted: readonly Wanted[]
  readonly problem: ChannelProblem
  readonly faults: RadioPlans['faults']
  readonly misfits: readonly Misfit[]
} {
  const legal = legalBlocks(country)
  const floors = situated(site.floors)
  const places = new Map(site.placements.map((placement) => [placement.unit, placement]))
  const faults: PlanFault[] = []
  const wanted: Wanted[] = []
  for (const request of requests) {
    const { card, locks, unit } = request
    const locked = card.does.country
    if (locked !== 'free' && locked !== country.country) {
      faults.push({
        ...message('locked-to-another-country', { model: modelName(card), locked, country: country.country }),
        unit,
      })
      continue
    }
    const floor = floors.get(places.get(unit)?.floor ?? '')
    const isOutdoors = card.environment === 'outdoor' || (floor?.environment ?? policy.environment) === 'outdoor'
    const environment = isOutdoors ? 'outdoor' : 'indoor'
    for (const { band, width } of policy.bands) {
      const radio = card.radios.find((each) => each.band === band)
      if (!radio || card.role === 'link-end') continue
      const used = policy.bands.map((each) => each.band)
      const announced = card.radios.some((each) => each.band !== '6' && used.includes(each.band))
      const demand = { radio, width, environment, lock: locks[band], use: 'area', announced } as const
      const legalHere = radioOptions(legal, policy, demand)
      const closed = (request.shut ?? []).filter((each) => each.band === band)
      const open = legalHere.filter((option) => closed.every((span) => overlapOf(option, span) === 0))
      // Where every channel is shut, the radio moves on its own to one that the law allows, and returns later.
      const options = open.length > 0 ? open : legalHere
      if (options.length > 0)
        wanted.push({
          request,
          radio,
          band,
          environment,
          options: policy.narrower === 'allowed' ? options : widest(options),
        })
      else {
        faults.push({ ...refusal(country, card, band, width, environment, locks[band]), unit })
      }
    }
  }
  const heard = policy.bands.map(({ band }) => hearingsOf(band, wanted, policy, floors, places, site))
  return {
    wanted,
    problem: {
      radios: wanted.map((each) => problemRadio(each, each.options, policy)),
      hears: heard.flatMap(({ hears }) => hears),
      others: wanted.flatMap((each) => othersFor(each, site)),
      adjacent: 'by-mask',
    },
    faults,
    misfits: heard.flatMap(({ misfit }) => misfit ?? []),
  }
}

export function planRadios(
  country: CountryRules,
  policy: RadioPolicy,
  requests: readonly RadioRequest[],
  site: Site,
  effort: Effort = 'thorough',
): RadioPlans {
  const { wanted, problem, faults } = channelProblemOf(country, policy, requests, site)
  const { hears, others } = problem
  const wide: ChannelProblem = {
    ...problem,
    radios: wanted.map((each) => problemRadio(each, widest(each.options), policy)),
  }
  let plan = planChannels(wide, effort)
  // Only a radio that is still disturbed at full width gets the choice to be narrower.
  const disturbed = policy.narrower === 'allowed' ? disturbedRadios(wide, plan.chosen) : new Set<string>()
  if (disturbed.size > 0) {
    const wideChosen = plan.chosen
    const radios = wanted.map((each) => {
      const id = radioId(each.request.unit, each.band)
      return {
        ...problemRadio(each, disturbed.has(id) ? each.options : widest(each.options), policy),
        set: wideChosen.get(id) ?? null,
      }
    })
    const narrower = planChannels({ ...problem, radios }, effort)
    if (withBandwidth(narrower) < withBandwidth(plan)) plan = narrower
  }
  // Radios that are planned narrower already are no start for the search above: whoever plans again is never worse off.
  if (policy.narrower === 'allowed' && wanted.some(isNarrow)) {
    const radios = wanted.map((each) =>
      problemRadio(each, isNarrow(each) ? each.options : widest(each.options), policy),
    )
    const kept = planChannels({ ...problem, radios }, 'quick')
    if (withBandwidth(kept) < withBandwidth(plan)) plan = kept
  }
  const crowded = crowdedRadios(problem, plan.chosen)
  if (crowded.length === 0 || policy.crowded24 === 'stay-on')
    return { plans: radioPlans(wanted, requests, plan.chosen, policy), problem, cost: plan.cost, faults, crowded }
  // Those that stay on may find better channels among themselves.
  const off = new Set(crowded)
  const stays = wanted.filter(({ request, band }) => !off.has(radioId(request.unit, band)))
  const left: ChannelProblem = {
    ...problem,
    radios: stays.map((each) => ({
      ...problemRadio(each, each.options, policy),
      set: plan.chosen.get(radioId(each.request.unit, each.band)) ?? null,
    })),
    hears: hears.filter(({ a, b }) => !off.has(a) && !off.has(b)),
    others: others.filter(({ radio }) => !off.has(radio)),
  }
  const quieter = planChannels(left, effort)
  return {
    plans: radioPlans(stays, requests, quieter.chosen, policy),
    problem: left,
    cost: quieter.cost,
    faults,
    crowded,
  }
}

/** Is it set to be narrower than it could be? */
function isNarrow({ request, band, options }: Wanted): boolean {
  const set = request.set[band]
  return set !== undefined && set.width < (options[0]?.width ?? set.width)
}

/** Half of a radio's bandwidth is given up only where that saves as much as a neighbour heard at -72 dBm costs. */
const halvingPrice = 20

function widest(options: readonly LegalBlock[]): readonly LegalBlock[] {
  return options.filter((option) => option.width === options[0]?.width)
}

/**
 * A radio with its options. Each has its price: the bandwidth that it gives up, and by how many dB it is quieter than
 * the policy wants, since its limit or the steps of the model leave no more.
 */
function problemRadio(
  { request, radio, band }: Wanted,
  options: readonly LegalBlock[],
  policy: RadioPolicy,
): ProblemRadio {
  const target = targetDbm(policy, band)
  const lock = request.locks[band]
  return {
    id: radioId(request.unit, band),
    band,
    options: options.map((option) => {
      const { channel, width, lowMhz, highMhz, radar, listenSeconds } = option
      const givenUp = halvingPrice * Math.log2((options[0]?.width ?? width) / width)
      const price = givenUp + shortOf(option, radio, target, 'area')
      return { channel, width, lowMhz, highMhz, radar, listenSeconds, price }
    }),
    locked: lock ?? null,
    set: request.set[band] ?? null,
  }
}

/** Radios that share air with somebody they hear, in a plan. */
function disturbedRadios(problem: ChannelProblem, chosen: ReadonlyMap<string, Span>): Set<string> {
  const found = new Set<string>()
  const meet = (a: Span | undefined, b: Span | undefined): boolean =>
    a !== undefined && b !== undefined && overlapOf(a, b) > 0
  for (const { a, b } of problem.hears) if (meet(chosen.get(a), chosen.get(b))) found.add(a).add(b)
  for (const other of problem.others) if (meet(chosen.get(other.radio), other)) found.add(other.radio)
  return found
}

function radioPlans(
  wanted: readonly Wanted[],
  requests: readonly RadioRequest[],
  chosen: ReadonlyMap<string, ChannelOption>,
  policy: RadioPolicy,
): Map<string, RadioPlan[]> {
  const plans = new Map<string, RadioPlan[]>(requests.map(({ unit }) => [unit, []]))
  for (const { request, radio, band, options, environment } of wanted) {
    const choice = chosen.get(radioId(request.unit, band))
    // A primary of 2.4 GHz may be paired upwards or downwards: where the block lies counts too.
    const block = options.find(
      ({ channel, width, lowMhz }) => channel === choice?.channel && width === choice.width && lowMhz === choice.lowMhz,
    )
    const power = block && planPower(block, radio, targetDbm(policy, band), 'area')
    if (!block || !power) continue
    const full = options[0]?.width ?? block.width
    plans.get(request.unit)?.push({
      band,
      channel: block.channel,
      width: block.width,
      lowMhz: block.lowMhz,
      radar: block.radar,
      listenSeconds: block.listenSeconds,
      power,
      locked: request.locks[band] !== undefined,
      environment,
      narrowedFrom: block.width < full ? full : null,
      use: 'area',
    })
  }
  return plans
}

/** Why a radio has no channel at all, by the name of the rule where a rule forbids it. */
function refusal(
  country: CountryRules,
  card: KitCard,
  band: Band,
  width: number,
  environment: 'indoor' | 'outdoor',
  lock: number | undefined,
): Message<'no-legal-channel'> {
  const judgement = lock === undefined ? undefined : judgeChannel(country, band, lock, 20)
  const forbids =
    judgement === undefined ? whyNothingIsLegal(country, band) : judgement.legal ? undefined : judgement.refusal.reason
  return message('no-legal-channel', {
    model: modelName(card),
    channel: lock === undefined ? message('width-at-most', { width }) : message('channel-by-number', { channel: lock }),
    band,
    country: country.country,
    environment,
    why: forbids ? [forbids] : [],
  })
}
