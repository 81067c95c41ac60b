import { describe, expect, it } from 'vitest'
import { cards, countryOf, demoBrief } from '../../../tests/support/data'
import type { Unit } from '../kit/unit'
import { emptySite, type Site } from '../radio/propagation/floor'
import { makePlan, type PlanInput, plannedNothing } from './plan'

const unit = (id: string, model = 'Ostrel O-40'): Unit => ({
  ...{
    id,
    name: id,
    location: '',
    model,
    mac: '02:4f:52:00:00:01',
    serial: '',
    port: null,
    siteSwitch: '',
    sitePort: '',
  },
})
const plan = (part: Partial<PlanInput> & Pick<PlanInput, 'units'>) =>
  makePlan({ brief: demoBrief, cards, country: countryOf('NZ'), before: new Map(), effort: 'quick', ...part })
const addresses = (of: ReturnType<typeof plan>) => of.plans.map(({ unit: id, address }) => [id, address])
const brief = (part: Partial<(typeof demoBrief)['management']>) => ({
  ...demoBrief,
  management: { ...demoBrief.management, ...part },
})

describe('a plan of a job', () => {
  it('has an address and the radios of the policy for every unit whose model has a card, in list order', () => {
    const made = plan({ units: [unit('a'), unit('stranger', 'Nobody N-1'), unit('b')] })
    expect(addresses(made)).toEqual([
      ['a', '10.44.8.20'],
      ['b', '10.44.8.21'],
    ])
    expect(made.plans.map(({ radios }) => radios.map(({ band }) => band))).toEqual([
      ['2.4', '5'],
      ['2.4', '5'],
    ])
    expect(made.faults).toEqual([])
    expect(made.problem.radios.map(({ id }) => id)).toHaveLength(4)
  })

  it('gives controllers the lowest addresses', () => {
    expect(addresses(plan({ units: [unit('a'), unit('rack', 'Tarnhelm C1')] }))).toEqual([
      ['a', '10.44.8.21'],
      ['rack', '10.44.8.20'],
    ])
  })

  it('keeps off addresses in use, and off factory addresses that lie in the management network', () => {
    expect(addresses(plan({ units: [unit('a')], inUse: ['10.44.8.20'] }))).toEqual([['a', '10.44.8.21']])
    const home = brief({ cidr: '192.168.77.0/29', gateway: null, dnsServers: [], dhcpPool: null, reserved: [] })
    const given = addresses(plan({ units: ['a', 'b', 'c', 'd', 'e'].map((id) => unit(id)), brief: home }))
    expect(given.map(([, address]) => address).sort()).toEqual([2, 3, 4, 5, 6].map((last) => `192.168.77.${last}`))
  })

  it('keeps off the servers that the brief names, whether they answer or not', () => {
    const [network] = demoBrief.networks
    if (!network) throw new Error('no network')
    const site = {
      ...demoBrief,
      ntpServers: ['10.44.8.20', 'time.example'],
      networks: [
        {
          ...network,
          security: 'wpa2-enterprise' as const,
          radius: [{ address: '10.44.8.21', port: 1812 }],
          accounting: [{ address: '10.44.8.22', port: 1813 }],
        },
      ],
      aftercare: {
        ...demoBrief.aftercare,
        syslog: '10.44.8.23',
        mail: { server: '10.44.8.24', to: 'site@client.example' },
      },
    }
    expect(addresses(plan({ units: [unit('a')], brief: site }))).toEqual([['a', '10.44.8.25']])
    // One that was planned there before moves away, and a lock is said to be lost.
    const before = new Map([['a', { ...plannedNothing, address: '10.44.8.21', addressLocked: true }]])
    const made = plan({ units: [unit('a')], brief: site, before })
    expect(addresses(made)).toEqual([['a', '10.44.8.25']])
    expect(made.faults).toHaveLength(1)
  })

  it('keeps what was planned and locked, and says so where a locked address cannot be kept', () => {
    const before = new Map([
      ['a', { ...plannedNothing, address: '10.44.8.40', addressLocked: true }],
      ['b', { ...plannedNothing, address: '10.44.8.1', addressLocked: true }],
      ['c', { ...plannedNothing, address: '10.44.8.1', addressLocked: false }],
      ['d', { ...plannedNothing, address: undefined, addressLocked: true }],
    ])
    const made = plan({ units: ['a', 'b', 'c', 'd'].map((id) => unit(id)), before })
    expect(addresses(made)).toEqual([
      ['a', '10.44.8.40'],
      ['b', '10.44.8.20'],
      ['c', '10.44.8.21'],
      ['d', '10.44.8.22'],
    ])
    expect(made.faults).toEqual([
      {
        code: 'locked-address-not-free',
        params: { unit: 'b', address: '10.44.8.1', given: '10.44.8.20' },
        unit: 'b',
      },
    ])
  })

  it('gives those an address for whom there is one, and says for whom there is none', () => {
    const tiny = brief({ cidr: '10.44.8.0/30', gateway: '10.44.8.1', dnsServers: [], dhcpPool: null, reserved: [] })
    const made = plan({ units: [unit('a'), unit('b')], brief: tiny })
    expect(addresses(made)).toEqual([['a', '10.44.8.2']])
    expect(made.faults).toEqual([
      { code: 'no-address-left', params: { subnet: '10.44.8.0/30', unit: 'b', count: 1 }, unit: undefined },
    ])
    const locked = new Map([['b', { ...plannedNothing, address: '10.44.8.9', addressLocked: true }]])
    expect(plan({ units: [unit('a'), unit('b')], brief: tiny, before: locked }).faults[1]?.params).toMatchObject({
      given: null,
    })
  })

  it('keeps a channel that is locked, and off one on which a unit heard radar', () => {
    const before = new Map([['a', { ...plannedNothing, locks: { '5': 149 } }]])
    const channelOf = (of: ReturnType<typeof plan>, id: string) =>
      of.plans.find((each) => each.unit === id)?.radios.find(({ band }) => band === '5')?.channel
    expect(channelOf(plan({ units: [unit('a')], before }), 'a')).toBe(149)
    const shut = new Map([['a', [{ band: '5' as const, lowMhz: 5150, highMhz: 5330 }]]])
    expect(channelOf(plan({ units: [unit('a')] }), 'a')).toBeLessThan(100)
    expect(channelOf(plan({ units: [unit('a')], shut }), 'a')).toBeGreaterThan(64)
  })
  it('keeps a link off the blocks of the access points beside it', () => {
    const site = {
      ...emptySite,
      links: [
        { a: 'near', b: 'far', distanceM: 500, heightA: 10, heightB: 10, obstacle: null, width: 20, channel: null },
      ],
    } satisfies Site
    const ends = [unit('near', 'Windrow W5'), unit('far', 'Windrow W5')]
    const linkAt = (of: ReturnType<typeof plan>) => of.plans.find((each) => each.unit === 'far')?.radios[0]?.lowMhz
    const alone = plan({ units: ends, site })
    const lowMhz = linkAt(alone) ?? 0
    const channel = alone.plans[0]?.radios[0]?.channel ?? 0
    const beside = plan({
      units: [unit('a'), ...ends],
      site,
      before: new Map([['a', { ...plannedNothing, locks: { '5': channel } }]]),
    })
    const ap = beside.plans.find((each) => each.unit === 'a')?.radios.find(({ band }) => band === '5')
    expect(ap && ap.lowMhz < lowMhz + 20 && lowMhz < ap.lowMhz + ap.width).toBe(true)
    const link = linkAt(beside) ?? 0
    expect(ap && (link >= ap.lowMhz + ap.width || link + 20 <= ap.lowMhz)).toBe(true)
  })

  it('has no plan for a link to a unit that is not on the list, and no fault either', () => {
    const link = { distanceM: 500, heightA: 10, heightB: 10, obstacle: null, width: 20 as const, channel: null }
    const made = plan({ units: [unit('a')], site: { ...emptySite, links: [{ a: 'gone', b: 'away', ...link }] } })
    expect(addresses(made)).toEqual([['a', '10.44.8.20']])
    expect(made.faults).toEqual([])
  })
})
