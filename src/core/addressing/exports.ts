/**
 * Addresses for other programs: reservations for two open DHCP servers, option values for controllers, a hosts file.
 *
 * In: the management subnet and the units with their planned addresses. Out: text in the form of each program.
 */
import type { Brief } from '../brief/brief'
import { formatIpv4, parseCidr, parseIpv4 } from './ipv4'
import { maskOf } from './laptop'

export interface AddressedUnit {
  readonly name: string
  readonly mac: string
  readonly address: string
}

export interface AddressedController extends AddressedUnit {
  /** Code under which its access points look within option 43; undefined where they do not. */
  readonly option43Code: number | undefined
}

export interface ExportInput {
  readonly brief: Brief
  readonly units: readonly AddressedUnit[]
  readonly controllers: readonly AddressedController[]
}

/** Names that DNS takes (RFC 1123): letters, digits, dashes. */
function hostName(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^a-z0-9-]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 63) || 'unit'
  )
}

/** A comment ends with its line: whatever would end it early becomes a space. */
function onOneLine(text: string): string {
  return text.replace(/[\p{Cc}\p{Zl}\p{Zp}]+/gu, ' ')
}

/** Value of option 43 (RFC 2132, 8.4): for each code its length and the addresses of its controllers, as bytes. */
export function option43(controllers: readonly AddressedController[]): string | undefined {
  const codes = [...new Set(controllers.flatMap((each) => each.option43Code ?? []))]
  if (codes.length === 0) return undefined
  const bytes = codes.flatMap((code) => {
    const addresses = controllers
      .filter((each) => each.option43Code === code)
      .map((each) => parseIpv4(each.address) ?? 0)
    return [
      code,
      addresses.length * 4,
      ...addresses.flatMap((address) => [24, 16, 8, 0].map((shift) => (address >>> shift) & 255)),
    ]
  })
  return bytes.map((byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** Configuration for ISC Kea DHCPv4, with a reservation for each unit and option 138 (RFC 5417) for controllers. */
export function keaConfig({ brief, units, controllers }: ExportInput): string {
  const { management } = brief
  const cidr = parseCidr(management.cidr)
  const vendor = option43(controllers)
  const options = [
    ...(management.gateway ? [{ name: 'routers', data: management.gateway }] : []),
    ...(management.dnsServers.length > 0
      ? [{ name: 'domain-name-servers', data: management.dnsServers.join(', ') }]
      : []),
    // Kea 2.2 names option 138 only from version 2.4 on, so it is given by its code.
    ...(controllers.length > 0
      ? [{ name: 'capwap-ac-v4', code: 138, space: 'dhcp4', data: controllers.map((each) => each.address).join(', ') }]
      : []),
    ...(vendor
      ? [{ name: 'vendor-encapsulated-options', code: 43, 'csv-format': false, data: vendor.toUpperCase() }]
      : []),
  ]
  const config = {
    Dhcp4: {
      'interfaces-config': { interfaces: [] },
      'lease-database': { type: 'memfile', persist: false },
      subnet4: [
        {
          id: 1,
          subnet: cidr ? `${formatIpv4(cidr.network)}/${cidr.prefix}` : management.cidr,
          pools: management.dhcpPool ? [{ pool: `${management.dhcpPool.first} - ${management.dhcpPool.last}` }] : [],
          'option-data': options,
          reservations: units.map(({ name, mac, address }) => ({
            'hw-address': mac,
            'ip-address': address,
            hostname: hostName(name),
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
  const mask = cidr ? maskOf(cidr.prefix) : ''
  const network = cidr ? formatIpv4(cidr.network) : ''
  const vendor = option43(controllers)
  return `${[
    `# ${onOneLine(management.name)}, ${management.cidr}: made by Air Muster`,
    management.dhcpPool
      ? `dhcp-range=${management.dhcpPool.first},${management.dhcpPool.last},${mask},12h`
      : `dhcp-range=${network},static,${mask}`,
    ...(management.gateway ? [`dhcp-option=option:router,${management.gateway}`] : []),
    ...(management.dnsServers.length > 0 ? [`dhcp-option=option:dns-server,${management.dnsServers.join(',')}`] : []),
    ...(controllers.length > 0
      ? [
          '# where access points find their controller (RFC 5417)',
          `dhcp-option=138,${controllers.map((each) => each.address).join(',')}`,
        ]
      : []),
    ...(vendor ? [`dhcp-option=43,${vendor.match(/../g)?.join(':')}`] : []),
    ...units.map(({ name, mac, address }) => `dhcp-host=${mac},${address},${hostName(name)}`),
  ].join('\n')}\n`
}

/** Lines for a hosts file. */
export function hostsFile({ units }: ExportInput): string {
  const widest = Math.max(...units.map((unit) => unit.address.length), 0)
  return `${units.map(({ name, address }) => `${address.padEnd(widest)}  ${hostName(name)}`).join('\n')}\n`
}
