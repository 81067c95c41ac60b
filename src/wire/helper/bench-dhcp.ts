/**
 * A small DHCP server (RFC 2131) for the bench: it gives a passing address to boxes that wait for one, so that they can
 * be reached and told what they are to be. To no other MAC than those that it was told, without a tag alone, and never
 * while another server is heard. An address is lent for minutes and ends by itself.
 */
import { formatIpv4, parseCidr } from '../../core/address/ipv4'
import { arpReply, readArp } from '../codec/arp'
import { etherTypes, type Frame, readFrame } from '../codec/ethernet'
import { type DhcpMessage, readDhcp } from '../dhcp/message'
import { dhcpReply } from '../dhcp/reply'
import type { FramePort } from './frame-port'
import type { HeardOnWire } from './verbs'

/** Long enough for a muster that renews it, short enough to be gone before a box hangs on its ceiling. */
export const leaseSeconds = 300
/** An offer that nobody takes is free again after so long, ms. */
const offerMs = 10_000
/** Whoever wants it says so with each sweep; a runner that is gone is not served for any longer, ms. */
const wantedForMs = 120_000
/** How long a server that was heard counts as being there, ms. */
const rivalCountsMs = 180_000

export interface BenchDhcpParts {
  readonly port: FramePort
  /** MAC of the interface. */
  readonly mac: string
  /** MACs of whoever has an address. */
  readonly who: (address: string) => Promise<string[]>
  /** Servers that were heard. */
  readonly servers: () => HeardOnWire['servers']
}

export interface Serving {
  /** The only ones that are answered. */
  readonly macs: readonly string[]
  /** Subnet of which the addresses are lent; its last one is the server's own. */
  readonly cidr: string
}

interface Lent {
  readonly kind: 'offered' | 'lent'
  readonly mac: string
  /** ms since 1970. */
  readonly until: number
}

export class BenchDhcp {
  readonly #parts: BenchDhcpParts
  #serving: (Serving & { readonly own: string; readonly prefix: number; readonly free: readonly string[] }) | undefined
  #wantedUntil = 0
  /** By address: offered or lent. */
  readonly #lent = new Map<string, Lent>()
  /** Somebody else has them, or their client says so (DHCPDECLINE). */
  readonly #bad = new Set<string>()
  readonly #answering = new Set<string>()

  constructor(parts: BenchDhcpParts) {
    this.#parts = parts
    parts.port.listen((bytes) => void this.#hear(bytes))
  }

  /** Serves from now on, or no more: what is lent then ends by itself. */
  serve(serving: Serving | null): void {
    this.#wantedUntil = Date.now() + wantedForMs
    const subnet = serving && parseCidr(serving.cidr)
    if (!serving || !subnet) {
      this.#serving = undefined
      return
    }
    const own = formatIpv4(subnet.lastHost)
    // A lane to a box starts from an address near the end of its subnet.
    const last = subnet.lastHost - Math.floor((subnet.lastHost - subnet.firstHost) / 4)
    const free = Array.from({ length: last - subnet.firstHost }, (_, at) => formatIpv4(subnet.firstHost + at))
    this.#serving = { ...serving, own, prefix: subnet.prefix, free }
  }

  standing(): HeardOnWire['dhcp'] {
    const now = Date.now()
    return {
      state: !this.#isWanted() ? 'off' : this.#rival() ? 'another-serves' : 'serving',
      leases: [...this.#lent]
        .filter(([, { kind, until }]) => kind === 'lent' && until > now)
        .map(([address, { mac, until }]) => ({ mac, address, until })),
    }
  }

  /** Addresses that are this server's or may be lent: no lane starts there. */
  get kept(): { readonly first: string; readonly last: string }[] {
    const { own, free = [] } = this.#serving ?? {}
    const [first] = free
    const last = free.at(-1)
    if (own === undefined || first === undefined || last === undefined) return []
    return [
      { first, last },
      { first: own, last: own },
    ]
  }

  #isWanted(): boolean {
    return this.#serving !== undefined && Date.now() < this.#wantedUntil
  }

  #rival(): boolean {
    const since = Date.now() - rivalCountsMs
    return this.#parts.servers().some(({ vlan, at }) => vlan === null && at > since)
  }

