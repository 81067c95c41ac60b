/**
 * Which channel blocks an access point may use in a country, and which rule forbids the others.
 *
 * In: a country's rules and a block. Out: the block with its EIRP limit and conditions, or a refusal in words.
 */
import { type Message, message } from '../message/message'
import { allBlocks, type Band, type ChannelBlock } from './blocks'
import type { Conducted, CountryRules, RegulatoryRule } from './database'
import { listenSecondsOf } from './radar-listening'

/** A block that is legal, with the strictest of what its 20 MHz pieces demand. */
export interface LegalBlock extends ChannelBlock {
  /** Greatest power, dBm, with 0.01 precision: EIRP, or conducted where `conducted` is there. */
  readonly limitDbm: number
  /** How the limit is to be read with an antenna, where it is conducted power. */
  readonly conducted?: Conducted
  /** Must listen for radar first. */
  readonly radar: boolean
  /** For so long, s; 0 where it need not. */
  readonly listenSeconds: number
  readonly indoor: boolean
  /** Greatest EIRP outdoors above 30 degrees of elevation, dBm. */
  readonly skywardDbm?: number
  /** By how much the limit is lower without transmit power control, dB. */
  readonly withoutTpcDb?: number
}

/**
 * Is it one for short-range devices, at 25 mW? Where there is no licence-exempt wireless LAN above 5725 MHz, access
 * points may be that (ETSI EN 300 440 V2.2.1, 4.2.2): far quieter than on other channels, and many clients do not look.
 */
export function isShortRange({ band, lowMhz, limitDbm }: Pick<LegalBlock, 'band' | 'lowMhz' | 'limitDbm'>): boolean {
  return band === '5' && lowMhz >= 5725 && limitDbm <= 14
}

/** Why a block may not be used: a message, and the rule behind it where there is one. */
export interface Refusal {
  readonly reason: Message
  readonly rule: RegulatoryRule | undefined
}

export type Judgement =
  | { readonly legal: true; readonly block: LegalBlock }
  | { readonly legal: false; readonly refusal: Refusal }

/** Conditions that no access point can meet, in the order in which they are named to the user. */
const forbidding: readonly { flag: 'noIr' | 'noOfdm'; why: Message }[] = [
  { flag: 'noIr', why: message('starts-not-allowed') },
  { flag: 'noOfdm', why: message('only-old-modulations') },
]

/** Every legal block of a country for an access point, in the order of `allBlocks`. */
export function legalBlocks(country: CountryRules): LegalBlock[] {
  return allBlocks.flatMap((block) => {
    const judgement = judge(country, block)
    return judgement.legal ? [judgement.block] : []
  })
}

/**
 * Judges one block: every 20 MHz piece must lie within one rule (the first in file order), or over the border of two
 * that touch, and each of them must be wide enough and let an access point transmit.
 */
export function judge(country: CountryRules, block: ChannelBlock): Judgement {
  const rules: RegulatoryRule[] = []
  for (let lowMhz = block.lowMhz; lowMhz < block.highMhz; lowMhz += 20) {
    const found = rulesOfPiece(country, lowMhz)
    const refusal = refuse(country, block, lowMhz, found)
    if (refusal) return { legal: false, refusal }
    rules.push(...found)
  }
  const least = leastOf(rules, block.width)
  return {
    legal: true,
    block: {
      ...block,
      limitDbm: least.limitDbm,
      ...(least.conducted ? { conducted: least.conducted } : {}),
      radar: rules.some((rule) => rule.dfs),
      listenSeconds: listenSecondsOf(country.dfs, block, rules),
      indoor: rules.some((rule) => rule.noOutdoor),
      ...strictest(rules),
    },
  }
}

/** What counts outdoors, and without power control, where any of the rules says so. */
function strictest(rules: readonly RegulatoryRule[]): Pick<LegalBlock, 'skywardDbm' | 'withoutTpcDb'> {
  const sky = rules.flatMap(({ skywardDbm }) => skywardDbm ?? [])
  const control = rules.flatMap(({ withoutTpcDb }) => withoutTpcDb ?? [])
  return {
    ...(sky.length > 0 ? { skywardDbm: Math.min(...sky) } : {}),
    ...(control.length > 0 ? { withoutTpcDb: Math.max(...control) } : {}),
  }
}

