/**
 * Which channel blocks an access point may use in a country, and which rule forbids the others.
 *
 * In: a country's rules and a block. Out: the block with its EIRP limit and conditions, or a refusal in words.
 */
import { allBlocks, type Band, type ChannelBlock } from './blocks'
import type { CountryRules, RegulatoryRule } from './database'

/** A block that is legal, with the strictest of what its 20 MHz pieces demand. */
export interface LegalBlock extends ChannelBlock {
  /** Greatest EIRP, dBm, with 0.01 precision. */
  readonly eirpDbm: number
  /** Must listen for radar first. */
  readonly radar: boolean
  readonly indoor: boolean
}

/** Why a block may not be used: a sentence, and the rule behind it where there is one. */
export interface Refusal {
  readonly reason: string
  readonly rule: RegulatoryRule | undefined
}

export type Judgement =
  | { readonly legal: true; readonly block: LegalBlock }
  | { readonly legal: false; readonly refusal: Refusal }

/** Conditions that no access point can meet, in the order in which they are named to the user. */
const forbidding: readonly { flag: 'noIr' | 'noOfdm'; words: string }[] = [
  { flag: 'noIr', words: 'nothing may start to radiate there by itself' },
  { flag: 'noOfdm', words: 'only old modulations (no OFDM) are allowed there' },
]

/** Every legal block of a country for an access point, in the order of `allBlocks`. */
export function legalBlocks(country: CountryRules): LegalBlock[] {
  return allBlocks.flatMap((block) => {
    const judgement = judge(country, block)
    return judgement.legal ? [judgement.block] : []
  })
}

/**
 * Judges one block: every 20 MHz piece must lie within one rule (the first in file order) that is wide enough
 * and that lets an access point transmit.
 */
export function judge(country: CountryRules, block: ChannelBlock): Judgement {
  const rules: RegulatoryRule[] = []
  for (let lowMhz = block.lowMhz; lowMhz < block.highMhz; lowMhz += 20) {
    const rule = ruleOfPiece(country, lowMhz)
    const refusal = refuse(country, block, lowMhz, rule)
    if (refusal) return { legal: false, refusal }
    if (rule) rules.push(rule)
  }
  return {
    legal: true,
    block: {
      ...block,
      eirpDbm: Math.min(...rules.map((rule) => rule.eirpCentiDbm)) / 100,
      radar: rules.some((rule) => rule.dfs),
      indoor: rules.some((rule) => rule.noOutdoor),
    },
  }
}

/** The same few pieces are bonded into hundreds of blocks: each is looked up once. */
const ruleByPiece = new WeakMap<CountryRules, Map<number, RegulatoryRule | undefined>>()

/** The first rule in file order that holds the 20 MHz from here on. */
function ruleOfPiece(country: CountryRules, lowMhz: number): RegulatoryRule | undefined {
  const known = ruleByPiece.get(country) ?? new Map<number, RegulatoryRule | undefined>()
  ruleByPiece.set(country, known)
  if (!known.has(lowMhz))
    known.set(
      lowMhz,
      country.rules.find((rule) => rule.startKhz <= lowMhz * 1000 && (lowMhz + 20) * 1000 <= rule.endKhz),
    )
  return known.get(lowMhz)
}

function refuse(
  country: CountryRules,
  block: ChannelBlock,
  lowMhz: number,
  rule: RegulatoryRule | undefined,
): Refusal | undefined {
  const subject = `Channel ${block.channel} at ${block.width} MHz is not legal in ${country.country}`
  if (!rule) return { reason: `${subject}: no rule covers ${lowMhz} to ${lowMhz + 20} MHz.`, rule: undefined }
  const widest = widestKhz(country.rules, rule)
  if (widest < block.width * 1000)
    return {
      reason: `${subject}: ${describeRule(rule)} lets a channel be ${widest / 1000} MHz wide at the most.`,
      rule,
    }
  const broken = forbidding.find(({ flag }) => rule[flag])
  return broken && { reason: `${subject}: by ${describeRule(rule)}, ${broken.words}.`, rule }
}

/** A rule in words: its range, as an installer would look it up. */
export function describeRule(rule: RegulatoryRule): string {
  return `the rule for ${rule.startKhz / 1000} to ${rule.endKhz / 1000} MHz`
}

/** A rule is asked for each of its channels; its run of neighbours is walked once. */
const widestByRule = new WeakMap<RegulatoryRule, number>()

/** Widest channel under a rule, kHz: its own, or with auto-bandwidth the run of all rules that touch or overlap. */
function widestKhz(rules: readonly RegulatoryRule[], rule: RegulatoryRule): number {
  if (!rule.autoBandwidth) return rule.bandwidthKhz
  const known = widestByRule.get(rule)
  if (known !== undefined) return known
  let start = rule.startKhz
  let end = rule.endKhz
  for (let grown = true; grown; ) {
    const touching = rules.filter((each) => each.startKhz <= end && each.endKhz >= start)
    const newStart = Math.min(...touching.map((each) => each.startKhz))
    const newEnd = Math.max(...touching.map((each) => each.endKhz))
    grown = newStart < start || newEnd > end
    start = newStart
    end = newEnd
  }
  const widest = Math.max(rule.bandwidthKhz, end - start)
  widestByRule.set(rule, widest)
  return widest
}

/**
 * Judges the channel that a radio is set to, where the pair above or below is not told: a width above 20 MHz at
 * 2.4 GHz is judged with its secondary channel above, else below.
 */
export function judgeChannel(country: CountryRules, band: Band, channel: number, width: number): Judgement {
  const candidates = allBlocks.filter(
    (block) => block.band === band && block.channel === channel && block.width === width,
  )
  const judgements = candidates.map((block) => judge(country, block))
  return (
    judgements.find((each) => each.legal) ??
    judgements[0] ?? {
      legal: false,
      refusal: { reason: `There is no channel ${channel} of ${width} MHz at ${band} GHz.`, rule: undefined },
    }
  )
}
