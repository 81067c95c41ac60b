/** The files for servers, word for word: with everything in them, and with nothing. */
import { describe, expect, it } from 'vitest'
import { cardOf, demoBrief } from '../../../tests/support/data'
import type { Brief } from '../brief/brief'
import { dnsmasqConfig, type ExportInput, hostsFile, keaConfig } from './exports'
import { keptOff } from './kept-off'
import { vendorOf, vendorOptions } from './vendor-option'

const withManagement = (part: Partial<Brief['management']>): Brief => ({
  ...demoBrief,
  ntpServers: ['time.example'],
  management: { ...demoBrief.management, ...part },
})
const controller = (name: string, address: string, vendor?: { class: string; code: number }) => ({
  ...{ name, mac: '02:7a:c1:00:5e:01', address },
  vendor,
})
const full = (): ExportInput => ({
  brief: {
    ...withManagement({
      cidr: '10.44.8.0/23',
      gateway: '10.44.8.1',
      dnsServers: ['10.44.8.2', '10.44.8.3'],
      dhcpPool: { first: '10.44.9.10', last: '10.44.9.99' },
      name: 'Quay\u2028\n\tside',
    }),
    ntpServers: ['10.44.8.4', 'time.example', '192.0.2.123'],
  },
  units: [
    { name: 'Hall 1', mac: '02:4f:52:10:6a:2c', address: '10.44.8.121' },
    { name: 'Hall 2', mac: '02:4f:52:10:6a:2d', address: '10.44.8.9' },
  ],
  controllers: [
    controller('rack-1', '10.44.8.20', { class: 'Tarnhelm AP', code: 7 }),
    controller('rack-2', '10.44.8.21', { class: 'Tarnhelm AP', code: 7 }),
    controller('rack-3', '10.44.8.22', { class: 'Tarnhelm AP', code: 9 }),
    controller('rack-4', '10.44.8.23', { class: 'Other AP', code: 1 }),
    controller('rack-5', '10.44.8.24'),
  ],
})
const bare = (): ExportInput => ({
  brief: withManagement({ cidr: '10.44.8.0/24', gateway: null, dnsServers: [], dhcpPool: null, name: 'Plain' }),
  units: [],
  controllers: [],
})

describe('dnsmasq is given', () => {
  it('all that the brief has, a line each', () => {
    expect(dnsmasqConfig(full())).toBe(
      [
        '# Quay side, 10.44.8.0/23: made by Air Muster',
        'dhcp-range=10.44.9.10,10.44.9.99,255.255.254.0,12h',
        'dhcp-option=option:router,10.44.8.1',
        'dhcp-option=option:dns-server,10.44.8.2,10.44.8.3',
        // A name has no place in option 42 (RFC 2132, 8.3).
        'dhcp-option=option:ntp-server,10.44.8.4,192.0.2.123',
        '# where access points find their controller (RFC 5417)',
        'dhcp-option=138,10.44.8.20,10.44.8.21,10.44.8.22,10.44.8.23,10.44.8.24',
        'dhcp-option=vendor:Tarnhelm AP,7,10.44.8.20,10.44.8.21',
        'dhcp-option=vendor:Tarnhelm AP,9,10.44.8.22',
        'dhcp-option=vendor:Other AP,1,10.44.8.23',
        'dhcp-host=02:4f:52:10:6a:2c,10.44.8.121,hall-1',
        'dhcp-host=02:4f:52:10:6a:2d,10.44.8.9,hall-2',
        '',
      ].join('\n'),
    )
  })

  it('a subnet of reservations alone, where it is to hand out nothing else', () => {
    expect(dnsmasqConfig(bare())).toBe(
      '# Plain, 10.44.8.0/24: made by Air Muster\ndhcp-range=10.44.8.0,static,255.255.255.0\n',
    )
  })
})