  async #hear(bytes: Buffer): Promise<void> {
    if (!this.#serving || !this.#isWanted()) return
    const frame = readFrame(bytes)
    if (!frame || frame.vlan !== null || !this.#serving.macs.includes(frame.from)) return
    if (frame.type === etherTypes.arp) this.#hearArp(frame)
    const message = frame.type === etherTypes.ipv4 ? readDhcp(frame.payload) : undefined
    if (!message || message.way === 'relayed' || message.client !== frame.from || this.#rival()) return
    this.#takeBack(message)
    // One that asks again while its address is tried is answered once.
    if (this.#answering.has(message.client)) return
    this.#answering.add(message.client)
    try {
      await this.#answer(message)
    } finally {
      this.#answering.delete(message.client)
    }
  }

  /** A client that renews asks the server itself, and looks for it by ARP. */
  #hearArp({ payload }: Frame): void {
    const arp = readArp(payload)
    const own = this.#serving?.own
    if (arp?.kind !== 'request' || own === undefined || arp.targetAddress !== own) return
    const { mac, port } = this.#parts
    port.send(arpReply({ mac, address: own }, { mac: arp.senderMac, address: arp.senderAddress }))
  }

  /** A client has no use for its address any more, or has found somebody else at it. */
  #takeBack({ client, kind, wants, has }: DhcpMessage): void {
    const address = kind === 'decline' ? wants : kind === 'release' ? has : undefined
    if (address === undefined || this.#lent.get(address)?.mac !== client) return
    this.#lent.delete(address)
    if (kind === 'decline') this.#bad.add(address)
  }

  async #answer(message: DhcpMessage): Promise<void> {
    const { client, kind, server, wants, has } = message
    const own = this.#serving?.own
    if (kind === 'discover') {
      const address = await this.#choose(message)
      if (address === undefined || !this.#serving) return
      this.#offer(address, client)
      return this.#reply('offer', message, address)
    }
    if (kind !== 'request') return
    // It takes the offer of another, or what it was offered here (4.3.2, SELECTING); else it renews, or starts again.
    if (server !== undefined && server !== own) return this.#forget(client)
    const address = has === '0.0.0.0' ? wants : has
    if (address === undefined || !(await this.#mayHave(client, address))) return
    this.#forget(client)
    this.#lent.set(address, { kind: 'lent', mac: client, until: Date.now() + leaseSeconds * 1000 })
    this.#reply('ack', message, address)
  }

  /** What it has already, else what it would like, else the first that nobody has. */
  async #choose({ client, wants }: DhcpMessage): Promise<string | undefined> {
    const before = [...this.#lent].find(([, { mac }]) => mac === client)?.[0]
    if (before !== undefined && this.#serving?.free.includes(before)) return before
    for (const address of [...(wants === undefined ? [] : [wants]), ...(this.#serving?.free ?? [])])
      if (await this.#mayHave(client, address)) return address
    return undefined
  }

  async #mayHave(client: string, address: string): Promise<boolean> {
    if (!this.#serving?.free.includes(address) || this.#bad.has(address)) return false
    const lent = this.#lent.get(address)
    if (lent && lent.until > Date.now()) return lent.mac === client
    // Claimed before it is asked for, so that no other client is offered it meanwhile.
    this.#offer(address, client)
    if ((await this.#parts.who(address)).every((mac) => mac === client)) return true
    this.#lent.delete(address)
    this.#bad.add(address)
    return false
  }

  #offer(address: string, mac: string): void {
    // What it has already it keeps.
    if (this.#lent.get(address)?.kind !== 'lent' || this.#lent.get(address)?.mac !== mac)
      this.#lent.set(address, { kind: 'offered', mac, until: Date.now() + offerMs })
  }

  #forget(client: string): void {
    for (const [address, { mac }] of this.#lent) if (mac === client) this.#lent.delete(address)
  }

  #reply(kind: 'offer' | 'ack', to: DhcpMessage, given: string): void {
    if (!this.#serving) return
    const { mac, port } = this.#parts
    const { own, prefix } = this.#serving
    port.send(dhcpReply({ kind, to, from: { mac, address: own }, given, prefix, seconds: leaseSeconds }))
  }
}
