/**
 * What `npm test` holds once, and `npm run test:long` at every moment and many times over. A file with long parts is
 * run by both: each leaves out what is the other's.
 */
import { it } from 'vitest'

export const isLong = process.env.AIR_MUSTER_TESTS === 'long'

/** A test of `npm test` alone. */
export const shortIt = it.skipIf(isLong)
/** A test of `npm run test:long` alone. */
export const longIt = it.runIf(isLong)

/** How often something is tried. */
export const often = (short: number, long: number): number => (isLong ? long : short)

/** Of moments that are all of a kind, the first in `npm test`, and the others in `npm run test:long`. */
export const someOf = <T>(moments: readonly T[]): T[] => (isLong ? moments.slice(1) : moments.slice(0, 1))
