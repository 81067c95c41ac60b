/** What a stand-in finds on the wire beside itself: a DHCP server, time servers that answer, units that join it. */

import { formatIpv4, parseIpv4 } from '../../core/address/ipv4'
import type { Joins } from './join'

export interface DhcpOptions {
  /** Prefix length of the subnet. */
  readonly prefix: number
  readonly first: string
  readonly last: string
  readonly gateway: string
  readonly dns: string
  /** Option 138 (RFC 5417): where controllers are. */
  readonly controllers?: readonly string[] | undefined
  /** What its name server answers when it is asked for the controllers of the domain (RFC 5415, 3.3). */
  readonly namedControllers?: readonly string[] | undefined
}

export interface Lease {
  readonly address: string
  readonly prefix: number
  readonly gateway: string
  readonly dns: string
  /** Controllers of other subnets that it is told of, by DHCP or by name. */
  readonly controllers: readonly string[]
}

const serverMac = '02:00:00:00:dc:01'

/** A small DHCP server: a pool, and addresses that are reserved for a MAC. */
export class DhcpServer {
  readonly #options: DhcpOptions
  readonly #reserved = new Map<string, string>()
  readonly #leased = new Map<string, string>()

  constructor(options: DhcpOptions) {
    this.#options = options
  }

  reserve(mac: string, address: string): void {
    this.#reserved.set(mac, address)
    this.#leased.delete(mac)
  }

  /** The address of this MAC: the reserved one, else one of the pool, the same again where it can be. */
  lease(mac: string): Lease | null {
    const { prefix, gateway, dns, controllers = [], namedControllers = [] } = this.#options
    const address = this.#reserved.get(mac) ?? this.#leased.get(mac) ?? this.#fromPool(mac)
    return address === undefined
      ? null
      : { address, prefix, gateway, dns, controllers: [...controllers, ...namedControllers] }
  }

  /** As it is heard on the wire. */
  introduce(): { mac: string; vlan: null; address: string; controllers: string[] } {
    const { gateway, controllers = [] } = this.#options
    return { mac: serverMac, vlan: null, address: gateway, controllers: [...controllers] }
  }

  /** Begins at a place that follows from the MAC: a lab that is started again gives the same. */
  #fromPool(mac: string): string | undefined {
    const first = parseIpv4(this.#options.first) ?? 0
    const size = (parseIpv4(this.#options.last) ?? 0) - first + 1
    const taken = new Set([...this.#leased.values(), ...this.#reserved.values()])
    const begin = Number.parseInt(mac.replaceAll(':', '').slice(-5), 16) % size
    for (let step = 0; step < size; step += 1) {
      const address = formatIpv4(first + ((begin + step) % size))
      if (taken.has(address)) continue
      this.#leased.set(mac, address)
      return address
    }
    return undefined
  }
}

export interface Site {
  readonly joins?: Joins | undefined
  readonly dhcp: DhcpServer | undefined
  /** Does a time server answer at this address or name? */
  ntpAnswers(server: string): boolean
}

export const quietSite: Site = { dhcp: undefined, ntpAnswers: () => true }
