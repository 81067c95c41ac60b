/**
 * Channel blocks by the numbering of IEEE 802.11-2020 Annex E (and 802.11be for 320 MHz at 6 GHz).
 *
 * A block is a primary 20 MHz channel together with the frequencies that it is bonded with. Pure arithmetic:
 * which of them are legal is asked in legal.ts.
 */

export const bands = ['2.4', '5', '6'] as const
export type Band = (typeof bands)[number]
/** Channel width, MHz. */
export type Width = 20 | 40 | 80 | 160 | 320

export interface ChannelBlock {
  readonly band: Band
  /** Number of the primary 20 MHz channel. */
  readonly channel: number
  readonly width: Width
  readonly lowMhz: number
  readonly highMhz: number
}

const wide: readonly Width[] = [40, 80, 160]
const lastChannelAt24 = 13

/** Centre of a 20 MHz channel, MHz. At 2.4 GHz channel 14 stands apart from the raster. */
export function centreMhz(band: Band, channel: number): number {
  if (band === '2.4') return channel === 14 ? 2484 : 2407 + 5 * channel
  return (band === '5' ? 5000 : 5950) + 5 * channel
}

/** 5 GHz runs within which channels are bonded: pairs, fours and eights are counted from the first of each. */
const runs5: readonly (readonly [first: number, last: number])[] = [
  [36, 64],
  [100, 144],
  [149, 177],
]

/** Every block of every band, each primary channel and width, in order of band, channel, width and frequency. */
export const allBlocks: readonly ChannelBlock[] = [
  ...blocksAt24(),
  ...runs5.flatMap(([first, last]) => blocksOfRun('5', first, last, [20, ...wide])),
  ...blocksAt6(),
].sort(
  (a, b) =>
    bands.indexOf(a.band) - bands.indexOf(b.band) || a.channel - b.channel || a.width - b.width || a.lowMhz - b.lowMhz,
)

/** 2.4 GHz: 20 MHz about each centre; a pair with its secondary four channels above, and one with it four below. */
function blocksAt24(): ChannelBlock[] {
  const blocks: ChannelBlock[] = []
  for (let channel = 1; channel <= 14; channel += 1) {
    const lowMhz = centreMhz('2.4', channel) - 10
    blocks.push({ band: '2.4', channel, width: 20, lowMhz, highMhz: lowMhz + 20 })
    if (channel + 4 <= lastChannelAt24) blocks.push({ band: '2.4', channel, width: 40, lowMhz, highMhz: lowMhz + 40 })
    if (channel > 4 && channel <= lastChannelAt24)
      blocks.push({ band: '2.4', channel, width: 40, lowMhz: lowMhz - 20, highMhz: lowMhz + 20 })
  }
  return blocks
}

/** 6 GHz: 1 to 233 in steps of four, blocks counted from 1; 320 MHz in two rasters, the second 160 MHz higher. */
function blocksAt6(): ChannelBlock[] {
  return [...blocksOfRun('6', 1, 233, [20, ...wide, 320]), ...blocksOfRun('6', 33, 221, [320])]
}

/** The whole blocks of each width in a run of adjacent channels; a block that would run past the end is none. */
function blocksOfRun(band: Band, first: number, last: number, widths: readonly Width[]): ChannelBlock[] {
  const blocks: ChannelBlock[] = []
  for (const width of widths) {
    const span = (width / 20) * 4
    for (let start = first; start + span - 4 <= last; start += span) {
      const lowMhz = centreMhz(band, start) - 10
      for (let channel = start; channel < start + span; channel += 4)
        blocks.push({ band, channel, width, lowMhz, highMhz: lowMhz + width })
    }
  }
  return blocks
}

/** On which side of the primary channel the second one of a pair lies. */
export type Side = 'above' | 'below'

/** Where a block of 40 MHz at 2.4 GHz has its second channel: the primary and the width alone leave that open. */
export function secondaryOf({ band, channel, width, lowMhz }: Omit<ChannelBlock, 'highMhz'>): Side | undefined {
  if (band !== '2.4' || width !== 40) return undefined
  return lowMhz + width / 2 > centreMhz(band, channel) ? 'above' : 'below'
}

/** Which of the two rasters a block of 320 MHz belongs to; their channels overlap half and half (IEEE 802.11be). */
export function rasterOf320({ band, width, lowMhz }: ChannelBlock): '320-1' | '320-2' | undefined {
  if (band !== '6' || width !== 320) return undefined
  return (lowMhz - (centreMhz('6', 1) - 10)) % 320 === 0 ? '320-1' : '320-2'
}

/**
 * The block of a channel at a width; undefined where there is none.
 *
 * @param secondary  side of the second channel of a pair at 2.4 GHz; where it is not said, the lower block is taken
 */
export function blockOf(band: Band, channel: number, width: number, secondary?: Side): ChannelBlock | undefined {
  return allBlocks.find(
    (block) =>
      block.band === band &&
      block.channel === channel &&
      block.width === width &&
      (secondary === undefined || (secondaryOf(block) ?? secondary) === secondary),
  )
}
