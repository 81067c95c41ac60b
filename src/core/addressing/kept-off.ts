/** Addresses that the laptop never speaks from, lest it takes one that a unit or somebody else is about to have. */
import type { AddressRange, Subnet } from '../brief/subnet'

/**
 * @param subnet   management subnet
 * @param planned  addresses that the plan gives to units
 */
export function keptOff(subnet: Subnet, planned: Iterable<string>): AddressRange[] {
  const single = [subnet.gateway, ...subnet.dnsServers, ...subnet.reserved, ...planned].flatMap((address) =>
    address === null ? [] : [{ first: address, last: address }],
  )
  return subnet.dhcpPool ? [...single, subnet.dhcpPool] : single
}
