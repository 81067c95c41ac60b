/**
 * IPv4 addresses and subnets as numbers. In: dotted text. Out: numbers to compare and count with, and text again.
 */

import ipaddr from 'ipaddr.js'
import { z } from 'zod'
import { type Message, message, messageText } from '../message/message'

/** A subnet in CIDR notation, taken apart. Addresses are unsigned 32-bit numbers. */
export interface Cidr {
  readonly network: number
  readonly prefix: number
  readonly firstHost: number
  readonly lastHost: number
  readonly broadcast: number
}

/** Four decimal parts to a number; undefined where the text is anything else (no octal, no short forms). */
export function parseIpv4(text: string): number | undefined {
  if (!ipaddr.IPv4.isValidFourPartDecimal(text)) return undefined
  const [a = 0, b = 0, c = 0, d = 0] = ipaddr.IPv4.parse(text).octets
  return ((a << 24) | (b << 16) | (c << 8) | d) >>> 0
}

export function formatIpv4(address: number): string {
  return [24, 16, 8, 0].map((shift) => (address >>> shift) & 255).join('.')
}

/** The netmask of a prefix length, as a number. */
export function maskOf(prefix: number): number {
  return prefix === 0 ? 0 : (0xffffffff << (32 - prefix)) >>> 0
}

/** Prefix length of a netmask in dotted form; undefined where its ones do not all come first. */
export function prefixOfMask(text: string): number | undefined {
  const mask = parseIpv4(text)
  return mask === undefined ? undefined : prefixLengths.find((prefix) => maskOf(prefix) === mask)
}
const prefixLengths = Array.from({ length: 33 }, (_, prefix) => prefix)

/** Reads `10.44.8.0/24`. The address may be any within the subnet; undefined where the text is not a subnet. */
export function parseCidr(text: string): Cidr | undefined {
  const [addressText, prefixText, ...rest] = text.split('/')
  const address = parseIpv4(addressText ?? '')
  if (address === undefined || rest.length > 0 || !/^\d{1,2}$/.test(prefixText ?? '')) return undefined
  const prefix = Number(prefixText)
  if (prefix > 30) return undefined
  const mask = maskOf(prefix)
  const network = (address & mask) >>> 0
  const broadcast = (network | ~mask) >>> 0
  return { network, prefix, firstHost: network + 1, lastHost: broadcast - 1, broadcast }
}

/** Addresses that no host on a network has (RFC 6890, table 1 to 10; RFC 1112, 4). */
const noHosts: readonly (readonly [cidr: string, why: Message])[] = [
  ['0.0.0.0/8', message('no-host-this-host')],
  ['127.0.0.0/8', message('no-host-loopback')],
  ['224.0.0.0/4', message('no-host-multicast')],
  ['240.0.0.0/4', message('no-host-later-use')],
]

/** Why no host can have an address, in words; undefined where one can. */
export function whyNoHost(text: string): Message | undefined {
  const address = parseIpv4(text)
  return noHosts.find(([cidr]) => {
    const range = parseCidr(cidr)
    return address !== undefined && range && address >= range.network && address <= range.broadcast
  })?.[1]
}

/** Is the address one that a host of this subnet may have? */
export function isHostOf(subnet: Cidr, address: number): boolean {
  return address >= subnet.firstHost && address <= subnet.lastHost
}

/** Every address that a host of this subnet may have, lowest first. */
export function hostsOf({ firstHost, lastHost }: Cidr): string[] {
  return Array.from({ length: lastHost - firstHost + 1 }, (_, index) => formatIpv4(firstHost + index))
}

/** Do two addresses share a subnet of this prefix length? */
export function sameSubnet(a: string, b: string, prefix: number): boolean {
  const subnet = parseCidr(`${a}/${prefix}`)
  const other = parseIpv4(b)
  return subnet !== undefined && other !== undefined && other >= subnet.network && other <= subnet.broadcast
}

export const ipv4Schema = z.string().refine((text) => parseIpv4(text) !== undefined, {
  error: (issue) => messageText('address-not-ipv4', { text: String(issue.input) }),
})
export const cidrSchema = z.string().refine((text) => parseCidr(text) !== undefined, {
  error: (issue) => messageText('subnet-not-ipv4', { text: String(issue.input) }),
})
