/**
 * A legal block as one radio may use it: what its rule takes off where the radio hangs, and for what it lacks.
 *
 * In: the block, the radio and its place. Out: the block with the limit that counts.
 */
import type { CardRadio } from '../../kit/card-parts'
import type { LegalBlock } from '../../regulatory/legal'
import { antennaTakes, type RadioUse } from './power'

export interface Situated {
  readonly radio: Pick<CardRadio, 'gain' | 'tpc' | 'above30Db'>
  readonly environment: 'indoor' | 'outdoor'
  readonly use: RadioUse
}

/** Without transmit power control a limit is lower, and never below what needs none, dBm. */
const neverBelow = 20

/**
 * Outdoors a rule may bound what goes up to the sky: with a pattern that is alike in all directions, that is the EIRP
 * itself. A fixed link looks at its far end, and is left out of it (47 CFR 15.407(a)(1)(i) and (iii)).
 */
export function asUsed(block: LegalBlock, { radio, environment, use }: Situated): LegalBlock {
  const controlled =
    block.withoutTpcDb === undefined || radio.tpc
      ? block
      : { ...block, limitDbm: Math.min(block.limitDbm, Math.max(neverBelow, block.limitDbm - block.withoutTpcDb)) }
  if (environment === 'indoor' || use === 'point-to-point' || block.skywardDbm === undefined) return controlled
  const eirp = controlled.limitDbm - antennaTakes(controlled, radio.gain, use) + radio.gain
  const most = block.skywardDbm + radio.above30Db
  if (eirp <= most) return controlled
  const { conducted: _read, ...bounded } = controlled
  return { ...bounded, limitDbm: most }
}
