import { describe, expect, it } from 'vitest'
import { cardOf, countryOf, demoBrief } from '../../../tests/support/data'
import { sentence, sentenceOfText } from '../../words/en/sentence'
import { type Brief, briefSchema } from '../brief/brief'
import { briefMeaning } from '../brief/meaning'
import type { SiteSubnet } from '../brief/subnet'
import type { WirelessNetwork } from '../brief/wireless-network'
import type { KitCard } from '../kit/kit-card'
import { type Message, message } from '../message/message'
import { passphraseWeakness } from '../secrets/strength'
import type { Weakness } from '../secrets/weakness'
import { applyMend, briefFaultCodes } from './fault'
import { reviewBrief } from './review'

const [crew] = demoBrief.networks
if (!crew) throw new Error('the demo has a network')
const network = (part: Partial<WirelessNetwork>): WirelessNetwork => ({ ...crew, ...part })
const withNetwork = (part: Partial<WirelessNetwork>): Brief => ({ ...demoBrief, networks: [network(part)] })
const subnet = (part: Partial<SiteSubnet>): SiteSubnet => ({
  id: 'guests',
  name: 'Guests',
  cidr: '10.44.13.0/24',
  vlan: 47,
  gateway: '10.44.13.1',
  dnsServers: [],
  dhcpPool: { first: '10.44.13.20', last: '10.44.13.250' },
  staticRange: null,
  reserved: [],
  ...part,
})
const review = (
  brief: Brief,
  models: readonly KitCard[] = [cardOf('Ostrel O-40')],
  weak: ReadonlyMap<string, Weakness> = new Map(),
) => reviewBrief({ brief, country: countryOf(brief.country), models, weak, today: new Date('2026-11-25') })
const management = demoBrief.management

it('passes as it is in the demo, and says what it means', () => {
  expect(review(demoBrief)).toEqual([])
  expect(briefMeaning(demoBrief, countryOf('NZ')).map(sentence)).toEqual([
    'New Zealand follows the ETSI radar rules. Changing the country later resets channels on much equipment, ' +
      'so nothing about radios is written before it.',
    '153 static addresses are free for units in 10.44.8.0/24.',
    '"Ellery Crew": WPA2-Personal, AES-CCMP, 2.4 and 5 GHz, clients land in VLAN 46.',
    'In New Zealand at 2.4 GHz: 13 channels of 20 MHz, none must listen for radar.',
    'In New Zealand at 5 GHz: 13 channels of 40 MHz, 8 must listen for radar first, 2 of them for 10 minutes.',
    'Units speak at about 17 dBm, as loud as the weakest device answers; there is room to raise it. At 2.4 ' +
      'GHz 11 dBm, so that clients lean to 5 GHz.',
    'One admin password for every unit: one to write down, and one to lose.',
    'Telnet stays off: it sends the admin password for all to read.',
  ])
})

