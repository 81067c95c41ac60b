import { expect, it } from 'vitest'
import { cardOf, cards, demoBrief } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { type Brief, briefSchema } from '../brief/brief'
import type { Unit } from '../kit/unit'
import { siteSheet } from './site-sheet'

const unit = (id: string, model: string, sitePort: string): Unit => ({
  id,
  name: id,
  location: '',
  model,
  mac: '02:4f:52:00:00:01',
  serial: '',
  port: null,
  siteSwitch: sitePort === '' ? '' : 'closet',
  sitePort,
})
const brief: Brief = briefSchema.parse({
  ...demoBrief,
  subnets: [
    {
      id: 'crew',
      name: 'Crew',
      cidr: '10.44.12.0/24',
      vlan: 46,
      gateway: '10.44.12.1',
      dnsServers: ['10.44.8.1'],
      dhcpPool: { first: '10.44.12.20', last: '10.44.12.250' },
    },
  ],
  talks: [{ from: 'management', to: 'crew' }],
  networks: [
    ...demoBrief.networks,
    { ...demoBrief.networks[0], id: 'guests', ssid: 'Guests', vlan: 47, bands: ['2.4'] },
    { ...demoBrief.networks[0], id: 'six', ssid: 'Six', vlan: 48, bands: ['6'] },
  ],
})
const job = (part: Partial<Parameters<typeof siteSheet>[0]>): Parameters<typeof siteSheet>[0] => ({
  ...{ brief, units: [], cards, plans: new Map() },
  ...part,
})
const units = [
  unit('hall-02', 'Ostrel O-40', 'A2'),
  unit('hall-01', 'Ostrel O-20', 'A1'),
  unit('link', 'Windrow W5', ''),
  unit('control', 'Tarnhelm C1', 'A10'),
  unit('switch', 'Lowbeam L24', ''),
]

it('tells whoever runs router and switch what the units count on', () => {
  const sheet = siteSheet(job({ brief, units }))
  expect(sheet.subnets).toMatchObject([
    {
      name: 'Management',
      vlan: 44,
      gateway: '10.44.8.1',
      pool: { first: '10.44.8.100', last: '10.44.8.199' },
      networks: [],
    },
    { name: 'Crew', vlan: 46, pool: { first: '10.44.12.20', last: '10.44.12.250' }, networks: ['Ellery Crew'] },
  ])
  expect(sheet.talks).toEqual([
    { from: 'Management', to: ['Crew'] },
    { from: 'Crew', to: [] },
  ])
  // Networks without a subnet of the brief: somebody else serves them.
  expect(sheet.unserved).toEqual([47, 48])
  expect(english(sheet.options)).toEqual([
    'Option 3, router, on management: 10.44.8.1.',
    'Option 42, time servers, on management: 10.44.8.1.',
  ])
})

it('tells of time servers by name that no option has them, and where controllers are', () => {
  const plans = new Map([['control', { unit: 'control', address: '10.44.8.20', radios: [] }]])
  const { options } = siteSheet(job({ brief: { ...brief, ntpServers: ['time.example'] }, units, plans }))
  expect(english(options)).toEqual([
    'Option 3, router, on management: 10.44.8.1.',
    'Units ask the time of time.example by name: no option tells that.',
    'Option 138, controllers (RFC 5417), on management: 10.44.8.20.',
    'Option 43, on management, for clients whose option 60 is "Tarnhelm AP": 07040a2c0814.',
  ])
})

it('says that frames without a tag are those of management where that has no VLAN', () => {
  const plain = { ...brief, management: { ...brief.management, vlan: null } }
  expect(siteSheet(job({ brief: plain, units })).ports[0]).toMatchObject({ native: 'management', tagged: [46, 47] })
})

it(
  'has VLANs of clients behind a controller at the access points, or at the controller to which they are ' +
    'tunnelled',
  () => {
    const behind = [unit('control', 'Tarnhelm C1', 'A4'), unit('quay', 'Tarnhelm T2', 'A5')]
    const ports = (of: typeof cards) =>
      siteSheet(job({ units: behind, cards: of })).ports.map(({ unit: name, tagged }) => [name, tagged])
    expect(ports(cards)).toEqual([
      ['control', []],
      ['quay', [46, 47, 48]],
    ])
    const controller = cardOf('Tarnhelm C1')
    const tunnelled = { ...controller, does: { ...controller.does, clientFrames: 'tunnelled' as const } }
    expect(ports(new Map(cards).set('Tarnhelm C1', tunnelled))).toEqual([
      ['control', [46, 47, 48]],
      ['quay', []],
    ])
  },
)

it('says of each port on site what it must carry, switch by switch: only networks that its unit has on air', () => {
  expect(siteSheet(job({ brief, units })).ports).toEqual([
    { siteSwitch: 'closet', sitePort: 'A1', unit: 'hall-01', native: 44, tagged: [46, 47] },
    { siteSwitch: 'closet', sitePort: 'A2', unit: 'hall-02', native: 44, tagged: [46, 47] },
    { siteSwitch: 'closet', sitePort: 'A10', unit: 'control', native: 44, tagged: [] },
    { siteSwitch: '', sitePort: '', unit: 'link', native: 44, tagged: [] },
  ])
  const tagged = siteSheet(job({ brief: { ...brief, managementTagged: true, addressing: 'dhcp' }, units }))
  expect(tagged.ports[0]).toMatchObject({ unit: 'hall-01', native: 'nothing', tagged: [44, 46, 47] })
  expect(english(tagged.options[0])).toContain('an address reserved for each unit by its MAC')
})
