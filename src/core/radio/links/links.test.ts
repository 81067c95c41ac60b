import { describe, expect, it } from 'vitest'
import { cardOf, countryOf } from '../../../../tests/support/data'
import { english } from '../../../../tests/support/english'
import { sentence } from '../../../words/en/sentence'
import { radioPolicySchema } from '../../brief/policies'
import { judgeChannel } from '../../regulatory/legal'
import { emptySite, type Link, newSiteSchema } from '../propagation/floor'
import { clearings, earthBulge, edgeLoss, freeSpaceLoss, fresnelRadius, linkBudget, linkRemarks } from './link'
import { planLinks } from './plan-links'

const link = (part: Partial<Link> = {}): Link => ({
  a: 'quay',
  b: 'light',
  distanceM: 1800,
  heightA: 14,
  heightB: 12,
  obstacle: null,
  width: 40,
  channel: null,
  ...part,
})
const end = { powerDbm: 3, gain: 23 }
const radio = { centreMhz: 5510, width: 40, access: end, station: end }
const both = (part: Partial<typeof end>) => ({ ...radio, access: { ...end, ...part }, station: { ...end, ...part } })
const policy = radioPolicySchema.parse({ environment: 'indoor', bands: [{ band: '5', width: 40 }], radar: 'welcome' })
const cards = new Map([
  ['quay', cardOf('Windrow W5')],
  ['light', cardOf('Windrow W5')],
  ['hall', cardOf('Ostrel O-40')],
])
const plan = (code: string, part: Partial<Link> = {}, busy: readonly { lowMhz: number; highMhz: number }[] = []) =>
  planLinks(countryOf(code), policy, { ...emptySite, links: [link(part)] }, (unit) => cards.get(unit), busy)

