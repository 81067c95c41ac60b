import type { Site } from '../../core/radio/floor'

type Pair = Pick<Site['measured'][number], 'a' | 'b' | 'band'>

/** Is it the same two units in the same band, whoever listened? */
export function samePair(one: Pair, other: Pair): boolean {
  if (one.band !== other.band) return false
  return (one.a === other.a && one.b === other.b) || (one.a === other.b && one.b === other.a)
}
