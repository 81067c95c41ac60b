/**
 * Gateway lanes: a private way to each of many units with one and the same address, with no further interface.
 *
 * The lane has a source address of its own. A rule sends whatever comes from it to a table of its own; there the
 * unit's address goes by a made-up next hop, and a permanent neighbour entry gives that next hop the unit's MAC.
 * Whoever connects from the source address reaches this unit and no other. Nothing else on the laptop is touched.
 */

import { formatIpv4, parseCidr, parseIpv4 } from '../../core/address/ipv4'
import type { AddressRange } from '../../core/brief/subnet'
import { message } from '../../core/message/message'
import { ToldError, toldBy } from '../../core/message/told-error'
import { interfaces, ipBatch, rules } from './ip-command'
import type { Addition, Ledger } from './ledger'

export interface LaneAsked {
  readonly mac: string
  readonly address: string
  readonly prefix: number
}

/** What a lane has that no other may have. */
interface Claim {
  /** Its table, its rule and its next hop are numbered by this. */
  readonly slot: number
  source: string
}

interface OpenLane extends Claim {
  readonly vlan: number | null
  readonly additions: readonly Addition[]
}

const firstTable = 52_000
const firstPriority = 5200
const mostLanes = 512
/** Made-up next hops: RFC 2544 keeps 198.18.0.0/15 for tests of devices, so no real network has them. */
const firstNextHop = parseIpv4('198.18.64.1') ?? 0

export class NoLane extends ToldError {
  override readonly name = 'NoLane'
}

export interface GatewayLanesParts {
  readonly ledger: Ledger
  /** VLAN in which a unit answers at its address, null for untagged. */
  readonly vlanOf: (mac: string, address: string) => Promise<number | null>
  /** The interface that leads there. */
  readonly devOf: (vlan: number | null) => string
  /** MACs of whoever has an address. */
  readonly who: (address: string) => Promise<string[]>
}

export class GatewayLanes {
  readonly #parts: GatewayLanesParts
  readonly #open = new Map<string, OpenLane>()
  readonly #opening = new Map<string, Promise<string>>()
  /** Of lanes that are open or being opened: many are opened side by side, and each takes what no other has. */
  readonly #claims = new Set<Claim>()
  #keptOff: readonly AddressRange[] = []

  constructor(parts: GatewayLanesParts) {
    this.#parts = parts
  }

  get count(): number {
    return this.#open.size
  }

  keepOff(ranges: readonly AddressRange[]): void {
    this.#keptOff = ranges
  }

  /** @returns the source address from which the unit is reached. @throws NoLane */
  open(asked: LaneAsked): Promise<string> {
    const key = keyOf(asked)
    const opening = this.#opening.get(key) ?? this.#find(asked).finally(() => this.#opening.delete(key))
    this.#opening.set(key, opening)
    return opening
  }

  async close(asked: LaneAsked): Promise<void> {
    await this.#opening.get(keyOf(asked))?.catch(() => undefined)
    await this.#end(asked)
  }

  async closeAll(): Promise<void> {
    await Promise.allSettled(this.#opening.values())
    const lanes = [...this.#open.values()]
    this.#open.clear()
    await this.#parts.ledger.remove([...this.#parts.ledger.additions])
    for (const lane of lanes) this.#claims.delete(lane)
  }

  async #find(asked: LaneAsked): Promise<string> {
    const vlan = await this.#parts.vlanOf(asked.mac, asked.address)
    const open = this.#open.get(keyOf(asked))
    if (open?.vlan === vlan) return open.source
    // It moved to another VLAN, and kept its address.
    await this.#end(asked)
    return this.#add(asked, vlan)
  }

  async #end(asked: LaneAsked): Promise<void> {
    const lane = this.#open.get(keyOf(asked))
    if (!lane) return
    this.#open.delete(keyOf(asked))
    await this.#parts.ledger.remove(lane.additions)
    this.#claims.delete(lane)
  }

  async #add(asked: LaneAsked, vlan: number | null): Promise<string> {
    const [all, known] = await Promise.all([interfaces(), rules()])
    const own = new Set(all.flatMap(({ addr_info }) => addr_info.map(({ local }) => local)))
    if (own.has(asked.address)) throw new NoLane(message('laptop-has-address', { address: asked.address }))
    const claim = this.#claim(new Set(known.map(({ priority }) => priority)))
    try {
      await this.#findSource(claim, asked, own)
      const lane = { ...claim, vlan, additions: await this.#lead(claim, asked, this.#parts.devOf(vlan)) }
      this.#claims.add(lane)
      this.#open.set(keyOf(asked), lane)
      return lane.source
    } finally {
      // The open lane holds what it was opened with.
      this.#claims.delete(claim)
    }
  }

  /** The lowest slot that no lane has, and nobody else's rule. */
  #claim(priorities: ReadonlySet<number>): Claim {
    const used = new Set([...this.#claims].map(({ slot }) => slot))
    for (let slot = 0; slot < mostLanes; slot += 1)
      if (!used.has(slot) && !priorities.has(firstPriority + slot)) {
        const claim: Claim = { slot, source: '' }
        this.#claims.add(claim)
        return claim
      }
    throw new NoLane(message('too-many-lanes', { most: mostLanes }))
  }

  /** Adds what makes the lane, all or nothing. */
  async #lead({ slot, source }: Claim, { mac, address }: LaneAsked, dev: string): Promise<Addition[]> {
    const { ledger } = this.#parts
    const table = firstTable + slot
    const nextHop = formatIpv4(firstNextHop + slot)
    const additions: Addition[] = [
      { kind: 'address', address: source, dev },
      { kind: 'neighbour', address: nextHop, dev },
      { kind: 'route', to: address, table },
      { kind: 'rule', from: source, table, priority: firstPriority + slot },
    ]
    ledger.add(additions)
    try {
      await ipBatch([
        `addr add ${source}/32 dev ${dev}`,
        `neigh replace ${nextHop} lladdr ${mac} nud permanent dev ${dev}`,
        `route add ${address}/32 via ${nextHop} dev ${dev} onlink src ${source} table ${table}`,
        `rule add from ${source} lookup ${table} priority ${firstPriority + slot}`,
      ])
    } catch (error) {
      await ledger.remove(additions)
      throw new NoLane(toldBy(error))
    }
    return additions
  }

  /** An address of the unit's subnet that nobody has, from the top; never the unit's own, nor one that is kept off. */
  async #findSource(claim: Claim, { address, prefix }: LaneAsked, own: ReadonlySet<string>): Promise<void> {
    const cidr = `${address}/${prefix}`
    const subnet = parseCidr(cidr)
    if (!subnet) throw new NoLane(message('not-a-subnet', { subnet: cidr }))
    for (let candidate = subnet.lastHost; candidate >= subnet.firstHost; candidate -= 1) {
      const text = formatIpv4(candidate)
      const taken = text === address || own.has(text) || [...this.#claims].some(({ source }) => source === text)
      if (taken || this.#keptOff.some((range) => isWithin(candidate, range))) continue
      // It is claimed before it is asked for, so that no other lane asks for it meanwhile.
      claim.source = text
      if ((await this.#parts.who(text)).length === 0) return
    }
    throw new NoLane(message('no-address-for-laptop', { subnet: cidr }))
  }
}

const keyOf = ({ mac, address }: LaneAsked): string => `${mac} ${address}`

function isWithin(candidate: number, { first, last }: AddressRange): boolean {
  return candidate >= (parseIpv4(first) ?? 0) && candidate <= (parseIpv4(last) ?? 0)
}
