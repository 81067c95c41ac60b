/** What is made of the solution of a plan of radios: their plans, narrower channels, radios that are off, refusals. */

import { describe, expect, it } from 'vitest'
import { cardOf, countryOf } from '../../../tests/support/data'
import { ask, measured, policy, units } from '../../../tests/support/radios'
import { sentence } from '../../words/en/sentence'
import type { Message } from '../message/message'
import { seeded } from '../radio/channels/channel-search'
import type { RadioRequest } from '../radio/channels/radio-request'
import { emptySite, type Site } from '../radio/propagation/floor'
import { whyNothingIsLegal } from '../regulatory/legal'
import { planRadios } from './plan-radios'

const NZ = countryOf('NZ')
const fullWidth = (plans: ReturnType<typeof planRadios>['plans']) =>
  [...plans.values()].flat().map(({ width, narrowedFrom }) => [width, narrowedFrom])

describe('a radio that is planned', () => {
  it('has all of its plan: block, listening, power, and whether somebody chose it', () => {
    const of = (locks: RadioRequest['locks']) =>
      planRadios(NZ, policy(), [ask('a', { locks })], emptySite, 'quick').plans.get('a')
    const power = { limit: 30, limitOf: 'eirp', off: 5, gain: 5, chainsDb: 0, most: 23, target: 17, set: 17 }
    expect(of({ '5': 40 })).toEqual([
      {
        ...{ band: '5', channel: 40, width: 80, lowMhz: 5170, radar: false, listenSeconds: 0 },
        ...{
          power: { ...power, limit: expect.any(Number) },
          locked: true,
          environment: 'indoor',
          use: 'area',
          narrowedFrom: null,
        },
      },
    ])
    expect(of({})).toMatchObject([{ channel: 36, width: 80, locked: false, narrowedFrom: null }])
  })

  it('is none of a link end, and that is no fault; nor of a card that is locked to this very country', () => {
    const link = planRadios(NZ, policy(), [ask('a', { card: cardOf('Windrow W5') })], emptySite, 'quick')
    expect([link.faults, link.plans.get('a')]).toEqual([[], []])
    const home = planRadios(
      countryOf('US'),
      policy(),
      [ask('a', { card: cardOf('Ostrel O-20 US') })],
      emptySite,
      'quick',
    )
    expect(home.faults).toEqual([])
    expect(home.plans.get('a')).toHaveLength(1)
  })
})

describe('a narrower channel', () => {
  // Japan has one block of 80 MHz without radar, indoors: for two radios that is one too few, and two blocks of 40 MHz.
  const planned = (narrower: 'allowed' | 'never', site: Partial<Site>, requests: readonly RadioRequest[]) =>
    planRadios(countryOf('JP'), policy({ narrower }), requests, { ...emptySite, ...site }, 'quick')
  const near = (dbm: number) => ({ measured: [measured('u0', 'u1', dbm)] })
  const both = (width: number, from: number | null) => [
    [width, from],
    [width, from],
  ]

  it('is taken where it saves more than the bandwidth is worth, and is said', () => {
    expect(fullWidth(planned('allowed', near(-35), units(2)).plans)).toEqual(both(40, 80))
    expect(fullWidth(planned('never', near(-35), units(2)).plans)).toEqual(both(80, null))
    // Sharing costs 32 at -60 dBm, and giving up half of two bandwidths 40.
    expect(fullWidth(planned('allowed', near(-60), units(2)).plans)).toEqual(both(80, null))
    expect(fullWidth(planned('allowed', near(-92), units(2)).plans)).toEqual(both(80, null))
  })

  it('is left to those that are disturbed', () => {
    const quiet = ['u0', 'u1'].map((id) => measured(id, 'u2', -92))
    const widths = fullWidth(planned('allowed', { measured: [...near(-35).measured, ...quiet] }, units(3)).plans)
    expect(widths).toEqual([...both(40, 80), [80, null]])
  })

  it('is taken beside the networks of others too, on the right one of blocks that begin at one frequency', () => {
    const heard = (channel: number, unit: string | null = null) => ({
      ...{ ssid: 'x', unit, band: '5' as const, channel, width: 20 as const, dbm: -30 },
    })
    const alone = (...nets: Site['heard']) => planned('allowed', { heard: nets }, units(1)).plans.get('u0')?.[0]
    expect(alone(heard(40))).toMatchObject({ channel: 44, width: 40, lowMhz: 5210, narrowedFrom: 80 })
    expect(alone(heard(44))).toMatchObject({ channel: 36, width: 40, lowMhz: 5170, narrowedFrom: 80 })
    expect(alone(heard(40), heard(44))).toMatchObject({ width: 20, narrowedFrom: 80 })
    expect(fullWidth(planned('allowed', { heard: [heard(40, 'u0')], ...near(-92) }, units(2)).plans)).toEqual([
      [40, 80],
      [80, null],
    ])
  })

  it('that is planned already is kept while it is needed, and given up when it is not', () => {
    const first = planned('allowed', near(-35), units(2))
    const set = units(2).map((request) => {
      const [radio] = first.plans.get(request.unit) ?? []
      return { ...request, set: radio ? { '5': { channel: radio.channel, width: radio.width } } : {} }
    })
    const again = planned('allowed', near(-35), set)
    expect(again.plans).toEqual(first.plans)
    expect(again.cost).toBe(first.cost)
    expect(fullWidth(planned('allowed', near(-92), set).plans)).toEqual(both(80, null))
    expect(fullWidth(planned('never', near(-35), set).plans)).toEqual(both(80, null))
  })
})

