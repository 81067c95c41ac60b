/**
 * Which channels one radio may be planned on.
 *
 * In: the country's legal blocks, the policy, the model's radio and what the user locked. Out: one option for each
 * block, with the powers that fit under it, or the reason why there is none.
 */
import type { RadioPolicy } from '../../brief/policies'
import type { CardRadio } from '../../kit/card-parts'
import type { Band, Width } from '../../regulatory/blocks'
import { isShortRange, type LegalBlock } from '../../regulatory/legal'
import { asUsed } from './as-used'
import { highestLegalStep, type RadioUse } from './power'

/** Channels at 2.4 GHz that do not overlap. */
const rasters24: Readonly<Record<RadioPolicy['raster24'], readonly number[]>> = {
  '1-6-11': [1, 6, 11],
  '1-5-9-13': [1, 5, 9, 13],
}

/** Preferred scanning channels at 6 GHz: 5, 21, 37 and so on to 229 (IEEE 802.11ax 26.17.2.3.3). */
export function isScanningChannel(channel: number): boolean {
  return channel >= 5 && channel <= 229 && (channel - 5) % 16 === 0
}

export interface RadioDemand {
  readonly radio: CardRadio
  readonly width: Width
  readonly environment: 'indoor' | 'outdoor'
  readonly lock: number | undefined
  readonly use: RadioUse
  /** Whether a radio of the same unit at 2.4 or 5 GHz tells clients where this one of 6 GHz is. */
  readonly announced?: boolean
}

/**
 * Options at every width up to the wanted one, widest first; the caller decides whether narrower ones are used.
 *
 * @param legal  every legal block of the country
 */
export function radioOptions(
  legal: readonly LegalBlock[],
  policy: RadioPolicy,
  { radio, width, environment, lock, use, announced = false }: RadioDemand,
): LegalBlock[] {
  const usable = legal
    .filter(
      (block) =>
        block.band === radio.band &&
        block.width <= width &&
        radio.widths.includes(block.width) &&
        !radio.leftOut.includes(block.channel) &&
        !(environment === 'outdoor' && block.indoor) &&
        (policy.shortRange === 'used' || lock !== undefined || !isShortRange(block)),
    )
    .map((block) => asUsed(block, { radio, environment, use }))
    // A block on which even the lowest step would be too loud is none.
    .filter((block) => highestLegalStep(block, radio, use) !== undefined)
  const chosen =
    lock === undefined
      ? onePrimaryEach(onRaster(usable, policy, announced))
      : onePrimaryEach(usable.filter((block) => block.channel === lock))
  const quiet = chosen.filter((block) => !block.radar)
  const kept = policy.radar === 'welcome' || quiet.length === 0 || lock !== undefined ? chosen : quiet
  return kept.toSorted((a, b) => b.width - a.width || a.lowMhz - b.lowMhz)
}

/**
 * What the policy wants of the channels of a band, where that leaves any. Clients scan for a radio of 6 GHz only where
 * none beside it announces it (reduced neighbor report, IEEE 802.11ax-2021, 26.17.2.2 and 26.17.2.3.3).
 */
function onRaster(blocks: readonly LegalBlock[], policy: RadioPolicy, announced: boolean): readonly LegalBlock[] {
  const at = (band: Band) => blocks.filter((block) => block.band === band)
  const raster = rasters24[policy.raster24].every((channel) => at('2.4').some((block) => block.channel === channel))
    ? rasters24[policy.raster24]
    : rasters24['1-6-11']
  const at24 = at('2.4').filter((block) => raster.includes(block.channel))
  const scanning = at('6').filter((block) => isScanningChannel(block.channel))
  return [
    ...(at24.length > 0 ? at24 : at('2.4')),
    ...at('5'),
    ...(policy.scanning6 === 'preferred' && !announced && scanning.length > 0 ? scanning : at('6')),
  ]
}

/** Blocks that differ in the primary channel alone are one choice. */
function onePrimaryEach(blocks: readonly LegalBlock[]): LegalBlock[] {
  const seen = new Set<string>()
  return blocks.filter(({ lowMhz, width }) => {
    const key = `${lowMhz} ${width}`
    if (seen.has(key)) return false
    seen.add(key)
    return true
  })
}
