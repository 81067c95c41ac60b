/**
 * What a transmitter lets out beside its channel: the transmit spectrum mask as a loss between two blocks.
 *
 * In: the block that is sent on, and one beside it. Out: by how many dB less than all of its power arrives there.
 *
 * Source: IEEE 802.11-2020, 21.3.17.1 (20 to 160 MHz): 0 dBr up to 1 MHz inside the edge, -20 dBr 1 MHz outside of it,
 * -28 dBr at one width from the centre and -40 dBr at one and a half, straight lines between them. 320 MHz is taken to
 * have the same shape.
 */
import type { Span } from './span'

interface Corner {
  readonly offsetMhz: number
  readonly dbr: number
}

function cornersOf(width: number): Corner[] {
  return [
    { offsetMhz: 0, dbr: 0 },
    { offsetMhz: width / 2 - 1, dbr: 0 },
    { offsetMhz: width / 2 + 1, dbr: -20 },
    { offsetMhz: width, dbr: -28 },
    { offsetMhz: width * 1.5, dbr: -40 },
  ]
}

/** Power between two offsets on one side of the centre, in parts of the density at the centre times MHz. */
function powerWithin(width: number, fromMhz: number, toMhz: number): number {
  const corners = cornersOf(width)
  let power = 0
  corners.slice(1).forEach((end, index) => {
    const begin = corners[index] as Corner
    const low = Math.max(fromMhz, begin.offsetMhz)
    const high = Math.min(toMhz, end.offsetMhz)
    if (high <= low) return
    const slope = (end.dbr - begin.dbr) / (end.offsetMhz - begin.offsetMhz)
    const dbrAt = (mhz: number): number => begin.dbr + slope * (mhz - begin.offsetMhz)
    // The area under a straight line of decibels: an exponential.
    const rate = (slope * Math.LN10) / 10
    power += rate === 0 ? high - low : (10 ** (dbrAt(high) / 10) - 10 ** (dbrAt(low) / 10)) / rate
  })
  return power
}

/**
 * Loss from a block into one that it does not overlap, dB.
 *
 * @returns infinite where the other begins past one and a half widths: what the mask allows there is as much on every
 *          channel, so none is better than another for it
 */
export function maskLossDb(sent: Span, into: Span): number {
  const width = sent.highMhz - sent.lowMhz
  const centre = (sent.lowMhz + sent.highMhz) / 2
  const [near, far] = into.lowMhz >= centre ? [into.lowMhz, into.highMhz] : [into.highMhz, into.lowMhz]
  const share = powerWithin(width, Math.abs(near - centre), Math.abs(far - centre))
  return -10 * Math.log10(share / (2 * powerWithin(width, 0, width * 1.5)))
}

/** Loss between two blocks that do not overlap, in the direction in which more comes through, dB. */
export function lossBetweenDb(a: Span, b: Span): number {
  return Math.min(maskLossDb(a, b), maskLossDb(b, a))
}