/** Each fault: what provokes it, its sentence, and the words of its mend. */
const faults: readonly (readonly [what: string, brief: Brief, sentence: string, mend: string | undefined])[] = [
  [
    'a country without rules',
    { ...demoBrief, country: 'QQ' },
    'There are no radio rules for QQ. Choose the country from the list.',
    undefined,
  ],
  [
    'a width that is not legal',
    {
      ...demoBrief,
      country: 'HN',
      radio: { ...demoBrief.radio, bands: [...demoBrief.radio.bands, { band: '6', width: 80 }] },
    },
    'Honduras has no legal 80 MHz channel at 6 GHz for an access point.',
    'Leave 6 GHz out',
  ],
  [
    'a gateway elsewhere',
    { ...demoBrief, management: { ...management, gateway: '10.44.9.1' } },
    'The gateway 10.44.9.1 is outside 10.44.8.0/24: nobody there could reach it.',
    'Use 10.44.8.1',
  ],
  [
    'a pool that runs backwards',
    { ...demoBrief, management: { ...management, dhcpPool: { first: '10.44.8.90', last: '10.44.8.80' } } },
    'The DHCP pool begins at 10.44.8.90, above its end 10.44.8.80.',
    'Swap the two',
  ],
  [
    'a pool that runs out of its subnet',
    { ...demoBrief, management: { ...management, dhcpPool: { first: '10.44.8.200', last: '10.44.9.20' } } },
    '10.44.9.20 of the DHCP pool is outside 10.44.8.0/24.',
    'Use 10.44.8.200 to 10.44.8.254',
  ],
  [
    'a static range elsewhere',
    { ...demoBrief, management: { ...management, staticRange: { first: '10.44.9.2', last: '10.44.9.9' } } },
    '10.44.9.2 of the static range is outside 10.44.8.0/24.',
    'Use 10.44.8.127 to 10.44.8.254',
  ],
  [
    'a static range within the pool',
    { ...demoBrief, management: { ...management, staticRange: { first: '10.44.8.90', last: '10.44.8.110' } } },
    'The static range 10.44.8.90 to 10.44.8.110 meets the DHCP pool: two units could get one address.',
    'Use what the pool leaves free',
  ],
  [
    'a pool that hands out the gateway',
    { ...demoBrief, management: { ...management, dhcpPool: { first: '10.44.8.1', last: '10.44.8.99' } } },
    "The DHCP pool of Management would hand out the gateway's own address 10.44.8.1.",
    'Use 10.44.8.2 to 10.44.8.99',
  ],
  [
    'a pool with the gateway at its end',
    {
      ...demoBrief,
      management: { ...management, gateway: '10.44.8.254', dhcpPool: { first: '10.44.8.200', last: '10.44.8.254' } },
    },
    "The DHCP pool of Management would hand out the gateway's own address 10.44.8.254.",
    'Use 10.44.8.200 to 10.44.8.253',
  ],
  [
    'a pool that is the gateway',
    { ...demoBrief, management: { ...management, dhcpPool: { first: '10.44.8.1', last: '10.44.8.1' } } },
    "The DHCP pool of Management would hand out the gateway's own address 10.44.8.1.",
    'Have no pool',
  ],
  [
    'a pool with a DNS server in it',
    { ...demoBrief, management: { ...management, dnsServers: ['10.44.8.150'] } },
    'The DHCP pool of Management would hand out 10.44.8.150, which a DNS server has.',
    'Use 10.44.8.100 to 10.44.8.149',
  ],
  [
    'a pool with a reserved address in it',
    { ...demoBrief, management: { ...management, reserved: ['10.44.8.110'] } },
    'The DHCP pool of Management would hand out 10.44.8.110, which is kept for something else.',
    'Use 10.44.8.111 to 10.44.8.199',
  ],
  [
    'a pool with a server of the brief in it',
    {
      ...demoBrief,
      subnets: [subnet({ vlan: 52 })],
      aftercare: { ...demoBrief.aftercare, syslog: '10.44.13.21' },
      talks: [{ from: 'management', to: 'guests' }],
    },
    'The DHCP pool of Guests would hand out 10.44.13.21, which a server of the brief has.',
    'Use 10.44.13.22 to 10.44.13.250',
  ],
  [
    'a reserved address elsewhere',
    { ...demoBrief, management: { ...management, reserved: ['10.1.1.1'] } },
    'The reserved address 10.1.1.1 is outside 10.44.8.0/24.',
    'Take it off',
  ],
  [
    'subnets that overlap',
    { ...demoBrief, subnets: [subnet({ cidr: '10.44.8.0/25', gateway: '10.44.8.1', dhcpPool: null })] },
    'Guests 10.44.8.0/25 overlaps Management 10.44.8.0/24: nobody could tell which way an address is.',
    'Move it to 10.44.9.0/25',
  ],
  [
    'two subnets on one VLAN',
    { ...demoBrief, subnets: [subnet({ vlan: 44 })] },
    'Guests and Management are both on VLAN 44: they would be one network.',
    'Use VLAN 45',
  ],
  [
    'guests who may reach management',
    {
      ...withNetwork({ purpose: 'guests', vlan: 47, isolation: true }),
      subnets: [subnet({})],
      talks: [{ from: 'guests', to: 'management' }],
    },
    'Guests may reach Management: guests on "Ellery Crew" could open every unit\'s sign-in.',
    'Keep them apart',
  ],
  [
    'a rule for a subnet that is gone',
    { ...demoBrief, talks: [{ from: 'nowhere', to: 'management' }] },
    'A rule of who may reach whom names a subnet that is no longer there.',
    'Take the rule off',
  ],
  [
    'one name twice on a band',
    { ...demoBrief, networks: [crew, network({ id: 'two' })] },
    '"Ellery Crew" is there twice on the same band: clients could not tell them apart.',
    'Call it "Ellery Crew 2"',
  ],
  [
    'guests who can reach each other',
    withNetwork({ purpose: 'guests', vlan: 47, isolation: false }),
    'Guests on "Ellery Crew" could reach each other\'s devices.',
    'Keep them from each other',
  ],
  [
    'guests on the management VLAN',
    withNetwork({ purpose: 'guests', vlan: 44, isolation: true }),
    '"Ellery Crew" is on the management VLAN 44: its clients could reach every unit.',
    'Use VLAN 45',
  ],
  [
    'a band without radios',
    withNetwork({ bands: ['5', '6'], security: 'wpa3-personal' }),
    '"Ellery Crew" is meant for 6 GHz, where the radio policy has no channel.',
    'Leave 6 GHz out',
  ],
  [
    'steering with one band',
    withNetwork({ bands: ['5'], steering: 'lean-to-5' }),
    '"Ellery Crew" is to steer clients between 2.4 and 5 GHz, and is not on both.',
    'Leave it to the client',
  ],
  [
    'things that must use 5 GHz',
    withNetwork({ purpose: 'things', vlan: 47, steering: 'insist-on-5' }),
    '"Ellery Crew" insists on 5 GHz, and many things know 2.4 GHz only: they would never get on.',
    'Leave it to the client',
  ],
  [
    'no time on air',
    withNetwork({ hours: { days: ['mon'], from: '08:00', to: '08:00' } }),
    '"Ellery Crew" goes on and off air at the same time, 08:00: it would never be there.',
    'Keep it on air always',
  ],
  [
    'an empty list of those let in',
    withNetwork({ macList: { rule: 'allow', macs: [] } }),
    '"Ellery Crew" lets in only the MACs on its list, and the list is empty: nobody could join.',
    'Let everybody in',
  ],
  [
    'one client with more than all',
    withNetwork({ limits: { perClientKbps: 9000, sharedKbps: 4000, mostClients: null } }),
    'One client of "Ellery Crew" may take 9000 kbit/s, more than the 4000 that all of them share.',
    'Give one client 4000',
  ],
  [
    'an open network',
    withNetwork({ security: 'open' }),
    '"Ellery Crew" would be open: anyone nearby could read what its clients send. It is not put on air until ' +
      'its name is typed a second time.',
    'Use WPA2-Personal',
  ],
  [
    'an enterprise network without a server',
    withNetwork({ security: 'wpa2-enterprise' }),
    '"Ellery Crew" asks a RADIUS server who may join, and none is named.',
    'Use WPA2-Personal',
  ],
  [
    '6 GHz without WPA3',
    withNetwork({ bands: ['6'] }),
    '"Ellery Crew" is meant for 6 GHz with WPA2-Personal; at 6 GHz only WPA3 and OWE are allowed.',
    'Use WPA3-Personal',
  ],
  [
    '6 GHz beside others without WPA3',
    withNetwork({ bands: ['5', '6'] }),
    '"Ellery Crew" is meant for 6 GHz with WPA2-Personal; at 6 GHz only WPA3 and OWE are allowed. Clients ' +
      'roam between two networks of one name only where both have the same passphrase.',
    'Give 6 GHz a network of this name with WPA3-Personal',
  ],
  [
    'an open network at 6 GHz',
    withNetwork({ bands: ['6'], security: 'open', openConfirmation: 'Ellery Crew' }),
    '"Ellery Crew" is meant for 6 GHz with Open; at 6 GHz only WPA3 and OWE are allowed.',
    'Use OWE',
  ],
  [
    'a network of WPA2-Enterprise at 6 GHz',
    withNetwork({ bands: ['6'], security: 'wpa2-enterprise', radius: [{ address: '10.44.8.6', port: 1812 }] }),
    '"Ellery Crew" is meant for 6 GHz with WPA2-Enterprise; at 6 GHz only WPA3 and OWE are allowed.',
    'Use WPA3-Enterprise',
  ],
  [
    'WPA3 whose management frames are not protected',
    withNetwork({ security: 'wpa3-personal', pmf: 'optional' }),
    '"Ellery Crew" is WPA3-Personal, which goes with protected management frames required, not optional.',
    'As the security wants',
  ],
  [
    'a mixed network that shuts WPA2 clients out by its frames',
    withNetwork({ security: 'wpa3-wpa2-mixed', pmf: 'required' }),
    '"Ellery Crew" is WPA3/WPA2 mixed, which goes with protected management frames optional, not required.',
    'As the security wants',
  ],
  [
    'WPA3-Enterprise without a server',
    withNetwork({ security: 'wpa3-enterprise' }),
    '"Ellery Crew" asks a RADIUS server who may join, and none is named.',
    'Use WPA2-Personal',
  ],
  [
    'fast roaming where there is no key',
    withNetwork({ fastRoaming: true, security: 'owe', purpose: 'guests', vlan: 47, isolation: true }),
    'Fast roaming (802.11r) is on for "Ellery Crew", which has no key that one access point could hand to the next.',
    'Switch it off',
  ],
  [
    'old scanners and WPA3 alone',
    withNetwork({ purpose: 'things', vlan: 47, security: 'wpa3-personal' }),
    '"Ellery Crew" is WPA3 only: old scanners and sensors know WPA2 at the most and could not join.',
    'Use WPA3/WPA2 mixed',
  ],
  [
    'security that a model lacks',
    withNetwork({ security: 'wpa3-personal' }),
    '"Ellery Crew" is WPA3-Personal, which Ostrel O-20 cannot do.',
    'Use WPA2-Personal',
  ],
  [
    'plain HTTP',
    { ...demoBrief, aftercare: { ...demoBrief.aftercare, httpsOnly: false } },
    'Units would also be managed over plain HTTP: the admin password could be read on the wire.',
    'HTTPS only',
  ],
  [
    'a syslog server that nobody reaches',
    {
      ...demoBrief,
      management: { ...management, gateway: null },
      aftercare: { ...demoBrief.aftercare, syslog: '192.0.2.9' },
    },
    'The syslog server 192.0.2.9 is outside every subnet of the site, and management has no gateway: no line ' +
      'would arrive.',
    'Leave syslog out',
  ],
]

