/**
 * A radio link between two units: what arrives at the far end, whether the way is clear, and what to mind.
 *
 * In: how far apart, how high, the block, power and antennas. Out: the expected level, the margin, the clearance.
 */
import type { Dbi, Dbm } from './power'

export interface LinkPath {
  /** From mast to mast, m. */
  readonly distanceM: number
  /** Heights of the antennas above one common ground, m. */
  readonly heightA: number
  readonly heightB: number
  /** The highest thing on the way: how far from the first mast, and how high; null where there is none. */
  readonly obstacle: { readonly distanceM: number; readonly heightM: number } | null
}

export interface LinkRadio {
  readonly centreMhz: number
  /** MHz. */
  readonly width: number
  /** Conducted, dBm, the same at both ends. */
  readonly powerDbm: Dbm
  readonly gain: Dbi
}

export interface LinkBudget {
  readonly lossDb: number
  /** At the far end, dBm. */
  readonly receivedDbm: Dbm
  /** Above the level at which the slowest rate still holds, dB. */
  readonly marginDb: number
  /** Radius of the first Fresnel zone where the obstacle stands, or half-way, m. */
  readonly fresnelM: number
  /** Clear height above the obstacle, or above ground half-way, with the bulge of the earth taken off, m. */
  readonly clearanceM: number
  /** What will arrive on a bench, with the two a pair of metres apart, dBm. */
  readonly onBenchDbm: Dbm
}

/** Above this a receiver is overloaded, dBm. */
export const tooLoudDbm = -30
/** Margin that rain, wind in the mast and ageing are given, dB. */
export const wantedMarginDb = 15
/** Part of the first Fresnel zone that must be clear (ITU-R P.530). */
export const wantedClearance = 0.6
const benchM = 2

/** Free-space loss, dB: Recommendation ITU-R P.525, L = 32.4 + 20 log10 f + 20 log10 d, f in MHz, d in km. */
export function freeSpaceLoss(mhz: number, metres: number): number {
  return 32.4 + 20 * Math.log10(mhz) + 20 * Math.log10(metres / 1000)
}

/** Radius of the first Fresnel zone, m: ITU-R P.526, 17.3 sqrt(d1 d2 / (f d)), d in km and f in GHz. */
export function fresnelRadius(mhz: number, fromA: number, distanceM: number): number {
  return 17.3 * Math.sqrt(((fromA / 1000) * ((distanceM - fromA) / 1000)) / ((mhz / 1000) * (distanceM / 1000)))
}

/** How far the earth bulges into the way, m, for a usual atmosphere (effective radius 4/3, ITU-R P.530). */
export function earthBulge(fromA: number, distanceM: number): number {
  return ((fromA / 1000) * ((distanceM - fromA) / 1000)) / 17
}

/** Level at which the slowest rate of a width still holds, dBm: noise of the bandwidth, 6 dB of the receiver, 5 dB above. */
export function faintestDbm(width: number): Dbm {
  return -174 + 10 * Math.log10(width * 1e6) + 6 + 5
}

export function linkBudget(path: LinkPath, { centreMhz, width, powerDbm, gain }: LinkRadio): LinkBudget {
  const received = (metres: number): number => powerDbm + 2 * gain - freeSpaceLoss(centreMhz, metres)
  const at = path.obstacle?.distanceM ?? path.distanceM / 2
  const line = path.heightA + ((path.heightB - path.heightA) * at) / path.distanceM
  const receivedDbm = received(path.distanceM)
  return {
    lossDb: freeSpaceLoss(centreMhz, path.distanceM),
    receivedDbm,
    marginDb: receivedDbm - faintestDbm(width),
    fresnelM: fresnelRadius(centreMhz, at, path.distanceM),
    clearanceM: line - (path.obstacle?.heightM ?? 0) - earthBulge(at, path.distanceM),
    onBenchDbm: received(benchM),
  }
}

/** What the installer should know of a link, each in a sentence; the first are what must be mended. */
export function linkRemarks(budget: LinkBudget): { readonly weight: 'mend' | 'know'; readonly sentence: string }[] {
  const round = (value: number): string => value.toFixed(1)
  const wanted = wantedClearance * budget.fresnelM
  const remarks: { weight: 'mend' | 'know'; sentence: string }[] = []
  if (budget.clearanceM < wanted)
    remarks.push({
      weight: 'mend',
      sentence: `The way is not clear: ${round(Math.max(0, budget.clearanceM))} m stand free where ${round(wanted)} m are needed (60 % of the first Fresnel zone). Raise a mast by ${round(wanted - budget.clearanceM)} m.`,
    })
  if (budget.marginDb < wantedMarginDb)
    remarks.push({
      weight: 'mend',
      sentence: `The margin is ${round(budget.marginDb)} dB and ${wantedMarginDb} dB are wanted: use a narrower channel, or larger antennas.`,
    })
  if (budget.receivedDbm > tooLoudDbm)
    remarks.push({
      weight: 'mend',
      sentence: `${round(budget.receivedDbm)} dBm arrive, and a receiver is overloaded above ${tooLoudDbm} dBm: set less power.`,
    })
  if (budget.onBenchDbm > tooLoudDbm)
    remarks.push({
      weight: 'know',
      sentence: `On the bench about ${Math.round(budget.onBenchDbm)} dBm will arrive, far too loud: there, use the least power, and let no antenna look at the other.`,
    })
  remarks.push({
    weight: 'know',
    sentence: 'The far end is changed first: the near one can still be reached when the link is down.',
  })
  return remarks
}
