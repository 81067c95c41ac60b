/**
 * The host port: what the laptop can do on the wire. One implementation is the operating system's, another the lab's.
 *
 * A lane is a private path to one unit by its MAC, so that units with one and the same address are worked at once.
 */

import type { Socket } from 'node:net'
import type { Lending } from '../../core/addressing/bench-subnet'
import type { OldCrypto } from '../../core/kit/old-crypto'
import { ToldError } from '../../core/message/told-error'
import type { Heard, Laptop } from '../../core/muster/events'
import type { NamedAddress } from './resolve'

/**
 * The laptop's own way to the wire does not answer: no fault of any unit. Whoever meets it waits until it is back.
 */
export class HostAwayError extends ToldError {
  override readonly name = 'HostAwayError'
}

export interface LaneTarget {
  readonly mac: string
  /** Address at which the unit is expected to answer. */
  readonly address: string
  /** Prefix length of the subnet that the laptop must share with it. */
  readonly prefix: number
  /** Addresses at which the unit's management service listens; IPv4 where nothing is said. */
  readonly by?: 'link-local' | 'ipv4' | 'both' | undefined
  /** What the unit may be spoken to with although it is no longer safe; nothing where nothing is said. */
  readonly old?: readonly OldCrypto[] | undefined
}

/** The way of datagrams (UDP) over a lane. */
export interface DatagramPath {
  readonly host: string
  readonly port: number
  /** Address of the laptop's that they are sent from. */
  readonly source: string
}

export interface Lane extends LaneTarget {
  /** The laptop's own address on this lane; never the unit's. */
  readonly source: string
  /**
   * Opens a TCP connection to the unit at the lane's end.
   * @throws WireError unreachable
   */
  connect(port: number): Promise<Socket>
  /**
   * Where datagrams to a port of the unit go, and from which address of the laptop's.
   * @throws WireError unreachable
   */
  datagrams(port: number): Promise<DatagramPath>
  /** Does the unit at the lane's end answer an ICMP echo? */
  ping(): Promise<boolean>
  close(): Promise<void>
}

export interface HeardOnLink extends Heard {
  /** Who says by LLDP what it is, in its own words. */
  readonly introductions: readonly { readonly mac: string; readonly words: string }[]
}

/** Of a host that lends no addresses. */
export const lendsNothing: Heard['lending'] = { state: 'cannot', leases: [] }

export interface Neighbour {
  readonly mac: string
  readonly address: string
}

/** Each of its questions throws HostAwayError where the laptop's way to the wire does not answer. */
export interface Host {
  readonly name: string
  /** How often lanes may have broken through no fault of a unit, so far: whoever made them had ended. */
  interruptions(): number
  laptop(): Promise<Laptop>
  /**
   * Whether it can be asked who has this address: without privilege only where the laptop shares its subnet. What
   * cannot be asked is not claimed to be free.
   */
  canAsk(address: string): Promise<boolean>
  /** Whether a unit is on the link by its MAC, whatever its IPv4 address; undefined where this host cannot tell. */
  onLink(mac: string): Promise<boolean | undefined>
  /** Everybody who answers ARP for this address: more than one MAC where units share it, none where it is free. */
  arp(address: string): Promise<string[]>
  /**
   * Everybody who answers ARP anywhere in these subnets, to find a unit by its MAC where nobody knows its address.
   * @param subnets  CIDR
   */
  neighbours(subnets: readonly string[]): Promise<Neighbour[]>
  /** IPv4 addresses of these names, as these name servers have them; a name that they do not know is left out. */
  resolve(names: readonly string[], servers: readonly string[]): Promise<NamedAddress[]>
  /** What is heard beside who answers; nothing where this host cannot listen. */
  heard(): Promise<HeardOnLink>
  /**
   * Addresses that the laptop never speaks from: the plan gives them to units, or a server hands them out.
   * @param ranges  first and last address of each
   */
  keepOff(ranges: readonly { readonly first: string; readonly last: string }[]): Promise<void>
  /**
   * Lends addresses to these MACs from now on, or to nobody: never where another server gives any. What became of it
   * is heard.
   */
  lend(to: Lending | null): Promise<void>
  /** VLANs in which units are or will be managed, with their tag: they are looked at beside what is untagged. */
  reachVlans(vlans: readonly number[]): Promise<void>
  /** Opens a lane, or hands out the one that is open to this MAC at this address. */
  openLane(target: LaneTarget): Promise<Lane>
  /** Puts the laptop back as it was: closes every lane and takes away every address that was added. */
  restore(): Promise<void>
}