it('gives each fault a code of its own, which a program finds it by', () => {
  const codes = faults.flatMap(([, brief, words]) => {
    const country = brief.country === 'QQ' ? undefined : countryOf(brief.country)
    const models = [cardOf('Ostrel O-40'), cardOf('Ostrel O-20')]
    const input = { brief, country, models, weak: new Map(), today: new Date('2026-11-25') }
    return reviewBrief(input).flatMap((fault) => (sentence(fault) === words ? [fault.code] : []))
  })
  expect(codes).toHaveLength(faults.length)
  // Ranges that lie wrong share one, so do addresses that a pool hands out, and modes of security that err alike.
  expect(new Set(codes).size).toBeGreaterThanOrEqual(faults.length - 12)
})

describe('what must be mended', () => {
  it.each(faults)('tells of %s, and mends it', (_what, brief, words, mend) => {
    const country = brief.country === 'QQ' ? undefined : countryOf(brief.country)
    const ask = (of: Brief) =>
      reviewBrief({
        brief: of,
        country,
        models: [cardOf('Ostrel O-40'), ...(words.includes('O-20') ? [cardOf('Ostrel O-20')] : [])],
        weak: new Map(),
        today: new Date('2026-11-25'),
      })
    const fault = ask(brief).find((each) => sentence(each) === words)
    expect(fault, ask(brief).map(sentence).join('\n')).toBeDefined()
    expect(fault?.weight).toBe('mend')
    expect(briefFaultCodes).toContain(fault?.code)
    expect(fault?.mend && sentence(fault.mend)).toBe(mend)
    if (fault?.mend && 'set' in fault.mend) {
      const mended = briefSchema.parse(applyMend(brief, fault.mend.set))
      expect(ask(mended).map(sentence)).not.toContain(words)
    }
  })

  it('leaves the other bands to clients that do not know WPA3, where 6 GHz is to have it', () => {
    const brief = withNetwork({ bands: ['5', '6'] })
    const fault = reviewBrief({
      brief,
      country: countryOf('NZ'),
      models: [],
      weak: new Map(),
      today: new Date('2026-11-25'),
    }).find(({ code }) => code === '6-ghz-without-wpa3-roaming')
    const { networks } = briefSchema.parse(applyMend(brief, fault?.mend && 'set' in fault.mend ? fault.mend.set : []))
    expect(networks.map(({ ssid, bands, security }) => [ssid, bands, security])).toEqual([
      ['Ellery Crew', ['5'], 'wpa2-personal'],
      ['Ellery Crew', ['6'], 'wpa3-personal'],
    ])
    expect(new Set(networks.map(({ id }) => id)).size).toBe(2)
  })

  it('tells of more networks than the smallest model of the kit carries', () => {
    const many = {
      ...demoBrief,
      networks: Array.from({ length: 7 }, (_, index) => network({ id: `n${index}`, ssid: `Net ${index}` })),
    }
    expect(review(many, [cardOf('Ostrel O-40'), cardOf('Tarnhelm T2'), cardOf('Windrow W5')]).map(sentence)).toContain(
      'The brief has 7 networks; Tarnhelm T2 carries 6. Join some into one, or choose another model.',
    )
  })

  it.each([
    [
      'the name itself',
      'ellery crew',
      'The passphrase of "Ellery Crew" is its own name: it is the first that anybody tries.',
    ],
    [
      'a word with a year',
      'Welcome2024',
      /^The passphrase of "Ellery Crew" can be guessed: about \d+ bits, and 40 are wanted\./,
    ],
    ['the site with a digit', 'PortEllery1', /can be guessed/],
    ['keys side by side', 'qwertzuiop', /can be guessed/],
  ])('tells of a passphrase that is %s', (_what, passphrase, words) => {
    const weakness = passphraseWeakness(passphrase, 'Ellery Crew', ['Port Ellery', 'Hall'])
    const [fault] = review(demoBrief, [], new Map(weakness ? [['network/crew/passphrase', weakness]] : []))
    expect(sentence(fault as Message)).toMatch(words)
    expect(fault?.mend).toEqual({ ...message('mend-make-strong'), make: 'network/crew/passphrase' })
  })

  it('has nothing against a passphrase of random letters', () => {
    expect(passphraseWeakness('hJ7k-Wm3p-Tz9c-Rq4x', 'Ellery Crew', ['Port Ellery'])).toBeUndefined()
  })
})

