/**
 * Gateway lanes: a private way to each of many units with one and the same address, with no further interface.
 *
 * The lane has a source address of its own. A rule sends whatever comes from it to a table of its own; there the
 * unit's address goes by a made-up next hop, and a permanent neighbour entry gives that next hop the unit's MAC.
 * Whoever connects from the source address reaches this unit and no other. Nothing else on the laptop is touched.
 */
import { formatIpv4, parseCidr, parseIpv4 } from '../../core/addressing/ipv4'
import type { AddressRange } from '../../core/brief/subnet'
import { interfaces, ipBatch, rules } from './ip-command'
import type { Addition, Ledger } from './ledger'

export interface LaneAsked {
  readonly mac: string
  readonly address: string
  readonly prefix: number
}

interface OpenLane {
  readonly source: string
  readonly slot: number
  readonly additions: readonly Addition[]
}

const firstTable = 52_000
const firstPriority = 5200
const mostLanes = 512
/** Made-up next hops: RFC 2544 keeps 198.18.0.0/15 for tests of devices, so no real network has them. */
const firstNextHop = parseIpv4('198.18.64.1') ?? 0
/** Candidates that are probed at once. */
const probedTogether = 16

export class NoLane extends Error {
  override readonly name = 'NoLane'
}

export interface GatewayLanesParts {
  readonly interfaceName: string
  readonly ledger: Ledger
  /** MACs of whoever has an address. */
  readonly who: (address: string) => Promise<string[]>
}

export class GatewayLanes {
  readonly #parts: GatewayLanesParts
  readonly #open = new Map<string, OpenLane>()
  readonly #opening = new Map<string, Promise<string>>()
  #keptOff: readonly AddressRange[] = []
  /** Lanes are opened and closed one after the other: each takes what no other has. */
  #turn: Promise<unknown> = Promise.resolve()

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
    const open = this.#open.get(key)
    if (open) return Promise.resolve(open.source)
    const opening =
      this.#opening.get(key) ?? this.#inTurn(() => this.#add(asked)).finally(() => this.#opening.delete(key))
    this.#opening.set(key, opening)
    return opening
  }

  async close(asked: LaneAsked): Promise<void> {
    await this.#opening.get(keyOf(asked))?.catch(() => undefined)
    await this.#inTurn(async () => {
      const lane = this.#open.get(keyOf(asked))
      if (!lane) return
      this.#open.delete(keyOf(asked))
      await this.#parts.ledger.remove(lane.additions)
    })
  }

  async closeAll(): Promise<void> {
    await this.#inTurn(async () => {
      this.#open.clear()
      await this.#parts.ledger.remove([...this.#parts.ledger.additions])
    })
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const mine = this.#turn.then(work, work)
    this.#turn = mine.catch(() => undefined)
    return mine
  }

  async #add(asked: LaneAsked): Promise<string> {
    const { interfaceName: dev, ledger } = this.#parts
    const all = await interfaces()
    const own = all.flatMap(({ addr_info }) => addr_info.map(({ local }) => local))
    if (own.includes(asked.address))
      throw new NoLane(`this laptop has ${asked.address} itself: take it away, then the unit can be reached`)
    const source = await this.#freeSource(asked, new Set(own))
    const slot = await this.#freeSlot()
    const table = firstTable + slot
    const nextHop = formatIpv4(firstNextHop + slot)
    const additions: Addition[] = [
      { kind: 'address', address: source, dev },
      { kind: 'neighbour', address: nextHop, dev },
      { kind: 'route', to: asked.address, table },
      { kind: 'rule', from: source, table, priority: firstPriority + slot },
    ]
    ledger.add(additions)
    try {
      await ipBatch([
        `addr add ${source}/32 dev ${dev}`,
        `neigh replace ${nextHop} lladdr ${asked.mac} nud permanent dev ${dev}`,
        `route add ${asked.address}/32 via ${nextHop} dev ${dev} onlink src ${source} table ${table}`,
        `rule add from ${source} lookup ${table} priority ${firstPriority + slot}`,
      ])
    } catch (error) {
      await ledger.remove(additions)
      throw new NoLane(error instanceof Error ? error.message : String(error))
    }
    this.#open.set(keyOf(asked), { source, slot, additions })
    return source
  }

  async #freeSlot(): Promise<number> {
    const used = new Set([...this.#open.values()].map(({ slot }) => slot))
    const priorities = new Set((await rules()).map(({ priority }) => priority))
    for (let slot = 0; slot < mostLanes; slot += 1)
      if (!used.has(slot) && !priorities.has(firstPriority + slot)) return slot
    throw new NoLane(`${mostLanes} lanes are open`)
  }

  /** An address of the unit's subnet that nobody has, from the top; never the unit's own, nor one that is kept off. */
  async #freeSource({ address, prefix }: LaneAsked, own: ReadonlySet<string>): Promise<string> {
    const cidr = `${address}/${prefix}`
    const subnet = parseCidr(cidr)
    if (!subnet) throw new NoLane(`${cidr} is not a subnet`)
    const mayBe = (candidate: number): boolean => {
      const text = formatIpv4(candidate)
      return text !== address && !own.has(text) && !this.#keptOff.some((range) => isWithin(candidate, range))
    }
    let next = subnet.lastHost
    while (next >= subnet.firstHost) {
      const together: string[] = []
      for (; next >= subnet.firstHost && together.length < probedTogether; next -= 1)
        if (mayBe(next)) together.push(formatIpv4(next))
      const answers = await Promise.all(together.map((candidate) => this.#parts.who(candidate)))
      const free = together.find((_, index) => answers[index]?.length === 0)
      if (free !== undefined) return free
    }
    throw new NoLane(`no address is left in ${cidr} for this laptop to speak from`)
  }
}

const keyOf = ({ mac, address }: LaneAsked): string => `${mac} ${address}`

function isWithin(candidate: number, { first, last }: AddressRange): boolean {
  return candidate >= (parseIpv4(first) ?? 0) && candidate <= (parseIpv4(last) ?? 0)
}
