import type { ManagedPoint } from '../../src/lab/device/device-settings'

/** An access point that a stand-in of a controller lets join, and was told nothing more of. */
export const blankPoint: Omit<ManagedPoint, 'mac' | 'name'> = {
  location: '',
  networks: [],
  radios: [],
  wired: { method: 'dhcp', address: null, prefix: null, vlan: null },
  gateway: null,
  controllers: [],
}
