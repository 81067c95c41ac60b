/**
 * The lab's wire: one switch, the laptop and the stand-ins that are plugged in. It keeps the rules of a real one:
 * a reply needs a laptop address in the same subnet, and an address that several units have is answered by all.
 */
import { formatIpv4, parseCidr, parseIpv4, sameSubnet } from '../core/address/ipv4'
import type { Heard, Laptop } from '../core/muster/events'
import type { LabAsk } from '../core/rehearsal/lab-wire'
import type { Device } from './device/device'
import type { DhcpServer } from './device/site'
import type { Front } from './fronts/front'
import type { SnmpAgent } from './fronts/snmp-agent'

export interface PluggedUnit {
  readonly unit: Device
  readonly front: Front
  readonly agent: SnmpAgent
  cable: 'in' | 'out'
}

export interface LabWireOptions {
  readonly pace: number
  /** Addresses that the laptop came with, CIDR. */
  readonly ownAddresses?: readonly string[] | undefined
  /** VLANs that its port carries with a tag. */
  readonly vlans?: readonly number[] | undefined
  readonly dhcp?: DhcpServer | undefined
  /** Loopback port behind every open port that nobody speaks to. */
  readonly doorPort: number
}

const snmpPort = 161

type Target = LabAsk<'open-lane'>

export class LabWire {
  readonly #units: readonly PluggedUnit[]
  readonly #pace: number
  readonly #ownAddresses: readonly string[]
  #added: string[] = []
  readonly #lanes = new Map<string, { target: Target; source: string }>()

  #keptOff: readonly (readonly [number, number])[] = []
  readonly #vlans: readonly number[]
  readonly #dhcp: DhcpServer | undefined
  readonly #doorPort: number

  constructor(units: readonly PluggedUnit[], { pace, ownAddresses, vlans, dhcp, doorPort }: LabWireOptions) {
    this.#units = units
    this.#pace = pace
    this.#ownAddresses = ownAddresses ?? ['10.44.8.250/24']
    this.#vlans = vlans ?? []
    this.#dhcp = dhcp
    this.#doorPort = doorPort
  }

  laptop(): Laptop {
    return {
      interfaceName: 'lab0',
      addresses: [
        ...this.#ownAddresses.map((cidr) => ({ cidr, origin: 'own' as const })),
        ...this.#added.map((cidr) => ({ cidr, origin: 'added' as const })),
      ],
      lanes: this.#lanes.size,
      vlans: [...this.#vlans],
      silentVlans: [],
      vlanFault: null,
      pace: this.#pace,
    }
  }

  /** ARP works without an address of our own (RFC 5227 probe): everybody who has the address answers. */
  arp(address: string): string[] {
    return this.#answering()
      .filter(({ unit }) => unit.address === address)
      .map(({ unit }) => unit.identity.mac)
  }

  neighbours(subnets: readonly string[]): { mac: string; address: string }[] {
    return this.#answering().flatMap(({ unit }) => {
      const { address } = unit
      const within = (cidr: string): boolean => {
        const [base = '', prefix] = cidr.split('/')
        return address !== null && sameSubnet(base, address, Number(prefix))
      }
      return address !== null && subnets.some(within) ? [{ mac: unit.identity.mac, address }] : []
    })
  }

  onLink(): { mac: string; address: string | null }[] {
    return this.#answering().map(({ unit }) => ({ mac: unit.identity.mac, address: unit.address }))
  }

  /** What units say of themselves by LLDP, where their firmware speaks it. */
  introductions(): { mac: string; words: string }[] {
    return this.#answering().flatMap(({ unit }) => {
      const { lldp } = unit.sheet
      return lldp === null ? [] : [{ mac: unit.identity.mac, words: lldp }]
    })
  }

  /** Who serves DHCP. */
  servers(): Heard['servers'] {
    return this.#dhcp ? [this.#dhcp.introduce()] : []
  }

  openLane(target: Target): string {
    const key = `${target.mac} ${target.address}`
    const open = this.#lanes.get(key)
    if (open) return open.source
    const source = this.#sourceFor(target)
    this.#lanes.set(key, { target, source })
    return source
  }

  keepOff(ranges: LabAsk<'keep-off'>['ranges']): void {
    this.#keptOff = ranges.map(({ first, last }) => [parseIpv4(first) ?? 0, parseIpv4(last) ?? 0])
  }

  closeLane({ mac, address }: Target): void {
    this.#lanes.delete(`${mac} ${address}`)
  }

  /** Loopback port of the unit at the end of this lane; null where nothing answers. */
  dial(target: Target & { port: number }): number | null {
    const reached = this.#at(target)
    if (!reached?.unit.serviceIsUp) return null
    const own = reached.front.loopbackPort(target.port)
    if (own !== undefined) return own
    return reached.unit.openPorts.includes(target.port) ? this.#doorPort : null
  }

  /** Loopback port that takes the unit's datagrams; null where nothing does. */
  datagrams(target: Target & { port: number }): number | null {
    const reached = this.#at(target)
    if (!reached?.unit.serviceIsUp) return null
    return target.port === snmpPort ? reached.agent.port : (reached.front.datagramPort?.(target.port) ?? null)
  }

  ping(target: Target): boolean {
    const reached = this.#at(target)
    return reached !== undefined && !reached.unit.sheet.ignoresPing
  }

  restore(): void {
    this.#lanes.clear()
    this.#added = []
  }

  #at(target: Target): PluggedUnit | undefined {
    const lane = this.#lanes.get(`${target.mac} ${target.address}`)
    if (!lane || !sameSubnet(lane.source, target.address, target.prefix)) return undefined
    return this.#answering().find(({ unit }) => unit.identity.mac === target.mac && unit.address === target.address)
  }

  /** Units with a cable and a network stack that is up. */
  #answering(): PluggedUnit[] {
    const carried = (vlan: number | null): boolean => vlan === null || this.#vlans.includes(vlan)
    return this.#units.filter(({ unit, cable }) => cable === 'in' && unit.networkIsUp && carried(unit.vlan))
  }

  /** An address of the unit's subnet for this lane, from the top; never the unit's own, nor one in use. */
  #sourceFor({ address, prefix }: Target): string {
    const cidr = `${address}/${prefix}`
    const subnet = parseCidr(cidr)
    if (!subnet) throw new RangeError(`${cidr} is not a subnet`)
    const inUse = new Set([...this.#lanes.values()].map((lane) => lane.source))
    for (let candidate = subnet.lastHost; candidate >= subnet.firstHost; candidate -= 1) {
      const text = formatIpv4(candidate)
      if (this.#keptOff.some(([first, last]) => candidate >= first && candidate <= last)) continue
      if (text === address || inUse.has(text) || this.arp(text).length > 0) continue
      if (this.#ownAddresses.some((own) => parseIpv4(own.split('/')[0] ?? '') === candidate)) continue
      const reaches = [...this.#ownAddresses, ...this.#added].some((own) =>
        sameSubnet(own.split('/')[0] ?? '', address, prefix),
      )
      if (!reaches) this.#added.push(`${text}/${prefix}`)
      return text
    }
    throw new RangeError(`no address is left in ${cidr}`)
  }
}
