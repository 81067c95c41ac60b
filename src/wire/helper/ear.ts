/**
 * What is heard on the wire without asking: the switch at the other end of the cable, who serves DHCP, and units that
 * ask for an address. Bounded: the newest of each are kept.
 */
import { setTimeout as pause } from 'node:timers/promises'
import { noAddress, readArp } from '../codec/arp'
import { etherTypes, type Frame, readFrame, withTag } from '../codec/ethernet'
import { readLldp } from '../codec/lldp'
import { type DhcpMessage, dhcpDiscover, readDhcp } from '../dhcp/message'
import type { FramePort } from './frame-port'
import type { HeardOnWire } from './verbs'

const mostOfEach = 512
/** Servers answer at once; a relay takes a moment. */
const offersWithinMs = 1500

export class Ear {
  readonly #port: FramePort
  readonly #mac: string
  readonly #neighbours = new Map<string, HeardOnWire['neighbours'][number]>()
  readonly #asking = new Map<string, HeardOnWire['asking'][number]>()
  readonly #talking = new Map<string, HeardOnWire['talking'][number]>()
  readonly #servers = new Map<string, HeardOnWire['servers'][number]>()
  /** By VLAN: when somebody was heard in it last. */
  readonly #tags = new Map<number, number>()

  /** @param mac  of the interface */
  constructor(port: FramePort, mac: string) {
    this.#port = port
    this.#mac = mac
    port.listen((bytes) => this.#hear(bytes))
  }

  heard(): Omit<HeardOnWire, 'dhcp'> {
    return {
      neighbours: [...this.#neighbours.values()],
      asking: [...this.#asking.values()],
      talking: [...this.#talking.values()],
      servers: this.servers,
    }
  }

  /** Who was heard serving DHCP. */
  get servers(): HeardOnWire['servers'] {
    return [...this.#servers.values()]
  }

  /** When a frame with the tag of this VLAN came in last, ms since 1970; null where none did. */
  lastIn(vlan: number): number | null {
    return this.#tags.get(vlan) ?? null
  }

  /**
   * Asks who serves DHCP and takes no offer: whoever answers is heard by the time that this resolves.
   *
   * @param vlans  in which it is asked as well, with their tag
   */
  async askForDhcp(vlans: readonly number[]): Promise<void> {
    for (const vlan of [null, ...vlans])
      this.#port.send(withTag(dhcpDiscover(this.#mac, Math.floor(Math.random() * 0xffffffff)), vlan))
    await pause(offersWithinMs)
  }

  #hear(bytes: Buffer): void {
    const frame = readFrame(bytes)
    if (frame && frame.vlan !== null) this.#tags.set(frame.vlan, Date.now())
    if (frame?.type === etherTypes.lldp) {
      const neighbour = readLldp(frame.payload)
      if (neighbour) keep(this.#neighbours, frame.from, { ...neighbour, mac: frame.from, at: Date.now() })
    } else if (frame?.type === etherTypes.arp) {
      const { senderMac: mac, senderAddress } = readArp(frame.payload) ?? {}
      const address = senderAddress === noAddress ? null : senderAddress
      if (mac !== undefined && address !== undefined)
        keep(this.#talking, `${mac} ${address}`, { mac, address, at: Date.now() })
    } else if (frame?.type === etherTypes.ipv4) {
      const message = readDhcp(frame.payload)
      if (message) this.#hearDhcp(frame, message)
    }
  }

  #hearDhcp({ from, vlan }: Pick<Frame, 'from' | 'vlan'>, message: DhcpMessage): void {
    const at = Date.now()
    if (message.kind === 'discover' || message.kind === 'request') {
      const { client, hostName = null, vendorClass = null } = message
      if (client !== this.#mac) keep(this.#asking, client, { mac: client, hostName, vendorClass, at })
    } else if ((message.kind === 'offer' || message.kind === 'ack') && message.server !== undefined)
      // Two may have one address: they are told apart by their MAC.
      keep(this.#servers, `${message.server} ${from} ${vlan}`, {
        vlan,
        address: message.server,
        mac: from,
        offered: message.offered,
        prefix: message.prefix ?? null,
        router: message.router ?? null,
        controllers: [...message.controllers],
        vendor: message.vendor ?? null,
        vendorClass: message.vendorClass ?? null,
        privateUse: message.privateUse ?? null,
        at,
      })
  }
}

/** The newest stands last; the oldest goes where there are too many. */
function keep<T>(map: Map<string, T>, key: string, value: T): void {
  map.delete(key)
  map.set(key, value)
  if (map.size > mostOfEach) map.delete(map.keys().next().value ?? '')
}
