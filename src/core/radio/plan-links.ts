/**
 * Channels and power for radio links: both ends on one block, outdoors, as quiet as the site leaves it.
 *
 * In: the country, the policy, the links and their units with cards. Out: a radio plan for each end.
 */
import type { RadioPolicy } from '../brief/policies'
import { type KitCard, modelName } from '../kit/kit-card'
import { blockOf, type Width } from '../regulatory/blocks'
import type { CountryRules } from '../regulatory/database'
import { type LegalBlock, legalBlocks } from '../regulatory/legal'
import { overlapOf, type Span, weightOf } from './channel-problem'
import type { Link, Site } from './floor'
import { freeSpaceLoss } from './link'
import type { PlanFault } from './plan-fault'
import { chainsDb, highestLegalStep, planPower } from './power'
import { radioOptions } from './radio-options'
import type { RadioPlan } from './radio-plan'

export interface LinkPlans {
  readonly plans: ReadonlyMap<string, RadioPlan>
  readonly faults: readonly PlanFault[]
}

/** Level that is aimed at, dBm: the fastest rates hold, and nothing is overloaded. */
const wantedDbm = -45

/** @param busy blocks that access points of the site use: a link stays off them where it can */
export function planLinks(
  country: CountryRules,
  policy: RadioPolicy,
  site: Site,
  cardOf: (unit: string) => KitCard | undefined,
  busy: readonly Span[],
): LinkPlans {
  const plans = new Map<string, RadioPlan>()
  const faults: PlanFault[] = []
  const legal = legalBlocks(country)
  const taken: Span[] = [...busy]
  const heard = site.heard.flatMap((each) => {
    const block = blockOf(each.band, each.channel, each.width)
    return block ? [{ lowMhz: block.lowMhz, highMhz: block.highMhz, weight: weightOf(each.dbm) }] : []
  })
  for (const link of site.links) {
    const [card, other] = [cardOf(link.a), cardOf(link.b)]
    if (!card || !other) continue
    if (modelName(card) !== modelName(other)) {
      faults.push({
        code: 'link-of-two-models',
        unit: link.a,
        sentence: `${link.a} and ${link.b} are of two models, ${modelName(card)} and ${modelName(other)}: both ends of a link are the same.`,
      })
      continue
    }
    const radio = card.radios[0]
    const options = radio
      ? radioOptions(legal, policy, {
          radio,
          width: link.width as Width,
          environment: 'outdoor',
          lock: link.channel ?? undefined,
          use: 'point-to-point',
        }).filter((block) => block.width === link.width)
      : []
    const price = (block: Span): number =>
      heard.reduce((sum, each) => sum + overlapOf(block, each) * each.weight, 0) +
      taken.reduce((sum, each) => sum + 10 * overlapOf(block, each), 0)
    const block = options.toSorted(
      (a, b) => price(a) - price(b) || a.listenSeconds - b.listenSeconds || b.limitDbm - a.limitDbm,
    )[0]
    const plan = radio && block && planEnd(block, radio, link)
    if (!radio || !block || !plan) {
      faults.push({
        code: 'no-legal-link-channel',
        unit: link.a,
        sentence: `No ${link.width} MHz channel is legal outdoors in ${country.country} for ${modelName(card)}${link.channel === null ? '' : ` on ${link.channel}`}: use another width.`,
      })
      continue
    }
    taken.push(block)
    plans.set(link.a, plan).set(link.b, plan)
  }
  return { plans, faults }
}

function planEnd(block: LegalBlock, radio: KitCard['radios'][number], link: Link): RadioPlan | undefined {
  const most = highestLegalStep(block, radio, 'point-to-point')
  if (most === undefined) return undefined
  // As much as brings the wanted level, and no more: louder only disturbs others.
  const target = Math.min(
    most + chainsDb(radio),
    wantedDbm + freeSpaceLoss((block.lowMhz + block.highMhz) / 2, link.distanceM) - 2 * radio.gain,
  )
  const power = planPower(block, radio, Math.max(target, Math.min(...radio.steps) + chainsDb(radio)), 'point-to-point')
  if (!power) return undefined
  return {
    band: radio.band,
    channel: block.channel,
    width: block.width,
    lowMhz: block.lowMhz,
    radar: block.radar,
    listenSeconds: block.listenSeconds,
    power: { ...power, target: Math.round(target * 10) / 10 },
    locked: link.channel !== null,
    environment: 'outdoor',
    narrowedFrom: null,
  }
}
