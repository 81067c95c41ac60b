/** The plan of links, one rule at a time. */

import { describe, expect, it } from 'vitest'
import { cardOf, countryOf } from '../../../../tests/support/data'
import { radioPolicySchema } from '../../brief/policies'
import { legalBlocks } from '../../regulatory/legal'
import { eirpOf } from '../channels/power'
import { emptySite, type Link } from '../propagation/floor'
import { freeSpaceLoss } from './link'
import { planLinks } from './plan-links'

const link = (part: Partial<Link> = {}): Link => ({
  ...{ a: 'quay', b: 'light', distanceM: 1800, heightA: 14, heightB: 12, obstacle: null, width: 40, channel: null },
  ...part,
})
const policy = radioPolicySchema.parse({ environment: 'indoor', bands: [{ band: '5', width: 40 }], radar: 'welcome' })

describe('what a plan of links keeps to', () => {
  const dish = cardOf('Windrow W5')
  const planOf = (
    links: readonly Partial<Link>[],
    part: {
      site?: object
      cardOf?: (unit: string) => ReturnType<typeof cardOf> | undefined
      busy?: { lowMhz: number; highMhz: number }[]
      shut?: Record<string, { lowMhz: number; highMhz: number }[]>
    } = {},
    code = 'NZ',
  ) =>
    planLinks(
      countryOf(code),
      policy,
      { ...emptySite, ...part.site, links: links.map((each) => link(each)) },
      part.cardOf ?? (() => dish),
      part.busy ?? [],
      (unit) => part.shut?.[unit] ?? [],
    )
  const whole = { lowMhz: 5000, highMhz: 5900 }

  it('leaves out a hub that is not on the list, and plans the others', () => {
    const { plans, faults } = planOf([{}, { a: 'gone', b: 'away' }], {
      cardOf: (unit) => (unit === 'gone' ? undefined : dish),
    })
    expect(faults).toEqual([])
    expect([...plans.keys()]).toEqual(['quay', 'light'])
  })

  it('stays off the networks of others, the more so the louder they are', () => {
    const heard = (channel: number, dbm: number) => ({ ssid: 'x', unit: null, band: '5', channel, width: 20, dbm })
    const [free] = planOf([{}]).plans.values()
    const channel = free?.channel ?? 0
    const beside = planOf([{}], { site: { heard: [heard(channel, -60)] } }).plans.get('quay')
    expect(beside?.lowMhz).not.toBe(free?.lowMhz)
    // All but two blocks are taken by others of the site: of these the one with the fainter network.
    const others = [
      { lowMhz: 5000, highMhz: 5735 },
      { lowMhz: 5815, highMhz: 5900 },
    ].flatMap((span) => [span, span, span, span, span, span])
    const choice = (at149: number, at157: number) =>
      planOf([{}], { busy: others, site: { heard: [heard(149, at149), heard(157, at157), heard(38, -40)] } }).plans.get(
        'quay',
      )?.channel
    expect([choice(-60, -80), choice(-80, -60)]).toEqual([157, 149])
  })

  it('keeps off what radar has shut for its hub or any of its stations, and has no plan where that is all', () => {
    const [free] = planOf([{}]).plans.values()
    const span = { lowMhz: free?.lowMhz ?? 0, highMhz: (free?.lowMhz ?? 0) + 40 }
    for (const unit of ['quay', 'light'])
      expect(planOf([{}], { shut: { [unit]: [span] } }).plans.get('quay')?.lowMhz).not.toBe(free?.lowMhz)
    expect(planOf([{}], { shut: { somebody: [span] } }).plans.get('quay')?.lowMhz).toBe(free?.lowMhz)
    const { plans, faults } = planOf([{}], { shut: { light: [whole] } })
    expect(plans.size).toBe(0)
    expect(faults).toMatchObject([
      { code: 'no-legal-link-channel', unit: 'quay', params: { width: 40, country: 'NZ', model: 'Windrow W5' } },
    ])
  })

  it('is as wide as was asked, never narrower in silence, and outdoors', () => {
    const narrow = { ...dish, radios: dish.radios.map((radio) => ({ ...radio, widths: [20 as const] })) }
    expect(planOf([{}], { cardOf: () => narrow }).faults).toMatchObject([{ code: 'no-legal-link-channel' }])
    expect(planOf([{ width: 20 }], { cardOf: () => narrow }).plans.get('quay')).toMatchObject({
      width: 20,
      environment: 'outdoor',
    })
    for (const width of [20, 40, 80] as const) {
      const { lowMhz = 0 } = planOf([{ width }], {}, 'DE').plans.get('quay') ?? {}
      // Below 5350 MHz Germany is indoors only.
      expect(lowMhz, `${width}`).toBeGreaterThan(5350)
    }
  })

  it('takes of equals the block that may be louder', () => {
    // New Zealand, outdoors and without radar: two ranges, of which the upper one may be louder.
    const free = legalBlocks(countryOf('NZ')).filter(
      ({ band, width, indoor, radar }) => band === '5' && width === 40 && !indoor && !radar,
    )
    const limits = new Set(free.map(({ limitDbm }) => limitDbm))
    expect(limits.size).toBeGreaterThan(1)
    expect(planOf([{}]).plans.get('quay')?.power.limit).toBe(Math.max(...limits))
  })

  it('gives a hub with several stations the power of no fixed pair, and them neither', () => {
    const loudest = (stations: number, code: string): number => {
      const links = Array.from({ length: stations }, (_, at) => ({ b: `s${at}`, distanceM: 50_000, channel: 149 }))
      const { plans } = planOf(links, {}, code)
      expect(plans.size).toBe(stations + 1)
      return Math.max(...[...plans.values()].map(({ power }) => eirpOf(power)))
    }
    // 47 CFR 15.407(a)(3): 30 dBm and an antenna of 6 dBi; a fixed pair loses nothing for a greater antenna.
    expect(loudest(1, 'US')).toBeGreaterThan(36)
    expect(loudest(3, 'US')).toBeLessThanOrEqual(36)
    // Where the limit is one of EIRP it is the same for both.
    expect(loudest(3, 'NZ')).toBe(loudest(1, 'NZ'))
  })

  it('is locked where one of its links has a channel that was chosen', () => {
    const flags = (...links: Partial<Link>[]) => [...planOf(links).plans.values()].map(({ locked }) => locked)
    expect(flags({}, { b: 'two', channel: 149 })).toEqual([true, true, true])
    expect(flags({}, { b: 'two' })).toEqual([false, false, false])
  })

  it('says which fault it is', () => {
    const two = planOf([{}], { cardOf: (unit) => (unit === 'quay' ? dish : cardOf('Ostrel O-40')) })
    expect(two.faults).toMatchObject([{ code: 'link-of-two-models', unit: 'quay' }])
    expect(two.plans.size).toBe(0)
  })

  it(
    'wants -45 dBm at the other end, to a tenth, of all chains together, and no more than is legal or the ' +
      'model has',
    () => {
      const perChain = { ...dish, radios: dish.radios.map((radio) => ({ ...radio, stepsAre: 'per-chain' as const })) }
      const power = (distanceM: number, card: typeof dish = dish, code = 'NZ') =>
        planOf([{ distanceM, channel: 149 }], { cardOf: () => card }, code).plans.get('quay')?.power
      const wanted = (distanceM: number): number => -45 + freeSpaceLoss(5755, distanceM) - 46
      expect(wanted(500)).toBeCloseTo(10.6, 1)
      expect(power(500)).toMatchObject({ target: Math.round(10 * wanted(500)) / 10, set: 9 })
      // Two chains of 6 dBm are 9.01 together; of 9 dBm they would be 12.01.
      expect(power(500, perChain)).toMatchObject({ target: 10.6, set: 6 })
      // So near that the lowest step is too loud: that one.
      expect(power(20)).toMatchObject({ target: Math.round(10 * wanted(20)) / 10, set: 0 })
      expect(power(20, perChain)?.set).toBe(0)
      // So far that the limit of the country ends it: what is legal in all, of both chains.
      const most = power(50_000)
      const limited = (most?.limit ?? 0) - 23
      expect(most?.set).toBe(Math.max(...(dish.radios[0]?.steps ?? []).filter((step) => step <= limited)))
      expect(most?.target).toBe(most?.set)
      const chained = power(50_000, perChain)
      expect(chained?.target).toBeCloseTo((chained?.set ?? 0) + 3, 1)
    },
  )
})