describe('Kea is given', () => {
  it('all that the brief has', () => {
    const { Dhcp4 } = JSON.parse(keaConfig(full(), 'br0'))
    expect(Dhcp4['interfaces-config']).toEqual({ interfaces: ['br0'] })
    expect(Dhcp4['client-classes'].map((each: { name: string; test: string }) => [each.name, each.test])).toEqual([
      ['vendor Tarnhelm AP', "substring(option[60].hex,0,11) == 'Tarnhelm AP'"],
      ['vendor Other AP', "substring(option[60].hex,0,8) == 'Other AP'"],
    ])
    for (const each of Dhcp4['client-classes'])
      expect(each['option-def']).toEqual([{ name: 'vendor-encapsulated-options', code: 43, type: 'binary' }])
    expect(Dhcp4.subnet4).toEqual([
      {
        id: 1,
        subnet: '10.44.8.0/23',
        pools: [{ pool: '10.44.9.10 - 10.44.9.99' }],
        'option-data': [
          { name: 'routers', data: '10.44.8.1' },
          { name: 'domain-name-servers', data: '10.44.8.2, 10.44.8.3' },
          { name: 'ntp-servers', data: '10.44.8.4, 192.0.2.123' },
          {
            ...{ name: 'capwap-ac-v4', code: 138, space: 'dhcp4' },
            data: '10.44.8.20, 10.44.8.21, 10.44.8.22, 10.44.8.23, 10.44.8.24',
          },
        ],
        reservations: [
          { 'hw-address': '02:4f:52:10:6a:2c', 'ip-address': '10.44.8.121', hostname: 'hall-1' },
          { 'hw-address': '02:4f:52:10:6a:2d', 'ip-address': '10.44.8.9', hostname: 'hall-2' },
        ],
      },
    ])
  })

  it('nothing that the brief has not, and serves nowhere until it is told', () => {
    expect(JSON.parse(keaConfig(bare(), undefined))).toEqual({
      Dhcp4: {
        'interfaces-config': { interfaces: [] },
        'lease-database': { type: 'memfile', persist: true },
        subnet4: [{ id: 1, subnet: '10.44.8.0/24', pools: [], 'option-data': [], reservations: [] }],
      },
    })
  })
})

it('a hosts file has its names below each other, and is one line without units', () => {
  expect(hostsFile(full())).toBe('10.44.8.121  hall-1\n10.44.8.9    hall-2\n')
  expect(hostsFile(bare())).toBe('\n')
})

describe('option 43', () => {
  it('has for each code its length and its addresses (RFC 2132, 8.4)', () => {
    expect(vendorOptions(full().controllers).map(({ vendorClass, codes, hex }) => [vendorClass, codes, hex])).toEqual([
      [
        'Tarnhelm AP',
        [
          { code: 7, addresses: ['10.44.8.20', '10.44.8.21'] },
          { code: 9, addresses: ['10.44.8.22'] },
        ],
        '07080a2c08140a2c081509040a2c0816',
      ],
      ['Other AP', [{ code: 1, addresses: ['10.44.8.23'] }], '01040a2c0817'],
    ])
  })

  it('is looked for as the card says; by no card without a class of its own', () => {
    expect(vendorOf(cardOf('Tarnhelm C1'))).toEqual({ class: 'Tarnhelm AP', code: 7 })
    expect(vendorOf(cardOf('Ostrel O-40'))).toBeUndefined()
    expect(vendorOf({ discovery: { option43Code: 3 } })).toBeUndefined()
  })
})

it('the laptop keeps off gateway, servers, reserved and planned addresses, and the whole pool', () => {
  const brief = {
    ...withManagement({
      ...{ gateway: '10.44.8.1', dnsServers: ['10.44.8.2'], reserved: ['10.44.8.7'] },
      dhcpPool: { first: '10.44.8.100', last: '10.44.8.199' },
    }),
    ntpServers: ['10.44.8.9', 'time.example'],
  }
  const only = (address: string) => ({ first: address, last: address })
  expect(keptOff(brief, ['10.44.8.20'])).toEqual([
    ...['10.44.8.1', '10.44.8.2', '10.44.8.7', '10.44.8.9', '10.44.8.20'].map(only),
    { first: '10.44.8.100', last: '10.44.8.199' },
  ])
  const bareSite = withManagement({ gateway: null, dnsServers: [], reserved: [], dhcpPool: null })
  expect(keptOff(bareSite, [])).toEqual([])
})
