/**
 * What a unit's radios do as far as anybody can say by what they are set to, where nothing shows what they really do.
 */
import type { Observed, ObservedConfig } from '../../core/config/unit-config'
import type { RadioOnAir } from './dialect'

const seenValue = <T>(observed: Observed<T> | undefined): T | undefined =>
  observed?.kind === 'value' ? observed.value : undefined

/** What is on air by what the unit is set to, for those whose pages do not show what really is. */
export function airAsSet({ networks, radios }: ObservedConfig): RadioOnAir[] {
  return Object.entries(radios).map(([band, radio]): RadioOnAir => {
    const isOn = seenValue(radio['radio.enabled']) !== false
    const there = Object.entries(networks).filter(
      ([, network]) =>
        seenValue(network['network.enabled']) !== false &&
        seenValue(network['network.bands'])?.some((each) => each === band) !== false,
    )
    return {
      band,
      condition: isOn ? 'on-air' : 'off',
      listensFor: 0,
      channel: seenValue(radio['radio.channel']) ?? undefined,
      width: seenValue(radio['radio.width']) ?? undefined,
      leftForRadar: undefined,
      networks: isOn
        ? there.map(([id, network]) => ({
            id,
            ssid: seenValue(network['network.ssid']) ?? id,
            security: seenValue(network['network.security']) ?? '',
          }))
        : [],
    }
  })
}
