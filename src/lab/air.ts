/**
 * The lab's air: what all stand-ins transmit, sampled at every tick, with a lasting record of anything open.
 */
import type { AccessPoint } from './stand-in/access-point'

export interface OpenNetwork {
  readonly mac: string
  readonly ssid: string
}

export class LabAir {
  #samples = 0
  readonly #open = new Map<string, OpenNetwork>()
  readonly #heard = new Set<string>()

  /** Looks at every radio once. */
  sample(units: readonly AccessPoint[]): void {
    this.#samples += 1
    for (const unit of units) {
      for (const network of unit.air().radio.flatMap((radio) => radio.network)) {
        this.#heard.add(network.ssid)
        if (network.security === 'open')
          this.#open.set(`${unit.identity.mac} ${network.ssid}`, { mac: unit.identity.mac, ssid: network.ssid })
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