describe('what one should know', () => {
  it.each([
    [
      'pairs of channels at 2.4 GHz',
      { ...demoBrief, radio: { ...demoBrief.radio, bands: [{ band: '2.4' as const, width: 40 as const }] } },
      /^40 MHz at 2\.4 GHz takes two of its three channels/,
      'Use 20 MHz',
    ],
    [
      'a hidden network',
      withNetwork({ hidden: true }),
      /^"Ellery Crew" is hidden: every device must be told its name/,
      'Show its name',
    ],
    [
      'a least signal',
      withNetwork({ leastDbm: -75 }),
      /^Clients of "Ellery Crew" below -75 dBm are let go\. One with nowhere better to go comes back/,
      'Let nobody go',
    ],
    [
      'fast roaming for things',
      withNetwork({ purpose: 'things', fastRoaming: true }),
      /old scanners and sensors may refuse/,
      'Switch it off',
    ],
    [
      'low rates dropped for things',
      withNetwork({ purpose: 'things' }),
      /Low data rates are dropped/,
      'Keep low rates',
    ],
    [
      'an open network that was confirmed',
      withNetwork({ security: 'open', openConfirmation: 'Ellery Crew' }),
      /is open, as you confirmed/,
      'Use WPA2-Personal',
    ],
    [
      'SSH left on',
      { ...demoBrief, aftercare: { ...demoBrief.aftercare, ssh: 'on' as const } },
      /SSH stays on after the visit/,
      undefined,
    ],
    [
      'a factory subnet on the site',
      {
        ...demoBrief,
        management: { ...management, cidr: '192.168.77.0/24', gateway: '192.168.77.2', dhcpPool: null, dnsServers: [] },
      },
      /Ostrel O-40 comes out of its box at 192\.168\.77\.1/,
      undefined,
    ],
    [
      'a VLAN that nobody here serves',
      { ...demoBrief, subnets: [subnet({})] },
      /is on VLAN 46, which has no subnet in this brief/,
      undefined,
    ],
    [
      'what a model does not do',
      withNetwork({ hours: { days: ['mon'], from: '08:00', to: '18:00' } }),
      /^"Ellery Crew": set Hours on air to mon from 08:00 to 18:00 by hand on Ostrel O-20: a muster cannot\.$/,
      undefined,
    ],
  ])('tells of %s', (_what, brief, words, mend) => {
    const fault = review(brief, [cardOf('Ostrel O-40'), cardOf('Ostrel O-20')]).find((each) =>
      words.test(sentence(each)),
    )
    expect(fault?.weight).toBe('know')
    expect(fault?.mend && sentence(fault.mend)).toBe(mend)
  })
})

