/**
 * Channels for a start: units take turns on the legal blocks of each band, so that neighbours on the list differ.
 *
 * In: the country's rules, the policy and the units with their cards and locks. Out: a radio plan for each unit, or
 * the reason why a radio has none.
 */
import type { RadioPolicy } from '../brief/brief'
import type { CardRadio, KitCard } from '../kit/kit-card'
import type { Band, Width } from '../regulatory/blocks'
import type { CountryRules } from '../regulatory/database'
import { type LegalBlock, legalBlocks } from '../regulatory/legal'
import { type PowerSum, planPower } from './power'

export interface RadioPlan {
  readonly band: Band
  readonly channel: number
  readonly width: Width
  readonly lowMhz: number
  readonly radar: boolean
  readonly power: PowerSum
  /** Chosen by the user: planning again leaves it alone. */
  readonly locked: boolean
}

export interface RadioRequest {
  readonly unit: string
  readonly card: KitCard
  /** Channel by band that the user has set. */
  readonly locks: Readonly<Partial<Record<Band, number>>>
}

export interface RadioPlans {
  readonly plans: ReadonlyMap<string, readonly RadioPlan[]>
  readonly faults: readonly { unit: string; sentence: string }[]
}

/** Three channels that do not overlap at 2.4 GHz, legal nearly everywhere. */
const apartAt24: readonly number[] = [1, 6, 11]

export function assignChannels(country: CountryRules, policy: RadioPolicy, requests: readonly RadioRequest[]): RadioPlans {
  const legal = legalBlocks(country).filter((block) => policy.place === 'indoor' || !block.indoor)
  const plans = new Map<string, RadioPlan[]>()
  const faults: { unit: string; sentence: string }[] = []
  const turn = new Map<Band, number>()

  for (const { unit, card, locks } of requests) {
    const planned: RadioPlan[] = []
    for (const { band, width, targetDbm } of policy.bands) {
      const radio = card.radios.find((each) => each.band === band)
      if (!radio) continue
      const usable = blocksFor(legal, radio, width)
      const lock = locks[band]
      const choices = lock === undefined ? preferred(usable, policy) : usable.filter((block) => block.channel === lock)
      const turns = turn.get(band) ?? 0
      const block = choices[turns % Math.max(choices.length, 1)]
      const power = block && planPower(block.eirpDbm, radio.gain, radio.steps, targetDbm)
      if (!block || !power) {
        const what = lock === undefined ? `a ${width} MHz channel` : `channel ${lock} at ${width} MHz`
        faults.push({ unit, sentence: `${card.maker} ${card.model} finds ${what} at ${band} GHz neither legal in ${country.country} nor within its own powers.` })
        continue
      }
      if (lock === undefined) turn.set(band, turns + 1)
      planned.push({ band, channel: block.channel, width: block.width, lowMhz: block.lowMhz, radar: block.radar, power, locked: lock !== undefined })
    }
    plans.set(unit, planned)
  }
  return { plans, faults }
}

/** The blocks that this radio can use, as wide as wanted or as wide as it can. */
function blocksFor(legal: readonly LegalBlock[], radio: CardRadio, width: Width): LegalBlock[] {
  const widest = Math.max(...radio.widths.filter((each) => each <= width))
  return legal.filter((block) => block.band === radio.band && block.width === widest && !radio.leftOut.includes(block.channel))
}

/** One primary for each block, the quiet ones first; radar channels only where nothing else is legal or they are welcome. */
function preferred(usable: readonly LegalBlock[], policy: RadioPolicy): LegalBlock[] {
  const apart = usable.filter((block) => block.band !== '2.4' || apartAt24.includes(block.channel))
  const firsts = apart.filter((block, index) => apart.findIndex((other) => other.lowMhz === block.lowMhz) === index)
  const free = firsts.filter((block) => !block.radar)
  return policy.radar === 'welcome' || free.length === 0 ? [...free, ...firsts.filter((block) => block.radar)] : free
}
