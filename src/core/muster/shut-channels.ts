/**
 * Channels that a unit may not use for a while, since it heard radar there: what is planned meanwhile stays off them.
 */
import type { ShutChannels, ShutSpan } from '../radio/channels/shut-span'
import { bands, blockOf } from '../regulatory/blocks'
import { type HeardRadar, shutUntil } from './radar-move'
import type { Roll } from './roll'

/** @param now  ms since 1970 */
export function shutChannels({ rows, laptop }: Pick<Roll, 'rows' | 'laptop'>, now: number): ShutChannels {
  const pace = laptop?.pace ?? 1
  return new Map(
    [...rows].flatMap(([unit, row]) => {
      const spans = row.radar.flatMap((each) => (shutUntil(each, pace) > now ? spanOf(each) : []))
      return spans.length > 0 ? [[unit, spans] as const] : []
    }),
  )
}

function spanOf({ band, from, width }: HeardRadar): ShutSpan[] {
  const known = bands.find((each) => each === band)
  const block = known && blockOf(known, from, width)
  return block ? [{ band: block.band, lowMhz: block.lowMhz, highMhz: block.highMhz }] : []
}
