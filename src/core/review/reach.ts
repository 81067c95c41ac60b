/** Checks of addresses: ones that no host can have, and servers that no unit would reach. */

import { isHostOf, parseCidr, parseIpv4, whyNoHost } from '../address/ipv4'
import type { Brief } from '../brief/brief'
import type { AddressRange, Subnet } from '../brief/subnet'
import { type Message, message } from '../message/message'
import type { BriefFault } from './fault'

interface Named {
  readonly field: string
  readonly what: Message
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
      return why === undefined ? [] : [{ field, ...message('no-host-address', { what, address, why }), weight: 'mend' }]
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
            ...message('server-out-of-reach', { what, address }),
            weight: 'mend',
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
    { field: `${path}.cidr`, what: message('of-the-subnet'), address: cidr.split('/')[0] ?? '' },
    ...(gateway === null ? [] : [{ field: `${path}.gateway`, what: message('of-the-gateway'), address: gateway }]),
    ...endsOf(dhcpPool, `${path}.dhcpPool`, message('of-dhcp-pool-end')),
    ...endsOf(staticRange, `${path}.staticRange`, message('of-static-range-end')),
    ...reserved.map((address) => ({ field: `${path}.reserved`, what: message('of-reserved-address'), address })),
  ])
}

function endsOf(range: AddressRange | null, field: string, what: Message): Named[] {
  return range ? [range.first, range.last].map((address) => ({ field, what, address })) : []
}

/** Servers that units speak to, by their addresses; one that has a name is looked up by the unit itself. */
function servers({ management, ntpServers, networks }: Brief): Named[] {
  const isAddress = (text: string): boolean => parseIpv4(text) !== undefined
  return [
    ...management.dnsServers.map((address) => ({
      field: 'management.dnsServers',
      what: message('of-dns-server'),
      address,
    })),
    ...ntpServers
      .filter(isAddress)
      .map((address) => ({ field: 'ntpServers', what: message('of-time-server'), address })),
    ...networks.flatMap(({ radius, accounting }, index) => [
      ...radius.map(({ address }) => ({
        field: `networks.${index}.radius`,
        what: message('of-radius-server'),
        address,
      })),
      ...accounting.map(({ address }) => ({
        field: `networks.${index}.accounting`,
        what: message('of-accounting-server'),
        address,
      })),
    ]),
  ]
}

function syslog({ aftercare }: Brief): Named[] {
  return aftercare.syslog === null
    ? []
    : [{ field: 'aftercare.syslog', what: message('of-syslog-server'), address: aftercare.syslog }]
}
