/**
 * Transmit power as a sum that the installer can check.
 */
import type { CardRadio } from '../../kit/card-parts'
import type { LegalBlock } from '../../regulatory/legal'

export type Dbm = number
export type Dbi = number

/** What a radio is for: clients all around, or one far end. */
export type RadioUse = 'area' | 'point-to-point'

/** Of a kit card's radio, what its power is worked out from. */
export type Antenna = Pick<CardRadio, 'gain' | 'chains' | 'steps' | 'stepsAre'>

export interface PowerSum {
  /** Limit of the channel block, dBm. */
  readonly limit: Dbm
  /** What it is a limit of. */
  readonly limitOf: 'eirp' | 'conducted'
  /** What the antenna takes off the limit, dB: all of its gain, or of a conducted limit what is above its allowance. */
  readonly off: number
  /** Antenna gain, dBi. */
  readonly gain: Dbi
  /** What the chains add up to above what is set, dB: 10 log10 n of n equal ones; 0 where a step is their total. */
  readonly chainsDb: number
  /** The radio's own greatest step, dBm. */
  readonly most: Dbm
  /** What the policy asks for, conducted, dBm. */
  readonly target: Dbm
  /** What is set: a step of the model, dBm. */
  readonly set: Dbm
}

/** n equal chains radiate n times the power: 10 log10 n, dB. */
export function chainsDb({ chains, stepsAre }: Pick<Antenna, 'chains' | 'stepsAre'>): number {
  return stepsAre === 'per-chain' ? 10 * Math.log10(chains) : 0
}

type Limit = Pick<LegalBlock, 'limitDbm' | 'conducted'>

/**
 * What an antenna takes off a limit, dB: off EIRP all of its gain, off conducted power what is above the allowance.
 * A fixed point-to-point link loses less of it where the rule says so (47 CFR 15.247(c)(1)(i), 15.407(a)(3)).
 */
export function antennaTakes({ conducted }: Limit, gain: Dbi, use: RadioUse): number {
  if (!conducted) return gain
  const { upToDbi, pointToPoint, pointToPointUpToDbi = upToDbi } = conducted
  const above = Math.max(0, gain - (use === 'area' ? upToDbi : pointToPointUpToDbi))
  if (use === 'area' || pointToPoint === 'same') return above
  return pointToPoint === 'free' ? 0 : above / 3
}

/** A step that is on the limit to a hundredth of a decibel is not above it. */
const exact = 0.005

/**
 * Highest power a radio may be set to.
 *
 * @returns  the largest step that all chains together keep within the limit, dBm; undefined where even the lowest is
 *   too loud
 */
export function highestLegalStep(limit: Limit, radio: Antenna, use: RadioUse): Dbm | undefined {
  const most = limit.limitDbm - antennaTakes(limit, radio.gain, use) - chainsDb(radio)
  return radio.steps.filter((step) => step <= most + exact).sort((a, b) => b - a)[0]
}

/**
 * Power that a radio is planned with: the step at or below the policy's target, never above the legal one.
 * Where every legal step is above the target, the lowest of them.
 *
 * @param target  of all chains together, dBm
 */
export function planPower(limit: Limit, radio: Antenna, target: Dbm, use: RadioUse): PowerSum | undefined {
  const legal = highestLegalStep(limit, radio, use)
  if (legal === undefined) return undefined
  const chains = chainsDb(radio)
  const allowed = radio.steps.filter((step) => step <= legal).sort((a, b) => b - a)
  const set = allowed.find((step) => step + chains <= target + exact) ?? allowed.at(-1) ?? legal
  return {
    limit: limit.limitDbm,
    limitOf: limit.conducted ? 'conducted' : 'eirp',
    off: antennaTakes(limit, radio.gain, use),
    gain: radio.gain,
    chainsDb: chains,
    most: Math.max(...radio.steps),
    target,
    set,
  }
}

/** What a radio radiates towards its strongest direction, EIRP, dBm. */
export function eirpOf({ set, chainsDb: chains, gain }: Pick<PowerSum, 'set' | 'chainsDb' | 'gain'>): Dbm {
  return set + chains + gain
}

/** What its chains put out together, conducted, dBm. */
export function conductedOf({ set, chainsDb: chains }: Pick<PowerSum, 'set' | 'chainsDb'>): Dbm {
  return set + chains
}

/** By how much a block is quieter than what is wanted, dB: what its limit and the steps of the model leave. */
export function shortOf(limit: Limit, radio: Antenna, target: Dbm, use: RadioUse): number {
  const legal = highestLegalStep(limit, radio, use)
  return legal === undefined ? Number.POSITIVE_INFINITY : Math.max(0, target - (legal + chainsDb(radio)))
}