/** The strictest limit: with an antenna that takes nothing off, which is what a conducted limit allows for. */
function leastOf(rules: readonly RegulatoryRule[], width: number): { limitDbm: number; conducted?: Conducted } {
  const limits = rules.map((rule) => {
    const { conducted, density } = rule
    const limitDbm = density
      ? Math.min(density.mostDbm, Math.round(100 * (density.dbmPerMhz + 10 * Math.log10(width))) / 100)
      : rule.eirpCentiDbm / 100
    return { limitDbm, conducted, asEirp: limitDbm + (conducted?.upToDbi ?? 0) }
  })
  const least = limits.reduce((strictest, each) => (each.asEirp < strictest.asEirp ? each : strictest))
  return { limitDbm: least.limitDbm, ...(least.conducted ? { conducted: least.conducted } : {}) }
}

/** The same few pieces are bonded into hundreds of blocks: each is looked up once. */
const rulesByPiece = new WeakMap<CountryRules, Map<number, readonly RegulatoryRule[]>>()

/**
 * The first rule in file order that holds the 20 MHz from here on; where none does, the two that touch beneath it.
 * The Linux kernel reads such a channel so too: it looks 20 MHz below and above, and takes the stricter of each.
 */
function rulesOfPiece(country: CountryRules, lowMhz: number): readonly RegulatoryRule[] {
  const known = rulesByPiece.get(country) ?? new Map<number, readonly RegulatoryRule[]>()
  rulesByPiece.set(country, known)
  const before = known.get(lowMhz)
  if (before) return before
  const holding = (low: number): RegulatoryRule | undefined =>
    country.rules.find((rule) => rule.startKhz <= low * 1000 && (low + 20) * 1000 <= rule.endKhz)
  const one = holding(lowMhz)
  const [below, above] = one ? [] : [holding(lowMhz - 20), holding(lowMhz + 20)]
  const touch = below && above && below !== above && below.endKhz >= above.startKhz
  const found = one ? [one] : touch ? [below, above] : []
  known.set(lowMhz, found)
  return found
}

function refuse(
  country: CountryRules,
  block: ChannelBlock,
  lowMhz: number,
  rules: readonly RegulatoryRule[],
): Refusal | undefined {
  const subject = { channel: block.channel, width: block.width, country: country.country }
  if (rules.length === 0) {
    const piece = { from: lowMhz, to: lowMhz + 20 }
    return { reason: message('channel-without-rule', { ...subject, ...piece }), rule: undefined }
  }
  for (const rule of rules) {
    const widest = widestKhz(country.rules, rule)
    if (widest < block.width * 1000)
      return {
        reason: message('channel-too-wide', { ...subject, ...rangeOf(rule), widest: widest / 1000 }),
        rule,
      }
    const broken = forbidding.find(({ flag }) => rule[flag])
    if (broken) return { reason: message('channel-forbidden', { ...subject, ...rangeOf(rule), why: broken.why }), rule }
  }
  return undefined
}

/** MHz, as an installer would look it up. */
const rangeOf = ({ startKhz, endKhz }: RegulatoryRule): { from: number; to: number } => ({
  from: startKhz / 1000,
  to: endKhz / 1000,
})

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
      refusal: { reason: message('channel-does-not-exist', { channel, width, band }), rule: undefined },
    }
  )
}

/** Why no access point may use a band at all; undefined where one may. */
export function whyNothingIsLegal(country: CountryRules, band: Band): Message | undefined {
  const judgements = allBlocks
    .filter((block) => block.band === band && block.width === 20)
    .map((block) => judge(country, block))
  if (judgements.some((each) => each.legal)) return undefined
  const rules = new Set(judgements.flatMap((each) => (each.legal ? [] : (each.refusal.rule ?? []))))
  const silent = [...rules].filter((rule) => rule.noIr).map((rule) => message('range-mhz', rangeOf(rule)))
  return silent.length > 0 ? message('marked-not-to-start', { ranges: silent }) : message('no-rule-in-database')
}
