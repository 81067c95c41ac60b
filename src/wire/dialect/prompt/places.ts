/**
 * What the names in a card's templates stand for: the desired configuration in the unit's own words, with its networks
 * and radios as lists, and a few things that follow from them.
 */
import type { Clear, Config } from '../../../core/config/unit-config'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { PromptDialect } from '../../../core/kit/prompt-dialect'
import {
  allBlocks,
  type Band,
  type ChannelBlock,
  centreMhz,
  type Side,
  secondaryOf,
} from '../../../core/regulatory/blocks'
import { toWords } from '../words'

type Values = Readonly<Record<string, unknown>>
/** By group and name: `{ network: { ssid: … } }`. */
export type Places = Record<string, Record<string, unknown> | readonly Places[] | unknown>

export interface Situation {
  readonly card: Pick<DirectCard, 'radios'>
  readonly dialect: Pick<PromptDialect, 'values'>
  readonly desired: Config<Clear>
  /** Address and prefix length that it has now. */
  readonly current: { readonly address: string; readonly prefix: number }
}

export function placesOf(situation: Situation): Places {
  const { desired, current } = situation
  const networks = Object.entries(desired.networks).filter(([, values]) => values['network.enabled'] === true)
  const vlans = [...new Set(networks.flatMap(([, values]) => values['network.vlan'] ?? []))]
  return {
    ...placesOfValues(situation, desired.unit),
    current,
    networks: networks.map(([id, values], index) => networkPlaces(situation, id, values, index)),
    radios: situation.card.radios.map((radio) => radioPlaces(situation, radio)),
    vlans: vlans.map((vlan) => ({ vlan })),
  }
}

/** The places of one radio, with the networks on its band. */
export function radioPlaces(situation: Situation, { name, band }: { name: string; band: string }): Places {
  const { desired } = situation
  const values = desired.radios[band] ?? {}
  const on = Object.entries(desired.networks).filter(
    ([, network]) => network['network.enabled'] && network['network.bands']?.some((each) => each === band),
  )
  const places = placesOfValues(situation, values)
  const is = places.is as Record<string, object>
  return {
    ...places,
    // A dot would be another place.
    is: { ...is, radio: { ...is.radio, band: { [band.replace('.', '')]: true } } },
    radio: {
      ...(places.radio as object),
      name,
      band,
      ...bonded(band as Band, values['radio.channel'], values['radio.width'], values['radio.secondary']),
    },
    networks: on.map(([id, network], index) => networkPlaces(situation, id, network, index)),
  }
}

export function networkPlaces(situation: Situation, id: string, values: Values, index: number): Places {
  const places = placesOfValues(situation, values)
  return { ...places, network: { ...(places.network as object), id }, index, first: index === 0 }
}

function placesOfValues({ dialect }: Situation, values: Values): Places {
  const places: Record<string, Record<string, unknown>> = {}
  const is: Record<string, Record<string, Record<string, true>>> = {}
  for (const [id, value] of Object.entries(values)) {
    const [group = '', name = ''] = id.split('.')
    places[group] = { ...places[group], [name]: toWords(value, dialect.values[id]) }
    is[group] = { ...is[group], [name]: { [String(value)]: true } }
  }
  return { ...places, is }
}

/**
 * Channel number of a block's centre, and on which side its second channel lies (IEEE 802.11-2020, Annex E).
 *
 * @param side  of the second channel, where channel and width leave it open
 */
function bonded(band: Band, channel: number | undefined, width: number | undefined, side: Side | undefined) {
  if (channel === undefined || width === undefined) return {}
  const blocks = allBlocks.filter((block) => block.band === band && block.channel === channel)
  const sided = (of: ChannelBlock): boolean => side === undefined || (secondaryOf(of) ?? side) === side
  const block = blocks.find((each) => each.width === width && sided(each))
  const pair = width === 20 ? undefined : blocks.find((each) => each.width === 40 && sided(each))
  if (!block) return {}
  const middle = (block.lowMhz + block.highMhz) / 2
  return {
    centre: (middle - centreMhz(band, 0)) / 5,
    pair: pair && ((pair.lowMhz + pair.highMhz) / 2 > centreMhz(band, channel) ? '+' : '-'),
  }
}
