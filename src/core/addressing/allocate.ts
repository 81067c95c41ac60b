/**
 * Gives each unit a static management address.
 *
 * In: the subnet with its pool, what is taken, and the units in list order with what they have. Out: one address
 * for each unit. A unit keeps the address that it has for as long as that is still allowed, so that sorting,
 * inserting or removing rows moves nobody.
 */
import type { Subnet } from '../brief/brief'
import { type Cidr, formatIpv4, isHostOf, parseCidr, parseIpv4 } from './ipv4'

export interface AddressRequest {
  readonly unit: string
  /** The address that the unit was given before. */
  readonly held?: string | undefined
}

export type Allocation = { readonly ok: true; readonly addresses: ReadonlyMap<string, string> } | { readonly ok: false; readonly reason: string }

/** First address offered to units: the lowest are left for gateways and servers. */
const leftForServers = 20

/**
 * @param subnet    management subnet with gateway, DNS servers and DHCP pool
 * @param requests  units in list order
 * @param inUse     addresses seen on the wire that belong to none of the units, and others that are reserved
 */
export function allocate(subnet: Subnet, requests: readonly AddressRequest[], inUse: readonly string[]): Allocation {
  const cidr = parseCidr(subnet.cidr)
  if (!cidr) return { ok: false, reason: `${subnet.cidr} is not a subnet.` }
  const avoided = addressesToAvoid(cidr, subnet, inUse)
  const given = new Map<string, string>()
  const taken = new Set<number>()

  for (const { unit, held } of requests) {
    const address = held === undefined ? undefined : parseIpv4(held)
    if (address === undefined || avoided.has(address) || taken.has(address) || !isHostOf(cidr, address)) continue
    given.set(unit, formatIpv4(address))
    taken.add(address)
  }
  let next = Math.min(cidr.firstHost + leftForServers - 1, cidr.lastHost)
  const free = (): number | undefined => {
    for (let tried = cidr.firstHost; tried <= cidr.lastHost; tried += 1) {
      const candidate = next
      next = next >= cidr.lastHost ? cidr.firstHost : next + 1
      if (!avoided.has(candidate) && !taken.has(candidate)) return candidate
    }
    return undefined
  }
  for (const { unit } of requests) {
    if (given.has(unit)) continue
    const address = free()
    if (address === undefined)
      return {
        ok: false,
        reason: `${subnet.cidr} has no address left for ${unit}: ${taken.size} units have one, and the rest is the DHCP pool, the gateway or in use. Make the pool smaller or the subnet larger.`,
      }
    given.set(unit, formatIpv4(address))
    taken.add(address)
  }
  return { ok: true, addresses: new Map(requests.map(({ unit }) => [unit, given.get(unit) ?? ''])) }
}

function addressesToAvoid(cidr: Cidr, subnet: Subnet, inUse: readonly string[]): Set<number> {
  const avoided = new Set<number>()
  for (const text of [subnet.gateway, ...subnet.dnsServers, ...inUse]) {
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