describe('the budget of a link', () => {
  it('takes free-space loss from ITU-R P.525 and the first Fresnel zone from P.526', () => {
    expect(freeSpaceLoss(5500, 1000)).toBeCloseTo(107.2, 1)
    expect(freeSpaceLoss(5500, 2000) - freeSpaceLoss(5500, 1000)).toBeCloseTo(6.02, 2)
    // 1 km at 5.8 GHz, half-way: 3.6 m.
    expect(fresnelRadius(5800, 500, 1000)).toBeCloseTo(3.59, 2)
    expect(earthBulge(10_000, 20_000)).toBeCloseTo(5.88, 2)
  })

  it('says what arrives, how much is to spare, and how clear the way is', () => {
    const budget = linkBudget(link({ obstacle: { distanceM: 600, heightM: 4 } }), radio)
    const receivedDbm = 3 + 46 - freeSpaceLoss(5510, 1800)
    // -63.4 dBm at 40 MHz: MCS 6 holds from -62 on, MCS 5 from -63; with 15 dB of weather MCS 0 from -79 on is left.
    expect(budget.edgeDb).toBe(0)
    for (const arrival of budget.arrivals) expect(arrival.receivedDbm).toBeCloseTo(receivedDbm, 6)
    expect(budget.arrivals[0].marginDb).toBeCloseTo(receivedDbm + 79, 6)
    expect(budget.worst).toMatchObject({ fromA: 600, what: 'obstacle' })
    expect(budget.worst.clearM).toBeCloseTo(14 - 2 * (600 / 1800) - 4 - earthBulge(600, 1800), 6)
    expect(linkRemarks(budget).filter((remark) => remark.weight === 'mend')).toEqual([])
  })

  it('says what must be mended: a mast too low, too little margin, too much level', () => {
    const said = (part: Partial<Link>, at = radio) => linkRemarks(linkBudget(link(part), at)).map(sentence)
    expect(said({ obstacle: { distanceM: 900, heightM: 12 } })[0]).toMatch(
      /: 1\.0 m stand free .* 900\.0 m .* where 3\.0 m .* access end by 4\.0 m, .* station end by 4\.0 m, .* 2\.0 m\.$/,
    )
    expect(said({ distanceM: 90_000, heightA: 500, heightB: 500 })).toEqual(
      expect.arrayContaining([expect.stringMatching(/^At the station end the slowest rate has -18\.3 dB to spare/)]),
    )
    expect(said({ distanceM: 30 }, both({ powerDbm: 20 }))[0]).toMatch(
      /a receiver is overloaded above -30 dBm: set less power/,
    )
  })

  it('takes off what an edge on the way takes, by ITU-R P.526: 6 dB where it touches the line', () => {
    // Half-way on 1 km at 5.8 GHz the first zone is 3.6 m: nu is 1.41 there.
    const loss = (share: number): number => edgeLoss(5800, share * fresnelRadius(5800, 500, 1000), 500, 1000)
    expect(loss(0)).toBeCloseTo(6.03, 1)
    expect(loss(1)).toBeCloseTo(6.9 + 20 * Math.log10(Math.sqrt(1.314 ** 2 + 1) + 1.314), 1)
    expect([loss(-0.6), loss(-2)]).toEqual([0, 0])
    const high = linkBudget(link({ obstacle: { distanceM: 900, heightM: 13 } }), radio)
    expect(high.edgeDb).toBeGreaterThan(5.5)
    expect(high.arrivals[0].receivedDbm).toBeCloseTo(3 + 46 - freeSpaceLoss(5510, 1800) - high.edgeDb, 6)
  })

  it('tells both directions apart: what is too loud at the station is quiet at the access end', () => {
    const loudHub = { ...radio, access: { powerDbm: 20, gain: 23 }, station: { powerDbm: -10, gain: 23 } }
    const budget = linkBudget(link({ distanceM: 100 }), loudHub)
    expect(budget.arrivals.map(({ at, receivedDbm }) => [at, Math.round(receivedDbm)])).toEqual([
      ['station', -21],
      ['access', -51],
    ])
    const mend = linkRemarks(budget).filter(({ weight }) => weight === 'mend')
    expect(mend.map(sentence)).toEqual([expect.stringContaining('arrive at the station end')])
  })

  it('names the rate that holds, and the one that is left in bad weather', () => {
    const [atStation] = linkBudget(link(), both({ powerDbm: 10 })).arrivals
    // -56.3 dBm at 40 MHz: MCS 8 holds from -56 on and MCS 7 from -61, with 15 dB less MCS 2 from -74 on.
    expect([Math.round(10 * atStation.receivedDbm) / 10, atStation.mcs, atStation.mcsFaded]).toEqual([-56.3, 7, 2])
  })

  it('warns of the bench only where it is too loud there, and each remark has its weight', () => {
    const remarks = (part: Partial<Link>, at = radio) =>
      linkRemarks(linkBudget(link(part), at)).map((remark) => `${remark.weight}: ${sentence(remark).slice(0, 14)}`)
    const [far] = remarks({}, both({ powerDbm: -10, gain: 5 })).slice(-1)
    expect(far).toBe('know: The far end is')
    expect(remarks({}, both({ powerDbm: -10, gain: 5 }))).toEqual(['mend: At the station', 'mend: At the access ', far])
    expect(remarks({ distanceM: 30 }, both({ powerDbm: 20 }))).toEqual([
      expect.stringMatching(/^mend: /),
      expect.stringMatching(/^mend: /),
      'know: On the bench a',
      far,
    ])
  })

  it('warns that on the bench it is far too loud, and that the far end is changed first', () => {
    const know = linkRemarks(linkBudget(link(), radio)).filter((remark) => remark.weight === 'know')
    expect(know.map(sentence)).toEqual([
      expect.stringContaining('On the bench about -4 dBm will arrive'),
      expect.stringContaining('The far end is changed first'),
    ])
  })
})

