/** What a stand-in is and does, as one tree: its configuration with the state that the modules ask for. */
import type { AccessPoint } from './access-point'

/** RFC 8343: an interface tells its state and since when its counters count. */
export function interfaceState(unit: AccessPoint): Record<string, unknown> {
  return {
    name: unit.sheet.managementInterface,
    type: 'iana-if-type:ethernetCsmacd',
    'oper-status': 'up',
    'phys-address': unit.identity.mac,
    statistics: { 'discontinuity-time': '2026-01-01T00:00:00Z' },
  }
}

export function operationalData(unit: AccessPoint): Record<string, unknown> {
  const { interface: interfaces } = unit.configuration['ietf-interfaces:interfaces']
  return {
    ...unit.configuration,
    'ietf-interfaces:interfaces': {
      interface: interfaces.map((each) =>
        each.name === unit.sheet.managementInterface ? { ...interfaceState(unit), ...each } : each,
      ),
    },
    'air-muster-wireless:wireless-state': unit.air(),
  }
}
