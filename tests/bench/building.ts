/** Made-up buildings, the same ones every time: floors with rooms, walls, radios and the networks of neighbours. */
import type { ChannelOption, ChannelProblem, OtherNetwork } from '../../src/core/radio/channels/channel-problem'
import { seeded } from '../../src/core/radio/channels/channel-search'
import { type Floor, type Material, plainFloor, type Wall } from '../../src/core/radio/propagation/floor'
import { hearings, type PlacedRadio } from '../../src/core/radio/propagation/levels'
import { type SituatedFloor, situated } from '../../src/core/radio/propagation/situation'
import type { Band, Width } from '../../src/core/regulatory/blocks'
import type { CountryRules } from '../../src/core/regulatory/database'
import { legalBlocks } from '../../src/core/regulatory/legal'

export interface Building {
  readonly floors: readonly SituatedFloor[]
  readonly radios: readonly PlacedRadio[]
}

/** Rooms along a corridor, with walls of one material between them and another along the corridor. */
export function building(
  seed: number,
  {
    radios,
    floors,
    roomM,
    walls: build = 'mixed',
  }: { radios: number; floors: number; roomM: number; walls?: 'mixed' | 'heavy' },
): Building {
  const random = seeded(seed)
  const perFloor = Math.ceil(radios / floors)
  const across = Math.ceil(perFloor / 2)
  const widthM = across * roomM
  const depthM = 2 * roomM + 3
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)] as T
  const between: Material = pick(build === 'heavy' ? ['concrete'] : ['plasterboard', 'brick', 'concrete'])
  const along: Material = pick(build === 'heavy' ? ['brick', 'concrete'] : ['glass', 'brick', 'plasterboard'])
  const made = Array.from({ length: floors }, (_, storey): Floor => {
    const walls: Wall[] = [
      { material: along, x1: 0, y1: roomM, x2: widthM, y2: roomM },
      { material: along, x1: 0, y1: roomM + 3, x2: widthM, y2: roomM + 3 },
    ]
    for (let room = 1; room < across; room += 1) {
      walls.push(
        { material: between, x1: room * roomM, y1: 0, x2: room * roomM, y2: roomM },
        { material: between, x1: room * roomM, y1: roomM + 3, x2: room * roomM, y2: depthM },
      )
    }
    return {
      id: `floor-${storey}`,
      name: `Floor ${storey}`,
      storey,
      heightM: 3.2,
      environment: 'indoor',
      widthM,
      depthM,
      drawing: null,
      walls,
      ...plainFloor,
      innerWalls: 'all-drawn',
    }
  })
  const places = [...situated(made).values()]
  return {
    floors: places,
    radios: Array.from({ length: radios }, (_, index): PlacedRadio => {
      const floor = places[Math.floor(index / perFloor)] as SituatedFloor
      const room = index % perFloor
      const inRoom = (): number => (0.2 + 0.6 * random()) * roomM
      return {
        id: `r${index}`,
        floor,
        x: (room % across) * roomM + inRoom(),
        y: (room < across ? 0 : roomM + 3) + inRoom(),
        powerDbm: pick([11, 14, 17]),
        gain: pick([3, 4, 5]),
      }
    }),
  }
}

/** One option for each legal block of a width, without a wait for radar where that leaves some. */
export function optionsOf(
  country: CountryRules,
  band: Band,
  width: Width,
  radar: 'avoid' | 'welcome',
): ChannelOption[] {
  const raster = [1, 6, 11]
  const blocks = legalBlocks(country).filter(
    (block) => block.band === band && block.width === width && (band !== '2.4' || raster.includes(block.channel)),
  )
  const firsts = blocks.filter((block, index) => blocks.findIndex((other) => other.lowMhz === block.lowMhz) === index)
  const free = firsts.filter((block) => radar === 'welcome' || !block.radar)
  return free.map(({ channel, lowMhz, highMhz, radar: listens }) => ({
    channel,
    width,
    lowMhz,
    highMhz,
    radar: listens,
    price: 0,
  }))
}

export function problemOf(
  { radios }: Building,
  band: Band,
  options: readonly ChannelOption[],
  others: readonly OtherNetwork[] = [],
): ChannelProblem {
  return {
    radios: radios.map(({ id }) => ({ id, band, options: [...options], locked: null, set: null })),
    hears: hearings(band, radios),
    others: [...others],
  }
}

/** Networks of neighbours, each heard by a few radios. */
export function neighbours(
  seed: number,
  { radios }: Building,
  options: readonly ChannelOption[],
  count: number,
): OtherNetwork[] {
  const random = seeded(seed)
  return Array.from({ length: count }, () => {
    const radio = radios[Math.floor(random() * radios.length)] as PlacedRadio
    const { lowMhz, highMhz } = options[Math.floor(random() * options.length)] as ChannelOption
    return { radio: radio.id, lowMhz, highMhz, dbm: -90 + Math.floor(random() * 25) }
  })
}
