/**
 * The fastest data rate that a level carries: by the least level at which a receiver must work.
 *
 * Levels: IEEE 802.11ax-2021, table 27-51 (receiver minimum input level sensitivity), 3 dB more for each doubling of
 * the width. Rates: HE, one spatial stream, guard interval 0.8 us (27.5, parameters for HE-MCSs).
 */

/** Of MCS 0 to 11 at 20 MHz, dBm. */
const leastDbm = [-82, -79, -77, -74, -70, -66, -65, -64, -59, -57, -54, -52] as const
/** Of MCS 0 to 11 at 20 MHz, Mbit/s. */
const ratesAt20 = [8.6, 17.2, 25.8, 34.4, 51.6, 68.8, 77.4, 86, 103.2, 114.7, 129, 143.4] as const
/** Data tones of a width, 234 at 20 MHz. */
const tones: Readonly<Record<number, number>> = { 20: 234, 40: 468, 80: 980, 160: 1960, 320: 3920 }

/** @returns  -1 where the slowest does not hold */
export function mcsOf(dbm: number, width: number): number {
  return leastDbm.findLastIndex((least) => dbm >= leastDbmOf(least, width))
}

/** The level from which on an MCS holds at a width, dBm. */
export function mcsFrom(mcs: number, width: number): number {
  return leastDbmOf(leastDbm[mcs] ?? Number.POSITIVE_INFINITY, width)
}

const leastDbmOf = (at20: number, width: number): number => at20 + 3 * Math.log2(width / 20)

/** Mbit/s of one stream; 0 where the slowest does not hold. */
export function rateOf(mcs: number, width: number): number {
  const at20 = ratesAt20[mcs]
  return at20 === undefined ? 0 : Math.round(10 * at20 * ((tones[width] ?? 234) / 234)) / 10
}
