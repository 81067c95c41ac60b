/** The problem behind a plan of radios, and what is made of its solution: options, prices, who hears whom, refusals. */
import { describe, expect, it } from 'vitest'
import { cardOf, countryOf } from '../../../tests/support/data'
import { type RadioPolicy, radioPolicySchema } from '../brief/policies'
import { whyNothingIsLegal } from '../regulatory/legal'
import { seeded } from './channel-search'
import { emptySite, type Floor, floorSchema, type Site } from './floor'
import { channelProblemOf, planRadios } from './plan-radios'
import { distanceLoss } from './propagation'
import type { RadioRequest } from './radio-request'

const ask = (unit: string, part: Partial<RadioRequest> = {}): RadioRequest => ({
  unit,
  card: cardOf('Ostrel O-40'),
  locks: {},
  set: {},
  ...part,
})
const units = (count: number, part: Partial<RadioRequest> = {}) =>
  Array.from({ length: count }, (_, at) => ask(`u${at}`, part))
const policy = (part: object = {}): RadioPolicy =>
  radioPolicySchema.parse({
    environment: 'indoor',
    bands: [{ band: '5', width: 80 }],
    radar: 'avoid',
    narrower: 'never',
    power: { clientDbm: 17, lowerAt24Db: 6 },
    ...part,
  })
const floor = (id: string, part: Partial<Floor> = {}): Floor =>
  floorSchema.parse({
    ...{ id, name: id, storey: 0, heightM: 4, environment: 'indoor', widthM: 60, depthM: 30 },
    ...{ drawing: null, walls: [], innerWalls: 'some-drawn', ...part },
  })
const NZ = countryOf('NZ')
const measured = (a: string, b: string, dbm: number, band: '5' | '2.4' = '5') => ({ a, b, band, dbm })
const fullWidth = (plans: ReturnType<typeof planRadios>['plans']) =>
  [...plans.values()].flat().map(({ width, narrowedFrom }) => [width, narrowedFrom])

describe('options of a radio', () => {
  const optionsOf = (part: object, request: Partial<RadioRequest> = {}) =>
    channelProblemOf(NZ, policy(part), [ask('a', request)], emptySite).problem.radios[0]?.options.map(
      ({ channel, width, price }) => `${channel}/${width} ${price}`,
    )

  it('are the widest alone, or narrower ones too at 20 dB for each half that is given up', () => {
    expect(optionsOf({})).toEqual(['36/80 0', '149/80 0'])
    expect(optionsOf({ narrower: 'allowed' })).toEqual([
      ...['36/80 0', '149/80 0'],
      ...['36/40 20', '44/40 20', '149/40 20', '157/40 20', '165/40 20'],
      ...[36, 40, 44, 48, 149, 153, 157, 161, 165, 169, 173].map((channel) => `${channel}/20 40`),
    ])
  })

  it('cost what they are quieter than wanted besides', () => {
    // Germany, 149 and up: 13.97 dBm EIRP less 5 dBi leave the step of 8 dBm, 9 below the 17 that are wanted.
    const { problem } = channelProblemOf(countryOf('DE'), policy(), [ask('a')], emptySite)
    expect(problem.radios[0]?.options.map(({ channel, price }) => [channel, price])).toEqual([
      [36, 0],
      [149, 9],
    ])
    expect(problem.adjacent).toBe('by-mask')
  })

  it('leave out what radar has shut in this band, and are all there where it has shut everything', () => {
    const low = { band: '5' as const, lowMhz: 5170, highMhz: 5190 }
    const high = { band: '5' as const, lowMhz: 5735, highMhz: 5755 }
    expect(optionsOf({}, { shut: [low] })).toEqual(['149/80 0'])
    expect(optionsOf({}, { shut: [high] })).toEqual(['36/80 0'])
    // The widest that is left.
    expect(optionsOf({}, { shut: [high, low] })).toEqual(['44/40 0', '157/40 0', '165/40 0'])
    expect(optionsOf({}, { shut: [{ ...low, highMhz: 5900 }] })).toEqual(['36/80 0', '149/80 0'])
    expect(optionsOf({}, { shut: [{ ...low, band: '6' }] })).toEqual(['36/80 0', '149/80 0'])
  })
})