describe('what a field alone can tell', () => {
  const issue = (brief: unknown): string => sentenceOfText(briefSchema.safeParse(brief).error?.issues[0]?.message ?? '')
  it.each([
    ['TKIP', { ...demoBrief, networks: [{ ...crew, cipher: 'tkip' }] }, /the cipher is AES-CCMP: TKIP is broken/],
    [
      'Telnet',
      { ...demoBrief, aftercare: { telnet: 'on' } },
      /Telnet stays off: it sends the admin password for all to read/,
    ],
    [
      'a name of too many bytes',
      { ...demoBrief, networks: [{ ...crew, ssid: 'é'.repeat(17) }] },
      /is 34 bytes long; a network name holds 32 at the most/,
    ],
    [
      'a name with a space that nobody sees',
      { ...demoBrief, networks: [{ ...crew, ssid: ' x' }] },
      /begins or ends with a space/,
    ],
    [
      'a name with half of a character',
      { ...demoBrief, networks: [{ ...crew, ssid: 'x\ud83d' }] },
      /holds half of a character/,
    ],
    [
      'a VLAN out of range',
      { ...demoBrief, management: { ...management, vlan: 4095 } },
      /a VLAN is a whole number from 1 to 4094/,
    ],
    ['no time server', { ...demoBrief, ntpServers: [] }, /units need a time server/],
  ])('refuses %s, with the reason', (_what, brief, reason) => {
    expect(issue(brief)).toMatch(reason)
  })

  it('counts bytes, not letters, of a network name', () => {
    expect(briefSchema.safeParse({ ...demoBrief, networks: [{ ...crew, ssid: 'é'.repeat(16) }] }).success).toBe(true)
  })
})
