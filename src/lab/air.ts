/**
 * The lab's air: what all stand-ins transmit, sampled at every tick, with a lasting record of anything open.
 */
import type { Device } from './device/device'
import { shippedNetwork } from './device/factory'

export interface OpenNetwork {
  readonly mac: string
  readonly ssid: string
  /** Whether the unit was told that it is meant to be open, or came so out of its box. */
  readonly said: 'twice' | 'never' | 'by-its-maker'
}

export class LabAir {
  #samples = 0
  readonly #open = new Map<string, OpenNetwork>()
  readonly #heard = new Set<string>()

  /** Looks at every radio once. */
  sample(units: readonly Device[]): void {
    this.#samples += 1
    for (const unit of units) {
      for (const network of unit.air().flatMap((radio) => radio.networks)) {
        this.#heard.add(network.name)
        if (network.mode !== 'open') continue
        const { mac, ships } = unit.identity
        const isAsBoxed = network.id === shippedNetwork || network.name === unit.sheet.factory.network
        const isShipped = ships === 'open' && isAsBoxed
        const said = network.meantOpen ? 'twice' : isShipped ? 'by-its-maker' : 'never'
        this.#open.set(`${mac} ${network.name} ${said}`, { mac, ssid: network.name, said })
      }
    }
  }

  get samples(): number {
    return this.#samples
  }

  /** Every network that was ever on air. */
  get heard(): readonly string[] {
    return [...this.#heard]
  }

  /** Every network that was ever on air without security. */
  get everOpen(): readonly OpenNetwork[] {
    return [...this.#open.values()]
  }
}
