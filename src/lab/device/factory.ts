/** What a stand-in is set to as it comes out of its box. */
import { type DeviceSettings, plainNetwork } from './device-settings'
import type { StandInSheet } from './sheet'

export interface Identity {
  readonly mac: string
  readonly serial: string
}

export function factorySettings(sheet: StandInSheet, identity: Identity): DeviceSettings {
  const { factory, model, zones } = sheet
  return {
    name: `${model.toLowerCase().replace(' ', '-')}-${identity.mac.slice(-5).replace(':', '')}`,
    location: '',
    country: factory.country,
    environment: null,
    zoneName: zones === 'names' ? 'Etc/UTC' : null,
    zoneRule: zones === 'rules' ? 'UTC0' : null,
    timeServers: [],
    nameServers: [],
    users: [factory.login.user],
    wired: factory.asksDhcp
      ? { method: 'dhcp', address: null, prefix: null, vlan: null }
      : { method: 'static', address: factory.address, prefix: factory.prefix, vlan: null },
    gateway: null,
    networks: [
      {
        ...plainNetwork,
        id: 'factory',
        name: factory.network,
        bands: factory.radios.map(({ band }) => band),
        mode: 'wpa2-personal',
        passphrase: identity.serial.padEnd(8, '0'),
      },
    ],
    radios: [...factory.radios],
    httpsOnly: false,
    ssh: true,
    telnet: true,
    lights: true,
    syslog: null,
    mail: null,
    restart: null,
    snmp: null,
  }
}
