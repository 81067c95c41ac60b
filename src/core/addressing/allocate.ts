/**
 * Gives each unit a static management address.
 *
 * In: the subnet with its pool, what is taken, and the units in list order with what they have. Out: one address
 * for each unit. A unit keeps the address that it has for as long as that is still allowed, so that sorting,
 * inserting or removing rows moves nobody.
 */

import { type Cidr, formatIpv4, isHostOf, parseCidr, parseIpv4 } from '../address/ipv4'
import type { Subnet } from '../brief/subnet'
import { type Message, message } from '../message/message'

export interface AddressRequest {
  readonly unit: string
  /** The address that the unit was given before. */
  readonly reserved?: string | undefined
  /** A locked address goes before one that is merely reserved. */
  readonly locked?: boolean | undefined
  /** Those of rank 0, the controllers, get the lowest addresses of a new list. */
  readonly rank?: number | undefined
}

/** Where addresses run out, those who got one keep it, and the reason names the first who did not. */
export type Allocation =
  | { readonly ok: true; readonly addresses: ReadonlyMap<string, string> }
  | {
      readonly ok: false
      readonly reason: Message<'no-address-left' | 'no-address-left-in-range' | 'not-a-subnet'>
      readonly addresses: ReadonlyMap<string, string>
    }

/** First address offered to units: the lowest are left for gateways and servers. */
const leftForServers = 20

/**
 * @param subnet    management subnet with gateway, DNS servers and DHCP pool
 * @param requests  units in list order
 * @param inUse     addresses seen on the wire that belong to none of the units, and others that are reserved
 */
export function allocate(subnet: Subnet, requests: readonly AddressRequest[], inUse: readonly string[]): Allocation {
  const cidr = parseCidr(subnet.cidr)
  if (!cidr) return { ok: false, reason: message('not-a-subnet', { subnet: subnet.cidr }), addresses: new Map() }
  const avoided = addressesToAvoid(cidr, subnet, inUse)
  const given = new Map<string, string>()
  const taken = new Set<number>()
  const bounds = boundsOf(cidr, subnet)
  const keep = ({ unit, reserved }: AddressRequest): void => {
    const address = reserved === undefined ? undefined : parseIpv4(reserved)
    if (address === undefined || avoided.has(address) || taken.has(address) || !isHostOf(cidr, address)) return
    given.set(unit, formatIpv4(address))
    taken.add(address)
  }
  for (const request of requests) if (request.locked) keep(request)
  for (const request of requests) if (!request.locked) keep(request)

  let next = bounds.start
  const free = (): number | undefined => {
    for (let tried = bounds.first; tried <= bounds.last; tried += 1) {
      const candidate = next
      next = next >= bounds.last ? bounds.first : next + 1
      if (!avoided.has(candidate) && !taken.has(candidate)) return candidate
    }
    return undefined
  }
  const order = requests
    .map((request, index) => ({ ...request, index }))
    .sort((a, b) => (a.rank ?? 1) - (b.rank ?? 1) || a.index - b.index)
  for (const { unit } of order) {
    if (given.has(unit)) continue
    const address = free()
    if (address === undefined) {
      const { staticRange: range } = subnet
      const asked = { unit, count: taken.size }
      return {
        ok: false,
        addresses: given,
        reason: range
          ? message('no-address-left-in-range', { ...asked, first: range.first, last: range.last })
          : message('no-address-left', { ...asked, subnet: subnet.cidr }),
      }
    }
    given.set(unit, formatIpv4(address))
    taken.add(address)
  }
  return { ok: true, addresses: new Map(requests.map(({ unit }) => [unit, given.get(unit) ?? ''])) }
}

/** Where addresses are looked for: the static range, or the whole subnet from above what is left for servers. */
function boundsOf(cidr: Cidr, { staticRange }: Subnet): { first: number; last: number; start: number } {
  const first = Math.max(parseIpv4(staticRange?.first ?? '') ?? cidr.firstHost, cidr.firstHost)
  const last = Math.min(parseIpv4(staticRange?.last ?? '') ?? cidr.lastHost, cidr.lastHost)
  return { first, last, start: staticRange ? first : Math.min(cidr.firstHost + leftForServers - 1, cidr.lastHost) }
}

function addressesToAvoid(cidr: Cidr, subnet: Subnet, inUse: readonly string[]): Set<number> {
  const avoided = new Set<number>()
  for (const text of [subnet.gateway, ...subnet.dnsServers, ...subnet.reserved, ...inUse]) {
    const address = text === null ? undefined : parseIpv4(text)
    if (address !== undefined) avoided.add(address)
  }
  if (subnet.dhcpPool) {
    const first = Math.max(parseIpv4(subnet.dhcpPool.first) ?? cidr.firstHost, cidr.firstHost)
    const last = Math.min(parseIpv4(subnet.dhcpPool.last) ?? cidr.lastHost, cidr.lastHost)
    for (let address = first; address <= last; address += 1) avoided.add(address)
  }
  return avoided
}
