/**
 * Addresses for other programs: reservations for two open DHCP servers, option values for controllers, a hosts file.
 *
 * In: the management subnet and the units with their planned addresses. Out: text in the form of each program.
 */

import { formatIpv4, maskOf, parseCidr } from '../address/ipv4'
import type { Brief } from '../brief/brief'
import { timeServerAddresses } from '../brief/servers'
import { hostNames } from './host-names'
import { type AddressedController, type AddressedUnit, vendorOptions } from './vendor-option'

export interface ExportInput {
  readonly brief: Brief
  readonly units: readonly AddressedUnit[]
  readonly controllers: readonly AddressedController[]
}

/** A comment ends with its line: whatever would end it early becomes a space. */
function onOneLine(text: string): string {
  return text.replace(/[\p{Cc}\p{Zl}\p{Zp}]+/gu, ' ')
}

/** Name of a network interface of Linux, as a server may be given one. */
export const interfaceNameRule = /^[A-Za-z0-9][A-Za-z0-9._:@-]{0,14}$/

/**
 * Configuration for ISC Kea DHCPv4, with a reservation for each unit and option 138 (RFC 5417) for controllers.
 *
 * @param interfaceName  of the server's, on which it is to serve; on none where it is left out
 */
export function keaConfig({ brief, units, controllers }: ExportInput, interfaceName: string | undefined): string {
  const { management } = brief
  const cidr = parseCidr(management.cidr)
  const names = hostNames(units.map(({ name }) => name))
  const timeServers = timeServerAddresses(brief)
  const options = [
    ...(management.gateway ? [{ name: 'routers', data: management.gateway }] : []),
    ...(management.dnsServers.length > 0
      ? [{ name: 'domain-name-servers', data: management.dnsServers.join(', ') }]
      : []),
    ...(timeServers.length > 0 ? [{ name: 'ntp-servers', data: timeServers.join(', ') }] : []),
    // Kea 2.2 names option 138 only from version 2.4 on, so it is given by its code.
    ...(controllers.length > 0
      ? [{ name: 'capwap-ac-v4', code: 138, space: 'dhcp4', data: controllers.map((each) => each.address).join(', ') }]
      : []),
  ]
  const classes = vendorOptions(controllers).map(({ vendorClass, hex }) => ({
    name: `vendor ${vendorClass}`,
    test: `substring(option[60].hex,0,${vendorClass.length}) == '${vendorClass}'`,
    // Raw bytes: what stands in it is the maker's own.
    'option-def': [{ name: 'vendor-encapsulated-options', code: 43, type: 'binary' }],
    'option-data': [{ name: 'vendor-encapsulated-options', data: hex.toUpperCase(), 'csv-format': false }],
  }))
  const config = {
    Dhcp4: {
      'interfaces-config': { interfaces: interfaceName === undefined ? [] : [interfaceName] },
      'lease-database': { type: 'memfile', persist: true },
      ...(classes.length > 0 ? { 'client-classes': classes } : {}),
      subnet4: [
        {
          id: 1,
          subnet: cidr ? `${formatIpv4(cidr.network)}/${cidr.prefix}` : management.cidr,
          pools: management.dhcpPool ? [{ pool: `${management.dhcpPool.first} - ${management.dhcpPool.last}` }] : [],
          'option-data': options,
          reservations: units.map(({ mac, address }, at) => ({
            'hw-address': mac,
            'ip-address': address,
            hostname: names[at],
          })),
        },
      ],
    },
  }
  return `${JSON.stringify(config, null, 2)}\n`
}

/** Configuration for dnsmasq, the same in its own words. */
export function dnsmasqConfig({ brief, units, controllers }: ExportInput): string {
  const { management } = brief
  const cidr = parseCidr(management.cidr)
  const mask = cidr ? formatIpv4(maskOf(cidr.prefix)) : ''
  const network = cidr ? formatIpv4(cidr.network) : ''
  const names = hostNames(units.map(({ name }) => name))
  const timeServers = timeServerAddresses(brief)
  return `${[
    `# ${onOneLine(management.name)}, ${management.cidr}: made by Air Muster`,
    management.dhcpPool
      ? `dhcp-range=${management.dhcpPool.first},${management.dhcpPool.last},${mask},12h`
      : `dhcp-range=${network},static,${mask}`,
    ...(management.gateway ? [`dhcp-option=option:router,${management.gateway}`] : []),
    ...(management.dnsServers.length > 0 ? [`dhcp-option=option:dns-server,${management.dnsServers.join(',')}`] : []),
    ...(timeServers.length > 0 ? [`dhcp-option=option:ntp-server,${timeServers.join(',')}`] : []),
    ...(controllers.length > 0
      ? [
          '# where access points find their controller (RFC 5417)',
          `dhcp-option=138,${controllers.map((each) => each.address).join(',')}`,
        ]
      : []),
    ...vendorOptions(controllers).flatMap(({ vendorClass, codes }) =>
      codes.map(({ code, addresses }) => `dhcp-option=vendor:${vendorClass},${code},${addresses.join(',')}`),
    ),
    ...units.map(({ mac, address }, at) => `dhcp-host=${mac},${address},${names[at]}`),
  ].join('\n')}\n`
}

/** Lines for a hosts file. */
export function hostsFile({ units }: ExportInput): string {
  const widest = Math.max(...units.map((unit) => unit.address.length), 0)
  const names = hostNames(units.map(({ name }) => name))
  return `${units.map(({ address }, at) => `${address.padEnd(widest)}  ${names[at]}`).join('\n')}\n`
}
