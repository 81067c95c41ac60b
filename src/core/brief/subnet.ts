/**
 * A subnet of the site. In: what the client's network has. Out: a subnet with its gateway, its DHCP range and the
 * addresses that are left for units.
 */

import { z } from 'zod'
import { type Cidr, cidrSchema, formatIpv4, ipv4Schema, isHostOf, parseCidr, parseIpv4 } from '../address/ipv4'
import { lineSchema } from '../input/line'
import { messageText } from '../message/message'

export const vlanRule = messageText('vlan-unfit')
export const vlanSchema = z.int(vlanRule).min(1, vlanRule).max(4094, vlanRule)
export const rangeSchema = z.object({ first: ipv4Schema, last: ipv4Schema })
export type AddressRange = z.infer<typeof rangeSchema>

export const subnetSchema = z.object({
  name: lineSchema(60).min(1, messageText('subnet-without-name')),
  cidr: cidrSchema,
  vlan: vlanSchema.nullable(),
  gateway: ipv4Schema.nullable(),
  dnsServers: z.array(ipv4Schema).max(3),
  dhcpPool: rangeSchema.nullable(),
  /** Where static addresses are given out; null for anywhere outside the DHCP pool. */
  staticRange: rangeSchema.nullable().default(null),
  /** Addresses that are kept for something else. */
  reserved: z.array(ipv4Schema).max(256).default([]),
})
export type Subnet = z.infer<typeof subnetSchema>

/** Another VLAN of the site, beside management. */
export const siteSubnetSchema = subnetSchema.extend({ id: z.string().regex(/^[a-z0-9-]{1,32}$/) })
export type SiteSubnet = z.infer<typeof siteSubnetSchema>

/** The id by which rules name the management subnet. */
export const managementId = 'management'

/** Do two subnets share addresses? */
export function overlap(a: Cidr, b: Cidr): boolean {
  return a.network <= b.broadcast && b.network <= a.broadcast
}

/** An address moved to the same place within another subnet of the same size. */
function moved(text: string, from: Cidr, to: Cidr): string {
  const address = parseIpv4(text)
  if (address === undefined || !isHostOf(from, address)) return text
  return formatIpv4((to.network + (address - from.network)) >>> 0)
}

/** The subnet with all of its own addresses, moved to `cidr`, which has the same size. */
export function moveSubnet<S extends Subnet>(subnet: S, cidr: string): S {
  const from = parseCidr(subnet.cidr)
  const to = parseCidr(cidr)
  if (!from || !to) return subnet
  const one = (text: string): string => moved(text, from, to)
  const range = (of: AddressRange | null): AddressRange | null => of && { first: one(of.first), last: one(of.last) }
  return {
    ...subnet,
    cidr,
    gateway: subnet.gateway && one(subnet.gateway),
    dnsServers: subnet.dnsServers.map(one),
    dhcpPool: range(subnet.dhcpPool),
    staticRange: range(subnet.staticRange),
    reserved: subnet.reserved.map(one),
  }
}

/** The next subnet above of the same size that overlaps none of the taken ones; undefined where there is none. */
export function nextFreeCidr(cidr: string, taken: readonly string[]): string | undefined {
  const from = parseCidr(cidr)
  if (!from) return undefined
  const others = taken.flatMap((text) => parseCidr(text) ?? [])
  const size = from.broadcast - from.network + 1
  for (let network = from.network + size; network + size <= 2 ** 32; network += size) {
    const candidate = parseCidr(`${formatIpv4(network)}/${from.prefix}`)
    if (candidate && !others.some((other) => overlap(candidate, other))) return `${formatIpv4(network)}/${from.prefix}`
  }
  return undefined
}