describe('the way of a link', () => {
  const mended = (part: Partial<Link>): string =>
    linkRemarks(linkBudget(link(part), radio))
      .filter(({ weight }) => weight === 'mend')
      .map(sentence)[0] ?? ''

  it('is as clear as its worst place: the ground far from a low obstacle, with the bulge of the earth', () => {
    // 8 km, 5 m masts: half-way the earth bulges 0.94 m and 0.6 of the first zone are 6.25 m; 4.06 m stand free.
    const budget = linkBudget(
      link({ distanceM: 8000, heightA: 5, heightB: 5, obstacle: { distanceM: 10, heightM: 1 } }),
      radio,
    )
    expect(budget.worst.what).toBe('ground')
    expect(budget.worst.fromA).toBeCloseTo(4000, -1)
    expect(budget.worst.clearM).toBeCloseTo(4.06, 2)
    expect(budget.worst.wantedM).toBeCloseTo(6.25, 2)
  })

  it('is looked at between both ends and nowhere else, an obstacle at either end being none', () => {
    const path = (distanceM: number) => link({ obstacle: { distanceM, heightM: 1 } })
    const places = clearings(path(900), 5510)
    expect(places).toHaveLength(400)
    expect(places.every(({ fromA, fresnelM }) => fromA > 0 && fromA < 1800 && fresnelM > 0)).toBe(true)
    expect(places.at(-1)?.what).toBe('obstacle')
    for (const distanceM of [0, 1800]) expect(clearings(path(distanceM), 5510)).toHaveLength(399)
    expect(mended({ obstacle: null })).toBe('')
    expect(mended({ obstacle: { distanceM: 0, heightM: 1 } })).toContain('The highest thing stands 0.0 m')
  })

  it('says what stands in it, and how much of the zone is wanted there', () => {
    const low = mended({ distanceM: 8000, heightA: 5, heightB: 5 })
    expect(low).toMatch(/m stand free above the ground, .* \(60 % of the first Fresnel zone\)\./)
    // 10 km exactly is no long path yet.
    const at = (distanceM: number) => linkBudget(link({ distanceM }), radio).worst
    expect(at(10_000).wantedM / at(10_000).fresnelM).toBeCloseTo(0.6, 9)
    expect(at(10_001).wantedM / at(10_001).fresnelM).toBeCloseTo(1, 9)
  })

  it('is lifted by a mast as far as the place is near to it', () => {
    // A quarter of the way: a metre more at the access end is 0.75 m there, one at the station end 0.25 m.
    const said = mended({ distanceM: 1800, heightA: 10, heightB: 10, obstacle: { distanceM: 450, heightM: 9 } })
    const wanted = 0.6 * fresnelRadius(5510, 450, 1800)
    const missing = wanted - (1 - earthBulge(450, 1800))
    expect(said).toContain(
      `Raise the access end by ${(missing / 0.75).toFixed(1)} m, or the station end by ` +
        `${(missing / 0.25).toFixed(1)} m, or both by ${missing.toFixed(1)} m.`,
    )
  })

  it('wants the whole first zone where it is long', () => {
    expect(mended({ distanceM: 12_000, heightA: 14, heightB: 14 })).toContain('the whole first Fresnel zone')
    expect(linkBudget(link({ distanceM: 12_000 }), radio).worst.wantedM).toBeCloseTo(
      linkBudget(link({ distanceM: 12_000 }), radio).worst.fresnelM,
      9,
    )
  })

  it('refuses an obstacle that is not on it', () => {
    expect(mended({ obstacle: { distanceM: 2000, heightM: 4 } })).toBe(
      'The highest thing stands 2000.0 m from the access end, and the link is 1800.0 m long: correct one of the two.',
    )
    const faultAt = (obstacle: Link['obstacle']) =>
      newSiteSchema.safeParse({ ...emptySite, links: [link({ obstacle })] }).error?.issues[0]
    for (const distanceM of [2000, 1800])
      expect(english(faultAt({ distanceM, heightM: 4 }))).toMatchObject({
        path: ['links', 0, 'obstacle', 'distanceM'],
        message: 'the highest thing on the way stands between both ends',
      })
    expect([faultAt({ distanceM: 1799, heightM: 4 }), faultAt(null)]).toEqual([undefined, undefined])
  })
})

