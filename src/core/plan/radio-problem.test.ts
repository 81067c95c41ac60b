/** The problem behind a plan of radios: options and prices, where each radio is judged to be, who hears whom. */
import { describe, expect, it } from 'vitest'
import { cardOf, countryOf } from '../../../tests/support/data'
import { ask, measured, policy, units } from '../../../tests/support/radios'
import type { RadioRequest } from '../radio/channels/radio-request'
import { emptySite, type Floor, floorSchema, type Site } from '../radio/propagation/floor'
import { distanceLoss } from '../radio/propagation/propagation'
import { channelProblemOf, planRadios } from './plan-radios'

const floor = (id: string, part: Partial<Floor> = {}): Floor =>
  floorSchema.parse({
    ...{ id, name: id, storey: 0, heightM: 4, environment: 'indoor', widthM: 60, depthM: 30 },
    ...{ drawing: null, walls: [], innerWalls: 'some-drawn', ...part },
  })
const NZ = countryOf('NZ')

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
    const { problem } = channelProblemOf(countryOf('DE'), policy({ shortRange: 'used' }), [ask('a')], emptySite)
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

describe('who hears whom', () => {
  const heardIn = (site: Partial<Site>, count: number, part: object = {}, country = NZ) =>
    channelProblemOf(country, policy(part), units(count), { ...emptySite, ...site })
  const pairs = (of: ReturnType<typeof heardIn>) =>
    of.problem.hears.map(({ a, b, dbm }) => `${a} ${b} ${Math.round(dbm)}`)

  it('is guessed from the order of the list where nobody hangs anywhere: -68 dBm, and 4 less with each one', () => {
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
