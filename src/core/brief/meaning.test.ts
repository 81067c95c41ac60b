import { describe, expect, it } from 'vitest'
import { countryOf, demoBrief } from '../../../tests/support/data'
import { sentence } from '../../words/en/sentence'
import { type Brief, briefSchema } from './brief'
import { type BriefSection, briefMeaning } from './meaning'
import { newNetwork } from './wireless-network'

const said = (brief: Brief, section: BriefSection): string[] =>
  briefMeaning(brief, countryOf(brief.country))
    .filter((meaning) => meaning.section === section)
    .map(sentence)
const brief = (part: object): Brief => briefSchema.parse({ ...demoBrief, ...part })
const { management } = demoBrief

describe('beside the brief stands', () => {
  it('how many static addresses are left: without pool, gateway, servers and what is kept free', () => {
    expect(said(demoBrief, 'management')).toEqual(['153 static addresses are free for units in 10.44.8.0/24.'])
    expect(
      said(brief({ management: { ...management, dhcpPool: null, reserved: ['10.44.8.9'] } }), 'management'),
    ).toEqual(['252 static addresses are free for units in 10.44.8.0/24.'])
    expect(
      said(
        brief({ management: { ...management, staticRange: { first: '10.44.8.90', last: '10.44.8.109' } } }),
        'management',
      ),
    ).toEqual(['10 static addresses are free for units in 10.44.8.0/24.'])
  })

  it('where the clients of each network land, and what many networks cost', () => {
    expect(said(brief({ networks: [] }), 'networks')).toEqual(['No wireless network yet: units would be silent.'])
    expect(said(brief({ networks: [{ ...newNetwork('a', 'Open'), security: 'open', vlan: 44 }] }), 'networks')).toEqual(
      ['"Open": Open, 2.4 and 5 GHz, clients land in the management network.'],
    )
    const five = Array.from({ length: 5 }, (_, index) => newNetwork(`n${index}`, `Net ${index}`))
    expect(said(brief({ networks: five }), 'networks').at(-1)).toBe(
      '5 networks each send a beacon ten times a second on every radio: airtime goes before the first client comes.',
    )
  })

  it('what each subnet hands out, who may reach whom, and who is kept apart', () => {
    const subnet = (id: string, name: string, vlan: number) => ({
      id,
      name,
      cidr: `10.44.${vlan}.0/24`,
      vlan,
      gateway: `10.44.${vlan}.1`,
      dnsServers: [],
      dhcpPool: { first: `10.44.${vlan}.20`, last: `10.44.${vlan}.250` },
    })
    expect(
      said(
        brief({
          subnets: [subnet('crew', 'Crew', 46), subnet('guests', 'Guests', 47)],
          talks: [{ from: 'crew', to: 'management' }],
        }),
        'subnets',
      ),
    ).toEqual([
      'Crew hands out 231 addresses and leaves 23 for static use.',
      'Guests hands out 231 addresses and leaves 23 for static use.',
      'Crew may reach Management.',
      'Guests: out to the internet, and to nobody on the site.',
    ])
  })

  it('which channels a band has here, indoors and out', () => {
    const radio = (part: object) => ({ ...demoBrief.radio, ...part })
    expect(
      said(
        brief({
          country: 'GB',
          radio: radio({
            environment: 'outdoor',
            bands: [
              { band: '5', width: 20 },
              { band: '6', width: 80 },
            ],
          }),
        }),
        'radio',
      ).slice(0, 2),
    ).toEqual([
      'In United Kingdom at 5 GHz: 12 channels of 20 MHz, 12 must listen for radar first, 3 of them for 10 minutes.',
      'In United Kingdom at 6 GHz no 80 MHz channel is legal.',
    ])
  })

  it('what is kept for the papers alone, and how passwords are shared', () => {
    expect(
      said(
        brief({
          aftercare: {
            snmp: { user: 'watch' },
            syslog: '10.44.8.9',
            firmware: '2.4',
            restart: { day: 'sun', at: '03:30' },
          },
        }),
        'aftercare',
      )[1],
    ).toBe(
      'Written where a model takes it, and said where one does not: SNMPv3, syslog, a weekly restart, ' +
        'firmware 2.4 or newer.',
    )
    expect(said(brief({ admin: { ...demoBrief.admin, passwords: 'one-per-unit' } }), 'admin')).toEqual([
      'An admin password of its own for each unit: one that leaks opens one unit.',
    ])
  })

  it('what the country means for radar', () => {
    expect(said(brief({ country: 'US' }), 'site')[0]).toMatch(/^United States follows the FCC radar rules\./)
    expect(
      briefMeaning(demoBrief, undefined).some(
        (meaning) => meaning.section === 'site' || sentence(meaning).startsWith('In '),
      ),
    ).toBe(false)
  })
})