describe('a hub with many stations', () => {
  const hub = (...links: Partial<Link>[]) =>
    planLinks(
      countryOf('NZ'),
      policy,
      { ...emptySite, links: links.map((part, at) => link({ b: `s${at}`, ...part })) },
      () => cardOf('Windrow W5'),
      [],
    )

  it('has one channel with all of them, and is as loud as the farthest wants', () => {
    const { plans, faults } = hub({ distanceM: 200 }, { distanceM: 4000 }, { distanceM: 900 })
    expect(faults).toEqual([])
    const all = ['quay', 's0', 's1', 's2'].map((unit) => plans.get(unit))
    expect(new Set(all.map((plan) => plan?.channel)).size).toBe(1)
    expect(plans.get('quay')?.power.set).toBe(plans.get('s1')?.power.set)
    expect(plans.get('s0')?.power.set ?? 99).toBeLessThan(plans.get('s1')?.power.set ?? 0)
  })

  it('takes one that was chosen for a single station, and says where two were', () => {
    const { plans } = hub({}, { channel: 149 })
    expect(['quay', 's0', 's1'].map((unit) => plans.get(unit)?.channel)).toEqual([149, 149, 149])
    expect(hub({ channel: 100 }, { channel: 149 }).faults).toMatchObject([
      {
        code: 'hub-of-two-channels',
        params: { unit: 'quay', stations: 2, channels: [100, 149] },
      },
    ])
    expect(hub({ width: 20 }, {}).faults).toMatchObject([{ code: 'hub-of-two-widths', params: { widths: [20, 40] } }])
  })
})

describe('the plan of a link', () => {
  it('puts both ends on one block that is legal outdoors, with no more power than brings the wanted level', () => {
    const { plans, faults } = plan('NZ')
    expect(faults).toEqual([])
    expect(plans.get('quay')).toEqual(plans.get('light'))
    const end = plans.get('quay')
    if (!end) throw new Error('no plan')
    const judgement = judgeChannel(countryOf('NZ'), '5', end.channel, end.width)
    expect(judgement.legal && !judgement.block.indoor).toBe(true)
    expect(end.power.set + end.power.gain).toBeLessThanOrEqual(end.power.limit)
    const received = end.power.set + 2 * end.power.gain - freeSpaceLoss(end.lowMhz + 20, 1800)
    expect(received).toBeLessThanOrEqual(-45)
    // Less than wanted arrives only where the country allows no louder step.
    const next = cardOf('Windrow W5').radios[0]?.steps.find((step) => step > end.power.set) ?? 99
    expect(received > -49 || next + end.power.gain > end.power.limit).toBe(true)
  })

  it('stays off what the site itself uses', () => {
    const free = plan('NZ').plans.get('quay')
    if (!free) throw new Error('no plan')
    const elsewhere = plan('NZ', {}, [{ lowMhz: free.lowMhz, highMhz: free.lowMhz + 40 }]).plans.get('quay')
    expect(elsewhere?.lowMhz).not.toBe(free.lowMhz)
  })

  it('keeps a channel that was chosen, and refuses one that is not legal or two models', () => {
    expect(plan('NZ', { channel: 149 }).plans.get('light')).toMatchObject({ channel: 149, locked: true })
    expect(plan('JP', { channel: 149 }).faults.map(sentence)[0]).toBe(
      'No 40 MHz channel is legal outdoors in JP for Windrow W5 on 149: use another width.',
    )
    expect(plan('NZ', { b: 'hall' }).faults.map(sentence)[0]).toBe(
      'quay and hall are of two models, Windrow W5 and Ostrel O-40: both ends of a link are the same.',
    )
  })
})

it('waits a minute for radar rather than ten', () => {
  // In New Zealand every outdoor 40 MHz channel below 5725 MHz listens; those free of it are busy here.
  const busy = [
    { lowMhz: 5170, highMhz: 5250 },
    { lowMhz: 5735, highMhz: 5875 },
  ]
  for (const part of [{}, { width: 20 as const }, { width: 80 as const }]) {
    const { plans } = plan('NZ', part, busy)
    expect(plans.get('quay')).toMatchObject({ radar: true, listenSeconds: 60 })
  }
  expect(plan('NZ', { channel: 124 }).plans.get('quay')).toMatchObject({ channel: 124, listenSeconds: 600 })
})
