/** Addresses that the laptop never speaks from, lest it takes one that a unit or somebody else is about to have. */
import type { Brief } from '../brief/brief'
import { serverAddresses } from '../brief/servers'
import type { AddressRange } from '../brief/subnet'

/**
 * @param brief    its management subnet, and the servers that it names
 * @param planned  addresses that the plan gives to units
 */
export function keptOff(brief: Brief, planned: Iterable<string>): AddressRange[] {
  const { gateway, dnsServers, reserved, dhcpPool } = brief.management
  const single = [gateway, ...dnsServers, ...reserved, ...serverAddresses(brief), ...planned].flatMap((address) =>
    address === null ? [] : [{ first: address, last: address }],
  )
  return dhcpPool ? [...single, dhcpPool] : single
}
