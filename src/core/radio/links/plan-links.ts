/**
 * Channels and power for radio links: all ends that hear each other on one block, outdoors, as quiet as the site leaves
 * it.
 *
 * In: the country, the policy, the links and their units with cards. Out: a radio plan for each end.
 */

import type { RadioPolicy } from '../../brief/policies'
import { type KitCard, modelName } from '../../kit/kit-card'
import { message } from '../../message/message'
import { blockOf, type Width } from '../../regulatory/blocks'
import type { CountryRules } from '../../regulatory/database'
import { type LegalBlock, legalBlocks } from '../../regulatory/legal'
import { weightOf } from '../channels/channel-problem'
import type { PlanFault } from '../channels/plan-fault'
import { chainsDb, highestLegalStep, planPower, type RadioUse } from '../channels/power'
import { radioOptions } from '../channels/radio-options'
import type { RadioPlan } from '../channels/radio-plan'
import { overlapOf, type Span } from '../channels/span'
import type { Link, Site } from '../propagation/floor'
import { freeSpaceLoss } from './link'

export interface LinkPlans {
  readonly plans: ReadonlyMap<string, RadioPlan>
  readonly faults: readonly PlanFault[]
}

/** Level that is aimed at, dBm: the fastest rates hold, and nothing is overloaded. */
const wantedDbm = -45

type Radio = KitCard['radios'][number]
/** An access end with all of its stations. */
interface Hub {
  readonly unit: string
  readonly links: readonly [Link, ...Link[]]
}

/**
 * @param busy  blocks that access points of the site use: a link stays off them where it can
 * @param shut  blocks that a unit may not use now, since it heard radar there
 */
export function planLinks(
  country: CountryRules,
  policy: RadioPolicy,
  site: Site,
  cardOf: (unit: string) => KitCard | undefined,
  busy: readonly Span[],
  shut: (unit: string) => readonly Span[] = () => [],
): LinkPlans {
  const plans = new Map<string, RadioPlan>()
  const faults: PlanFault[] = []
  const legal = legalBlocks(country)
  const taken: Span[] = [...busy]
  const heard = site.heard.flatMap((each) => {
    const block = blockOf(each.band, each.channel, each.width, each.secondary)
    return block ? [{ lowMhz: block.lowMhz, highMhz: block.highMhz, weight: weightOf(each.dbm) }] : []
  })
  for (const hub of hubsOf(site.links)) {
    const card = cardOf(hub.unit)
    if (!card) continue
    const fault = faultOf(hub, card, cardOf)
    if (fault) {
      faults.push(fault)
      continue
    }
    const [{ width }] = hub.links
    const channel = hub.links.find((link) => link.channel !== null)?.channel ?? undefined
    const radio = card.radios[0]
    const closed = [hub.unit, ...hub.links.map(({ b }) => b)].flatMap(shut)
    const options = radio
      ? radioOptions(legal, policy, {
          radio,
          width: width as Width,
          environment: 'outdoor',
          lock: channel,
          use: radioUseOf(hub),
        }).filter((block) => block.width === width && closed.every((span) => overlapOf(block, span) === 0))
      : []
    const price = (block: Span): number =>
      heard.reduce((sum, each) => sum + overlapOf(block, each) * each.weight, 0) +
      taken.reduce((sum, each) => sum + 10 * overlapOf(block, each), 0)
    const block = options.toSorted(
      (a, b) => price(a) - price(b) || a.listenSeconds - b.listenSeconds || b.limitDbm - a.limitDbm,
    )[0]
    const ends = radio && block && planEnds(block, radio, hub)
    if (!block || !ends) {
      faults.push({
        ...message('no-legal-link-channel', {
          width,
          country: country.country,
          model: modelName(card),
          channel: channel ?? null,
        }),
        unit: hub.unit,
      })
      continue
    }
    taken.push(block)
    for (const [unit, plan] of ends) plans.set(unit, plan)
  }
  return { plans, faults }
}

/**
 * Links that have their access end in common are one hub: it has one radio, so all of its stations have its channel.
 */
function hubsOf(links: readonly Link[]): Hub[] {
  const hubs = new Map<string, [Link, ...Link[]]>()
  for (const link of links) {
    const known = hubs.get(link.a)
    if (known) known.push(link)
    else hubs.set(link.a, [link])
  }
  return [...hubs].map(([unit, own]) => ({ unit, links: own }))
}

function faultOf(
  { unit, links }: Hub,
  card: KitCard,
  cardOf: (unit: string) => KitCard | undefined,
): PlanFault | undefined {
  for (const { b } of links) {
    const other = cardOf(b)
    if (other && modelName(card) !== modelName(other))
      return {
        unit,
        ...message('link-of-two-models', { unit, other: b, model: modelName(card), otherModel: modelName(other) }),
      }
  }
  const different = (of: readonly (number | null)[]): number[] => [...new Set(of.flatMap((each) => each ?? []))]
  const widths = different(links.map(({ width }) => width))
  const channels = different(links.map(({ channel }) => channel))
  if (widths.length > 1 || channels.length > 1)
    return {
      ...(widths.length > 1
        ? message('hub-of-two-widths', { unit, stations: links.length, widths })
        : message('hub-of-two-channels', { unit, stations: links.length, channels })),
      unit,
    }
  return undefined
}

/**
 * Several stations with one hub are no fixed pair, and have the power of any radio: point-to-multipoint systems are
 * excluded from what a fixed link may do (47 CFR 15.407(a)(3), 15.247(c)(1)(iii)).
 */
function radioUseOf({ links }: Hub): RadioUse {
  return links.length > 1 ? 'area' : 'point-to-point'
}

/** Each station as loud as its distance wants; the hub as loud as its farthest one. */
function planEnds(block: LegalBlock, radio: Radio, hub: Hub): Map<string, RadioPlan> | undefined {
  const { unit, links } = hub
  const ends = new Map<string, RadioPlan>()
  const farthest = Math.max(...links.map(({ distanceM }) => distanceM))
  const isLocked = links.some(({ channel }) => channel !== null)
  for (const [end, distanceM] of [
    [unit, farthest] as const,
    ...links.map((link) => [link.b, link.distanceM] as const),
  ]) {
    const plan = planEnd(block, radio, radioUseOf(hub), distanceM, isLocked)
    if (!plan) return undefined
    ends.set(end, plan)
  }
  return ends
}

function planEnd(
  block: LegalBlock,
  radio: Radio,
  use: RadioUse,
  distanceM: number,
  locked: boolean,
): RadioPlan | undefined {
  const most = highestLegalStep(block, radio, use)
  if (most === undefined) return undefined
  // As much as brings the wanted level, and no more: louder only disturbs others.
  const target = Math.min(
    most + chainsDb(radio),
    wantedDbm + freeSpaceLoss((block.lowMhz + block.highMhz) / 2, distanceM) - 2 * radio.gain,
  )
  const power = planPower(block, radio, Math.max(target, Math.min(...radio.steps) + chainsDb(radio)), use)
  if (!power) return undefined
  return {
    band: radio.band,
    channel: block.channel,
    width: block.width,
    lowMhz: block.lowMhz,
    radar: block.radar,
    listenSeconds: block.listenSeconds,
    power: { ...power, target: Math.round(target * 10) / 10 },
    locked,
    environment: 'outdoor',
    narrowedFrom: null,
    use,
  }
}
