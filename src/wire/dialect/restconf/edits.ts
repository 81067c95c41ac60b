/**
 * What differs, as edits of one YANG Patch.
 *
 * In: differences and the whole that they lead to. Out: edits, one for each thing that is written whole: a network
 * with its security, a radio, the address with its gateway.
 */
import type { ConfigPart, Difference } from '../../../core/config/compare'
import type { UnitConfig } from '../../../core/config/unit-config'
import { entry } from '../../codec/resource-path'
import { toYangNetwork } from '../../codec/yang-data'
import type { YangEdit } from '../../codec/yang-patch'

type Edit = Omit<YangEdit, 'edit-id'>
/** Edits of one part for the keys that differ (names of networks, bands of radios; empty for parts without). */
type PartEdits = (wanted: UnitConfig, keys: readonly string[], managementInterface: string) => Edit[]

const system = '/ietf-system:system'
const wireless = '/air-muster-wireless:wireless'

const editsOf: Readonly<Record<ConfigPart, PartEdits>> = {
  country: (wanted) => [
    { operation: 'merge', target: wireless, value: { 'air-muster-wireless:wireless': { country: wanted.country } } },
  ],
  clock: (wanted) => [
    {
      operation: 'merge',
      target: `${system}/clock`,
      value: { 'ietf-system:clock': { 'timezone-name': wanted.clock.timeZone } },
    },
    {
      operation: 'replace',
      target: `${system}/ntp`,
      value: { 'ietf-system:ntp': { enabled: true, server: servers(wanted.clock.ntpServers, 'udp') } },
    },
  ],
  name: (wanted) => [
    { operation: 'merge', target: system, value: { 'ietf-system:system': { hostname: wanted.name } } },
  ],
  networks: (wanted, keys) =>
    keys.map((ssid) => {
      const network = wanted.networks.find((each) => each.ssid === ssid)
      const target = `${wireless}/${entry('network', ssid)}`
      return network
        ? { operation: 'replace', target, value: { 'air-muster-wireless:network': [toYangNetwork(network)] } }
        : { operation: 'remove', target }
    }),
  radios: (wanted, keys) =>
    wanted.radios
      .filter((radio) => keys.includes(radio.band))
      .map(({ band, enabled, channel, width, powerDbm }) => ({
        operation: 'replace',
        target: `${wireless}/${entry('radio', band)}`,
        value: { 'air-muster-wireless:radio': [{ band, enabled, channel, width, power: powerDbm }] },
      })),
  services: (wanted) => [
    {
      operation: 'merge',
      target: wireless,
      value: { 'air-muster-wireless:wireless': { lights: wanted.services.lights } },
    },
  ],
  management: (wanted, _keys, managementInterface) => {
    const { method, address, prefix, gateway, dnsServers } = wanted.management
    return [
      {
        operation: 'replace',
        target: `/ietf-interfaces:interfaces/${entry('interface', managementInterface)}/ietf-ip:ipv4`,
        value: {
          'ietf-ip:ipv4': {
            address: address === null ? [] : [{ ip: address, 'prefix-length': prefix }],
            'air-muster-wireless:method': method,
            ...(gateway === null ? {} : { 'air-muster-wireless:default-gateway': gateway }),
          },
        },
      },
      {
        operation: 'replace',
        target: `${system}/dns-resolver`,
        value: { 'ietf-system:dns-resolver': { server: servers(dnsServers, 'udp-and-tcp') } },
      },
    ]
  },
}

/** Edits in the order in which the differences come, each thing once. */
export function editsFor(differences: readonly Difference[], wanted: UnitConfig, managementInterface: string): Edit[] {
  const keysByPart = new Map<ConfigPart, Set<string>>()
  for (const { path } of differences) {
    const keys = keysByPart.get(path[0]) ?? new Set()
    if (path[1] !== undefined) keys.add(path[1])
    keysByPart.set(path[0], keys)
  }
  return [...keysByPart].flatMap(([part, keys]) => editsOf[part](wanted, [...keys], managementInterface))
}

function servers(addresses: readonly string[], transport: 'udp' | 'udp-and-tcp'): unknown[] {
  return addresses.map((address) => ({ name: address, [transport]: { address } }))
}
