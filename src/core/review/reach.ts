/** Checks of addresses: ones that no host can have, and servers that no unit would reach. */
import { isHostOf, parseCidr, parseIpv4, whyNoHost } from '../address/ipv4'
import type { Brief } from '../brief/brief'
import type { AddressRange, Subnet } from '../brief/subnet'
import type { BriefFault } from './fault'

interface Named {
  readonly field: string
  readonly what: string
  readonly address: string
}

export function reviewReach(brief: Brief): BriefFault[] {
  return [...noHosts(brief), ...outOfReach(brief)]
}

/** Loopback, multicast and the like (RFC 6890): a unit cannot have such an address, nor speak to it. */
function noHosts(brief: Brief): BriefFault[] {
  return [...ownAddresses(brief), ...servers(brief), ...syslog(brief)].flatMap(
    ({ field, what, address }): BriefFault[] => {
      const why = whyNoHost(address)
      return why === undefined
        ? []
        : [{ field, code: 'no-host-address', weight: 'mend', sentence: `${what} ${address} cannot be: ${why}.` }]
    },
  )
}

/** Is an address one that units reach? What lies beyond the site, by the gateway of management alone. */
export function isInReach({ management, subnets }: Pick<Brief, 'management' | 'subnets'>, address: string): boolean {
  const known = [management, ...subnets].flatMap(({ cidr }) => parseCidr(cidr) ?? [])
  return management.gateway !== null || known.some((cidr) => isHostOf(cidr, parseIpv4(address) ?? -1))
}

function outOfReach(brief: Brief): BriefFault[] {
  return servers(brief).flatMap(({ field, what, address }): BriefFault[] =>
    isInReach(brief, address)
      ? []
      : [
          {
            field,
            code: 'server-out-of-reach',
            weight: 'mend',
            sentence: `${what} ${address} is outside every subnet of the site, and management has no gateway: no unit would reach it.`,
          },
        ],
  )
}

function ownAddresses({ management, subnets }: Brief): Named[] {
  const all: readonly (readonly [string, Subnet])[] = [
    ['management', management],
    ...subnets.map((subnet, index) => [`subnets.${index}`, subnet] as const),
  ]
  return all.flatMap(([path, { cidr, gateway, dhcpPool, staticRange, reserved }]) => [
    { field: `${path}.cidr`, what: 'The subnet', address: cidr.split('/')[0] ?? '' },
    ...(gateway === null ? [] : [{ field: `${path}.gateway`, what: 'The gateway', address: gateway }]),
    ...endsOf(dhcpPool, `${path}.dhcpPool`, 'An end of the DHCP pool'),
    ...endsOf(staticRange, `${path}.staticRange`, 'An end of the static range'),
    ...reserved.map((address) => ({ field: `${path}.reserved`, what: 'The reserved address', address })),
  ])
}

function endsOf(range: AddressRange | null, field: string, what: string): Named[] {
  return range ? [range.first, range.last].map((address) => ({ field, what, address })) : []
}

/** Servers that units speak to, by their addresses; one that has a name is looked up by the unit itself. */
function servers({ management, ntpServers, networks }: Brief): Named[] {
  const isAddress = (text: string): boolean => parseIpv4(text) !== undefined
  return [
    ...management.dnsServers.map((address) => ({ field: 'management.dnsServers', what: 'The DNS server', address })),
    ...ntpServers.filter(isAddress).map((address) => ({ field: 'ntpServers', what: 'The time server', address })),
    ...networks.flatMap(({ radius, accounting }, index) => [
      ...radius.map(({ address }) => ({ field: `networks.${index}.radius`, what: 'The RADIUS server', address })),
      ...accounting.map(({ address }) => ({
        field: `networks.${index}.accounting`,
        what: 'The RADIUS accounting server',
        address,
      })),
    ]),
  ]
}

function syslog({ aftercare }: Brief): Named[] {
  return aftercare.syslog === null
    ? []
    : [{ field: 'aftercare.syslog', what: 'The syslog server', address: aftercare.syslog }]
}
