/** The radios of a simulated unit: what is on air, and since when a radio listens for radar before it is. */
import type { RadioOnAir } from '../../src/wire/dialect/dialect'
import type { UnitTraits } from './traits'
import type { Surroundings } from './unit'
import type { Values } from './values'
import type { World } from './world'

const radarSeconds = 60
const firstRadarChannel = 52
const lastRadarChannel = 144

export class SimulatedRadios {
  /** Since when each listens, by band; ms. */
  readonly #listening = new Map<string, number>()

  constructor(
    private readonly world: World,
    private readonly around: Pick<Surroundings, 'ms'>,
    private readonly traits: Pick<UnitTraits, 'listening'>,
  ) {}

  /** Power goes. */
  off(): void {
    this.#listening.clear()
  }

  /**
   * A radio that is switched on, or comes to a channel of radars, listens first.
   * @param before  where those that are as they were go on; all begin anew where there is none
   */
  start({ radios }: Values, before?: Values): void {
    for (const [band, radio] of Object.entries(radios)) {
      if (radio === before?.radios[band]) continue
      const { 'radio.enabled': enabled, 'radio.channel': channel } = radio
      const isRadar = typeof channel === 'number' && channel >= firstRadarChannel && channel <= lastRadarChannel
      if (enabled === true && band === '5' && isRadar) this.#listening.set(band, this.world.now)
      else this.#listening.delete(band)
    }
  }

  air({ radios, networks }: Values): RadioOnAir[] {
    return Object.entries(radios).map(([band, radio]): RadioOnAir => {
      const since = this.#listening.get(band)
      const left = since === undefined ? 0 : this.around.ms(radarSeconds) - (this.world.now - since)
      const isOn = radio['radio.enabled'] === true
      const carried = Object.entries(networks).filter(
        ([, network]) => network['network.enabled'] === true && (network['network.bands'] as string[]).includes(band),
      )
      return {
        band,
        condition: !isOn ? 'off' : left > 0 ? 'listening' : 'on-air',
        listensFor: left > 0 && this.traits.listening === 'counted' ? left / this.around.ms(1) : 0,
        channel: radio['radio.channel'] as number,
        width: radio['radio.width'] as number,
        leftForRadar: undefined,
        networks:
          isOn && left <= 0
            ? carried.map(([id, network]) => ({
                id,
                ssid: String(network['network.ssid']),
                security: String(network['network.security']),
              }))
            : [],
      }
    })
  }

  /** Networks that anybody can join now, by their id. */
  open(values: Values): string[] {
    // Most have none: that is seen at once.
    if (!Object.values(values.networks).some((each) => each['network.security'] === 'open')) return []
    return this.air(values).flatMap(({ networks }) =>
      networks.filter(({ security }) => security === 'open').map(({ id }) => id),
    )
  }
}