describe('where a radio is judged to be', () => {
  const environment = (
    part: Partial<RadioRequest>,
    on: 'indoor' | 'outdoor' | 'nowhere',
    ofPolicy: 'indoor' | 'outdoor',
  ) => {
    const site: Site = {
      ...emptySite,
      floors: on === 'nowhere' ? [] : [floor('f', { environment: on })],
      placements: [{ unit: 'a', floor: on === 'nowhere' ? 'gone' : 'f', x: 1, y: 1 }],
    }
    const wanted = policy({ environment: ofPolicy, radar: 'welcome' })
    return planRadios(NZ, wanted, [ask('a', part)], site, 'quick').plans.get('a')?.[0]?.environment
  }
  it('is the floor that it hangs on, else what the policy says', () => {
    expect(environment({}, 'outdoor', 'indoor')).toBe('outdoor')
    expect(environment({}, 'indoor', 'outdoor')).toBe('indoor')
    expect(environment({}, 'nowhere', 'outdoor')).toBe('outdoor')
    expect(environment({}, 'nowhere', 'indoor')).toBe('indoor')
  })
  it('is outdoors for a model that is made for it, wherever it hangs', () => {
    expect(environment({ card: cardOf('Tarnhelm T3') }, 'indoor', 'indoor')).toBe('outdoor')
  })
})

