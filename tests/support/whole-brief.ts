/** Briefs that ask for as much as can be, as different from what a unit comes with as can be. */
import { type Brief, briefSchema } from '../../src/core/brief/brief'
import { demoBrief } from './data'

/** Every option of a network, with the security that old and new clients share. */
export const mixedBrief: Brief = briefSchema.parse({
  ...demoBrief,
  admin: {
    ...demoBrief.admin,
    furtherUsers: [
      { name: 'night-watch', role: 'reads' },
      { name: 'depot', role: 'administers' },
    ],
  },
  aftercare: {
    snmp: { user: 'watch' },
    syslog: '10.44.8.5',
    mail: { server: 'mail.example', to: 'site@client.example' },
    restart: { day: 'sun', at: '03:30' },
  },
  radio: { ...demoBrief.radio, beaconIntervalTu: 200 },
  networks: [
    {
      id: 'crew',
      ssid: 'Café, pier/2 = 100%',
      purpose: 'staff',
      bands: ['2.4', '5'],
      security: 'wpa3-wpa2-mixed',
      vlan: 46,
      hidden: true,
      isolation: true,
      multicastToUnicast: true,
      limits: { perClientKbps: 2048, sharedKbps: 20480, mostClients: 40 },
      hours: { days: ['mon', 'tue'], from: '07:00', to: '22:30' },
      steering: 'lean-to-5',
      steeringAboveDbm: -70,
      leastDbm: -82,
      fastRoaming: true,
      macList: { rule: 'deny', macs: ['02:00:00:00:00:01'] },
    },
    {
      id: 'office',
      ssid: 'Office',
      purpose: 'staff',
      bands: ['5'],
      security: 'wpa2-enterprise',
      radius: [{ address: '10.44.8.6' }, { address: '10.44.8.6', port: 1645 }],
      accounting: [{ address: '10.44.8.6' }],
      vlan: null,
      hidden: false,
      isolation: false,
    },
  ],
})

const [crew, office] = mixedBrief.networks

/** Every setting there is, with rates and bands that not every model takes as they are. */
export const wholeBrief: Brief = briefSchema.parse({
  ...mixedBrief,
  ntpServers: ['10.44.8.1', '10.44.8.2'],
  aftercare: { ...mixedBrief.aftercare, firmware: '2.0' },
  admin: { ...mixedBrief.admin, passwords: 'one-per-unit', lights: 'off' },
  radio: {
    ...mixedBrief.radio,
    bands: [
      { band: '2.4', width: 40, mode: 'n' },
      { band: '5', width: 40, mode: 'ac' },
    ],
  },
  networks: [
    {
      ...crew,
      security: 'wpa2-personal',
      pmf: 'optional',
      limits: { perClientKbps: 2100, sharedKbps: 20_500, mostClients: 40 },
    },
    { ...office, radius: [{ address: '10.44.8.6' }, { address: '10.44.8.7', port: 1645 }] },
  ],
})
