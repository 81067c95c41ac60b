/** What a stand-in is set to as it comes out of its box. */
import { type DeviceNetwork, type DeviceSettings, plainNetwork } from './device-settings'
import type { StandInSheet } from './stand-in-sheet'

export interface Identity {
  readonly mac: string
  readonly serial: string
  /** What of it is on air out of its box, whatever its radios' sheet says: nothing, or its network without security. */
  readonly ships?: 'silent' | 'open'
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
    administrators: [factory.login.user],
    administratorsMay: false,
    wired: factory.asksDhcp
      ? { method: 'dhcp', address: null, prefix: null, vlan: null }
      : { method: 'static', address: factory.address, prefix: factory.prefix, vlan: null },
    gateway: null,
    networks: factoryNetworks(sheet, identity),
    radios: identity.ships === 'open' ? factory.radios.map((each) => ({ ...each, on: true })) : [...factory.radios],
    httpsOnly: false,
    ssh: true,
    telnet: true,
    lights: true,
    syslog: null,
    mail: null,
    restart: null,
    snmp: null,
    pushed: null,
    controllers: [],
    points: [],
  }
}

/** Id of the network that it comes with, where networks are kept by the unit. */
export const shippedNetwork = 'factory'

/**
 * One network that is there, switched off or on air for whoever sets it up; in the first place of each radio, where
 * radios have places.
 */
function factoryNetworks(sheet: StandInSheet, { mac, serial, ships }: Identity): DeviceNetwork[] {
  const { factory, slots } = sheet
  const bands = factory.radios.map(({ band }) => band)
  const network = (id: string, on: typeof bands): DeviceNetwork => ({
    ...plainNetwork,
    id,
    name: sheet.namesNetworkByMac ? `${factory.network}-${mac.slice(-5).replace(':', '')}` : factory.network,
    bands: on,
    ...(ships === 'open'
      ? { on: true, mode: 'open', passphrase: null }
      : { mode: 'wpa2-personal', passphrase: serial.padEnd(8, '0') }),
  })
  if (bands.length === 0) return []
  return slots === null ? [network(shippedNetwork, bands)] : bands.map((band) => network(`${band}-1`, [band]))
}