describe('a radio that is planned', () => {
  it('has all of its plan: block, listening, power, and whether somebody chose it', () => {
    const of = (locks: RadioRequest['locks']) =>
      planRadios(NZ, policy(), [ask('a', { locks })], emptySite, 'quick').plans.get('a')
    const power = { limit: 30, limitOf: 'eirp', off: 5, gain: 5, chainsDb: 0, most: 23, target: 17, set: 17 }
    expect(of({ '5': 40 })).toEqual([
      {
        ...{ band: '5', channel: 40, width: 80, lowMhz: 5170, radar: false, listenSeconds: 0 },
        ...{ power: { ...power, limit: expect.any(Number) }, locked: true, environment: 'indoor', narrowedFrom: null },
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

describe('who hears whom', () => {
  const heardIn = (site: Partial<Site>, count: number, part: object = {}, country = NZ) =>
    channelProblemOf(country, policy(part), units(count), { ...emptySite, ...site })
  const pairs = (of: ReturnType<typeof heardIn>) =>
    of.problem.hears.map(({ a, b, dbm }) => `${a} ${b} ${Math.round(dbm)}`)

  it('is guessed from the order of the list where nobody hangs anywhere: -68 dBm, and 4 less with each further one', () => {
    expect(pairs(heardIn({}, 8)).filter((pair) => pair.startsWith('u0 5 '))).toEqual([
      ...['u0 5 u1 5 -68', 'u0 5 u2 5 -72', 'u0 5 u3 5 -76', 'u0 5 u4 5 -80', 'u0 5 u5 5 -84', 'u0 5 u6 5 -88'],
    ])
    expect(pairs(heardIn({}, 2))).toEqual(['u0 5 u1 5 -68'])
  })

  it('is guessed of one that hangs nowhere, worked out between those that hang somewhere', () => {
    const floors = [floor('f')]
    const at = (unit: string, x: number, on = 'f') => ({ unit, floor: on, x, y: 5 })
    const two = heardIn({ floors, placements: [at('u0', 0), at('u1', 10)] }, 3)
    // 17 dBm and two antennas of 5 dBi over 10 m of an office.
    const worked = Math.round(27 - distanceLoss('5', 10, 'office'))
    expect(pairs(two)).toEqual([`u0 5 u1 5 ${worked}`, 'u0 5 u2 5 -72', 'u1 5 u2 5 -68'])
    expect(pairs(heardIn({ floors, placements: [at('u0', 0), at('u1', 10, 'gone')] }, 2))).toEqual(['u0 5 u1 5 -68'])
  })

  it('is as loud as a radio may ever be: on the block that lets it be loudest', () => {
    const site = {
      floors: [floor('f')],
      placements: ['u0', 'u1'].map((unit, at) => ({ unit, floor: 'f', x: 10 * at, y: 5 })),
    }
    const loudest = Math.round(27 - distanceLoss('5', 10, 'office'))
    expect(pairs(heardIn(site, 2, {}, countryOf('DE')))).toEqual([`u0 5 u1 5 ${loudest}`])
  })

  it('is as it was measured, whoever listened, in that band alone, and only between two that are planned', () => {
    const levels = [
      measured('u1', 'u0', -55),
      measured('u0', 'u1', -30, '2.4'),
      measured('u0', 'u0', -20),
      measured('u0', 'stranger', -20),
      measured('stranger', 'u1', -20),
    ]
    expect(pairs(heardIn({ measured: levels }, 3))).toEqual(['u1 5 u0 5 -55', 'u0 5 u2 5 -72', 'u1 5 u2 5 -68'])
    expect(pairs(heardIn({ measured: [measured('u0', 'u1', -55)] }, 2))).toEqual(['u0 5 u1 5 -55'])
    expect(heardIn({ measured: levels }, 3).misfits).toEqual([])
  })

  it('shows how far the model is off in each band, and is worked out with the fit where the site says so', () => {
    const site = {
      floors: [floor('f')],
      placements: [0, 10, 20, 30].map((x, at) => ({ unit: `u${at}`, floor: 'f', x, y: 5 })),
      measured: [
        ...[measured('u0', 'u1', -70), measured('u1', 'u2', -70), measured('u2', 'u3', -70)],
        ...[measured('u0', 'u1', -60, '2.4')],
      ],
    }
    const bands = {
      bands: [
        { band: '2.4', width: 20 },
        { band: '5', width: 80 },
      ],
    }
    const found = heardIn(site, 4, bands)
    expect(found.misfits.map(({ band, residuals }) => [band, residuals.length])).toEqual([
      ['2.4', 1],
      ['5', 3],
    ])
    const bias = found.misfits[1]?.biasDb ?? 0
    const level = (of: ReturnType<typeof heardIn>, band: string) =>
      of.problem.hears.find(({ a, b }) => a === `u0 ${band}` && b === `u2 ${band}`)?.dbm ?? Number.NaN
    const fitted = heardIn({ ...site, model: 'fitted' }, 4, bands)
    expect(level(fitted, '5') - level(found, '5')).toBeCloseTo(bias, 0)
    // One pair is too few for a fit: this band stays as it is.
    expect(level(fitted, '2.4')).toBe(level(found, '2.4'))
  })

  it('counts networks of others where they were heard: at a unit or everywhere, on the band of the radio', () => {
    const net = (unit: string | null, band: '5' | '2.4', channel: number) => ({
      ...{ ssid: 'x', unit, band, channel, width: 20 as const, dbm: -60 },
    })
    const { problem } = heardIn(
      { heard: [net('u0', '5', 36), net(null, '5', 149), net('u1', '2.4', 1), net('u1', '5', 48)] },
      2,
    )
    expect(problem.others.map(({ radio, lowMhz, highMhz, dbm }) => [radio, lowMhz, highMhz, dbm])).toEqual([
      ['u0 5', 5170, 5190, -60],
      ['u0 5', 5735, 5755, -60],
      ['u1 5', 5735, 5755, -60],
      ['u1 5', 5230, 5250, -60],
    ])
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
    expect(fault?.sentence).toBe(
      `Tarnhelm T2 finds a channel of 80 MHz or less at 6 GHz neither legal in CN nor within its own powers. ${whyNothingIsLegal(countryOf('CN'), '6')}`,
    )
    // Legal, and too loud for it: there is nothing to name.
    const loud = { ...t2.card, radios: t2.card.radios.map((radio) => ({ ...radio, steps: [60] })) }
    expect(refused('NZ', {}, { card: loud })[0]?.sentence).toBe(
      'Tarnhelm T2 finds a channel of 80 MHz or less at 5 GHz neither legal in NZ nor within its own powers.',
    )
    const outdoors = refused('GB', { ...six, environment: 'outdoor' }, t2)[0]?.sentence
    expect(outdoors).toMatch(/^Tarnhelm T2 finds a channel of 80 MHz or less at 6 GHz neither legal outdoors in GB nor/)
    expect(refused('NZ', {}, { locks: { '5': 38 } })[0]?.sentence).toMatch(
      /^Ostrel O-40 finds channel 38 at 5 GHz neither legal in NZ nor within its own powers\. There is no channel 38 of 20 MHz/,
    )
    // Legal, and left out by its maker: there is no rule to name.
    const card = {
      ...cardOf('Ostrel O-40'),
      radios: cardOf('Ostrel O-40').radios.map((radio) => ({ ...radio, leftOut: [36] })),
    }
    expect(refused('NZ', {}, { card, locks: { '5': 36 } })[0]?.sentence).toBe(
      'Ostrel O-40 finds channel 36 at 5 GHz neither legal in NZ nor within its own powers.',
    )
  })
})