describe('a plan that is made again without a search', () => {
  it('is no worse than what is set, where some of that is narrower than it could be', () => {
    const random = seeded(4)
    const ids = Array.from({ length: 9 }, (_, at) => `u${at}`)
    const site: Site = {
      ...emptySite,
      measured: ids.flatMap((a, at) => ids.slice(at + 1).map((b) => measured(a, b, -35 - Math.floor(120 * random())))),
    }
    const wanted = policy({ narrower: 'allowed' })
    const planned = (effort: 'quick' | 'greedy', set?: ReturnType<typeof planRadios>['plans']) => {
      const requests = units(9).map((request) => {
        const [radio] = set?.get(request.unit) ?? []
        return { ...request, set: radio ? { '5': { channel: radio.channel, width: radio.width } } : {} }
      })
      const { plans, cost } = planRadios(countryOf('JP'), wanted, requests, site, effort)
      // 20 for each half of the bandwidth that is given up.
      const givenUp = [...plans.values()]
        .flat()
        .map(({ width, narrowedFrom }) => 20 * Math.log2((narrowedFrom ?? width) / width))
      return { plans, cost: givenUp.reduce((sum, each) => sum + each, cost) }
    }
    const best = planned('quick')
    expect(fullWidth(best.plans).some(([width]) => width === 80)).toBe(true)
    expect(fullWidth(best.plans).some(([width]) => width !== 80)).toBe(true)
    expect(planned('greedy').cost).toBeGreaterThan(best.cost + 1)
    expect(planned('greedy', best.plans).cost).toBeLessThanOrEqual(best.cost + 1e-6)
    // Somebody who is narrow for nothing does not stay so.
    const narrow = new Map(
      [...best.plans].map(([unit, radios]) => [
        unit,
        radios.map((radio) => ({ ...radio, channel: 36, width: 20 as const })),
      ]),
    )
    expect(planned('quick', narrow).cost).toBeLessThanOrEqual(best.cost + 1e-6)
  })
})

describe('radios that are switched off since they are too many', () => {
  it('are gone from the problem, with all that they hear', () => {
    const ids = Array.from({ length: 12 }, (_, at) => `u${at}`)
    const at24 = ids.flatMap((a, at) => ids.slice(at + 1).map((b) => measured(a, b, -50, '2.4')))
    const heard = ids.map((unit) => ({
      ...{ ssid: 'x', unit, band: '2.4' as const, channel: 1, width: 20 as const, dbm: -80 },
    }))
    const wanted = policy({ bands: [{ band: '2.4', width: 20 }], crowded24: 'switch-off' })
    const { crowded, problem, plans } = planRadios(
      NZ,
      wanted,
      units(12),
      { ...emptySite, measured: at24, heard },
      'quick',
    )
    // Twelve on three channels: three may stay on each.
    expect(crowded).toHaveLength(3)
    const off = new Set(crowded)
    const on = ids.map((id) => `${id} 2.4`).filter((id) => !off.has(id))
    expect(problem.radios.map(({ id }) => id)).toEqual(on)
    expect(problem.hears).toHaveLength((on.length * (on.length - 1)) / 2)
    expect(problem.hears.every(({ a, b }) => !off.has(a) && !off.has(b))).toBe(true)
    expect(problem.others.map(({ radio }) => radio)).toEqual(on)
    expect(
      [...plans]
        .filter(([, radios]) => radios.length === 0)
        .map(([unit]) => `${unit} 2.4`)
        .sort(),
    ).toEqual([...crowded].sort())
  })
})

describe('a refusal', () => {
  const refused = (code: string, part: object, request: Partial<RadioRequest> = {}) =>
    planRadios(countryOf(code), policy(part), [ask('a', request)], emptySite, 'quick').faults

  it('names the channel that was chosen, or how wide it may be, and where', () => {
    const six = { bands: [{ band: '6', width: 80 }] }
    const t2 = { card: cardOf('Tarnhelm T2') }
    const [fault] = refused('CN', six, t2)
    expect(fault).toMatchObject({ code: 'no-legal-channel', unit: 'a' })
    expect(sentence(fault as Message)).toBe(
      'Tarnhelm T2 finds a channel of 80 MHz or less at 6 GHz neither legal in CN nor within its own powers. ' +
        `${sentence(whyNothingIsLegal(countryOf('CN'), '6') as Message)}`,
    )
    // Legal, and too loud for it: there is nothing to name.
    const loud = { ...t2.card, radios: t2.card.radios.map((radio) => ({ ...radio, steps: [60] })) }
    expect(sentence(refused('NZ', {}, { card: loud })[0] as Message)).toBe(
      'Tarnhelm T2 finds a channel of 80 MHz or less at 5 GHz neither legal in NZ nor within its own powers.',
    )
    const outdoors = sentence(refused('GB', { ...six, environment: 'outdoor' }, t2)[0] as Message)
    expect(outdoors).toMatch(/^Tarnhelm T2 finds a channel of 80 MHz or less at 6 GHz neither legal outdoors in GB nor/)
    expect(sentence(refused('NZ', {}, { locks: { '5': 38 } })[0] as Message)).toMatch(
      /^Ostrel O-40 finds channel 38 at 5 GHz neither legal in NZ nor .*\. There is no channel 38 of 20 MHz/,
    )
    // Legal, and left out by its maker: there is no rule to name.
    const card = {
      ...cardOf('Ostrel O-40'),
      radios: cardOf('Ostrel O-40').radios.map((radio) => ({ ...radio, leftOut: [36] })),
    }
    expect(sentence(refused('NZ', {}, { card, locks: { '5': 36 } })[0] as Message)).toBe(
      'Ostrel O-40 finds channel 36 at 5 GHz neither legal in NZ nor within its own powers.',
    )
  })
})
