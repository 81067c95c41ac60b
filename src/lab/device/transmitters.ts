/**
 * The radios of a stand-in on air: they listen for radar first where they must, and leave a channel on which they hear
 * it.
 */
import type { LabClock } from './clock'
import type { DeviceSettings } from './device-settings'
import type { RadioNow } from './radio-now'
import type { RadioRules } from './radio-rules'

export class Transmitters {
  readonly #rules: RadioRules
  readonly #clock: LabClock
  /** Lab time at which they began to listen or transmit. */
  #since = 0
  /** Where radios are since they heard radar, by band. */
  readonly #fledTo = new Map<string, { left: number; channel: number; width: number }>()

  readonly #mac: string

  /** @param mac  of the unit: each network of each radio has a BSSID of its own, made from it */
  constructor(rules: RadioRules, clock: LabClock, mac: string) {
    this.#mac = mac
    this.#rules = rules
    this.#clock = clock
  }

  /** The unit has started: what its radios heard before is forgotten. */
  start(): void {
    this.#fledTo.clear()
    this.listenAnew()
  }

  listenAnew(): void {
    this.#since = this.#clock.now()
  }

  hearRadar(settings: DeviceSettings, band: string): void {
    const radio = settings.radios.find((each) => each.band === band)
    if (!radio?.on || this.#rules.listenSeconds(settings, radio) === 0) return
    const refuge = this.#rules.withoutRadar(settings, radio)
    if (refuge) this.#fledTo.set(band, { left: radio.channel, ...refuge })
  }

  off({ radios }: DeviceSettings): RadioNow[] {
    return radios.map((set) => silent(this.#whereItIs(set)))
  }

  now(settings: DeviceSettings): RadioNow[] {
    const listenedFor = (this.#clock.now() - this.#since) / 1000
    return settings.radios.map((set, at): RadioNow => {
      const radio = this.#whereItIs(set)
      const left = radio === set ? undefined : set.channel
      if (!radio.on) return silent(radio)
      const listensFor = Math.max(0, Math.ceil(this.#rules.listenSeconds(settings, radio) - listenedFor))
      if (listensFor > 0) return { radio, condition: 'listening', listensFor, networks: [] }
      const networks = settings.networks
        .filter((each) => each.on && each.bands.includes(radio.band))
        .map((each, number) => ({ ...each, bssid: this.#bssid(16 * at + number) }))
      return { radio, condition: 'on-air', listensFor: 0, networks, left }
    })
  }

  /** The MAC with its first octet made another: a locally administered address, as the others of its maker are not. */
  #bssid(number: number): string {
    const first = (Number.parseInt(this.#mac.slice(0, 2), 16) ^ ((number + 1) << 2)) & 0xfe
    return `${(first | 2).toString(16).padStart(2, '0')}${this.#mac.slice(2)}`
  }

  #whereItIs(set: DeviceSettings['radios'][number]): DeviceSettings['radios'][number] {
    const fled = this.#fledTo.get(set.band)
    return fled?.left === set.channel ? { ...set, channel: fled.channel, width: fled.width } : set
  }
}

const silent = (radio: DeviceSettings['radios'][number]): RadioNow => ({
  radio,
  condition: 'off',
  listensFor: 0,
  networks: [],
})
