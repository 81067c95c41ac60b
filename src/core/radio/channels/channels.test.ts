import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { building, neighbours, optionsOf, problemOf } from '../../../../tests/bench/building'
import { countryOf } from '../../../../tests/support/data'
import { english } from '../../../../tests/support/english'
import { type ChannelOption, type ChannelProblem, channelProblemSchema, costOf, pairsOf } from './channel-problem'
import { explainRadios } from './explain'
import { planChannels } from './plan-channels'
import { overlapOf } from './span'

const option = (channel: number, width = 20, radar = false): ChannelOption => {
  const lowMhz = 5000 + 5 * channel - 10
  return { channel, width, lowMhz, highMhz: lowMhz + width, radar, price: 0 }
}
const radio = (
  id: string,
  options: readonly ChannelOption[],
  part: Partial<ChannelProblem['radios'][number]> = {},
): ChannelProblem['radios'][number] => ({
  id,
  band: '5',
  options: [...options],
  locked: null,
  set: null,
  ...part,
})
const hears = (a: string, b: string, dbm: number) => ({ a, b, dbm })
const channelsOf = (problem: ChannelProblem): Record<string, number | undefined> => {
  const { chosen } = planChannels(problem)
  return Object.fromEntries(problem.radios.map(({ id }) => [id, chosen.get(id)?.channel]))
}

describe('the cost', () => {
  it('is overlap times the level above -92 dBm, the louder direction of each pair, others as they stand', () => {
    const problem: ChannelProblem = {
      radios: [radio('a', [option(36, 40)]), radio('b', [option(40)]), radio('c', [option(36, 40)], { band: '6' })],
      hears: [
        { a: 'a', b: 'b', dbm: -70 },
        { a: 'b', b: 'a', dbm: -72 },
        { a: 'a', b: 'c', dbm: -40 },
      ],
      others: [
        { radio: 'a', lowMhz: 5170, highMhz: 5190, dbm: -80 },
        { radio: 'b', lowMhz: 5170, highMhz: 5190, dbm: -50 },
        { radio: 'b', lowMhz: 5190, highMhz: 5210, dbm: -95 },
      ],
    }
    expect(planChannels(problem).cost).toBe(22 + 12)
  })

  // Of -50 dBm the mask of 20 MHz lets 23.45 dB less through to the channel beside it: a quarter of 42 - 23.453.
  it('counts what comes through from a channel beside, by the mask, only where that is asked', () => {
    const problem: ChannelProblem = {
      radios: [radio('a', [option(36)]), radio('b', [option(40)])],
      hears: [{ a: 'a', b: 'b', dbm: -50 }],
      others: [{ radio: 'b', lowMhz: 5210, highMhz: 5230, dbm: -50 }],
    }
    expect(planChannels(problem).cost).toBe(0)
    expect(planChannels({ ...problem, adjacent: 'by-mask' }).cost).toBeCloseTo((2 * 18.547) / 4, 2)
  })

  it('divides the shared bandwidth by that of the narrower', () => {
    expect(overlapOf({ lowMhz: 5170, highMhz: 5250 }, { lowMhz: 5170, highMhz: 5190 })).toBe(1)
    expect(overlapOf({ lowMhz: 5180, highMhz: 5200 }, { lowMhz: 5170, highMhz: 5250 })).toBe(1)
    expect(overlapOf({ lowMhz: 2402, highMhz: 2422 }, { lowMhz: 2417, highMhz: 2437 })).toBe(0.25)
    expect(overlapOf({ lowMhz: 5170, highMhz: 5190 }, { lowMhz: 5190, highMhz: 5210 })).toBe(0)
  })
})

describe('pairs of radios', () => {
  const radios = ['a', 'b', 'c', 'd'].map((id) => ({ id }))
  it('stand each once with the louder direction, whoever is named first, and without those who disturb nobody', () => {
    const both = radios.flatMap(({ id: a }) =>
      radios.filter(({ id }) => id !== a).map(({ id: b }) => ({ a, b, dbm: a < b ? -70 : -60 })),
    )
    const pairs = pairsOf(radios, [
      ...both,
      ...[hears('a', 'stranger', -40), hears('stranger', 'b', -40), hears('x', 'y', -40), hears('a', 'b', -99)],
    ])
    expect(pairs.count).toBe(6)
    const named = Array.from({ length: pairs.count }, (_, at) =>
      [pairs.first[at], pairs.second[at]]
        .toSorted()
        .map((place) => radios[place ?? -1]?.id)
        .join(''),
    )
    expect(named.toSorted()).toEqual(['ab', 'ac', 'ad', 'bc', 'bd', 'cd'])
    expect([...pairs.weight.slice(0, 6)]).toEqual([32, 32, 32, 32, 32, 32])
    expect(pairsOf(radios, [hears('a', 'b', -92)]).count).toBe(0)
  })

  it('cost nothing where one of them has no channel, or another band', () => {
    const problem: ChannelProblem = {
      radios: [radio('a', [option(36)]), radio('b', [option(36)]), radio('c', [option(36)], { band: '6' })],
      hears: [hears('a', 'b', -60), hears('a', 'c', -60), hears('a', 'stranger', -60)],
      others: [{ radio: 'b', lowMhz: 5170, highMhz: 5190, dbm: -72 }],
    }
    const on = (...ids: string[]) => costOf(problem, new Map(ids.map((id) => [id, option(36)])))
    expect([on('a', 'b', 'c'), on('a', 'c'), on('b'), on('a'), on()]).toEqual([52, 0, 20, 0, 0])
  })
})

describe('a plan of channels', () => {
  it('leaves a channel between two loud neighbours where there is one to leave, and adjacent channels count', () => {
    const options = [option(36), option(40), option(44)]
    const problem: ChannelProblem = {
      radios: [radio('a', options, { locked: 36 }), radio('b', options)],
      hears: [{ a: 'a', b: 'b', dbm: -45 }],
      others: [],
    }
    expect(channelsOf(problem)).toEqual({ a: 36, b: 40 })
    expect(channelsOf({ ...problem, adjacent: 'by-mask' })).toEqual({ a: 36, b: 44 })
    // Faint ones do not come through: the first free channel will do.
    const faint = [{ a: 'a', b: 'b', dbm: -69 }]
    expect(channelsOf({ ...problem, hears: faint, adjacent: 'by-mask' })).toEqual({ a: 36, b: 40 })
  })

  it('puts no near neighbours on one channel for the sake of what comes through from channels beside', () => {
    const options = [1, 6, 11].map((channel): ChannelOption => {
      const lowMhz = 2407 + 5 * channel - 10
      return { channel, width: 20, lowMhz, highMhz: lowMhz + 20, radar: false, price: 0 }
    })
    // A hall of four by four units, 14 m apart: all of them hear each other, with three channels for sixteen.
    const places = Array.from({ length: 12 }, (_, at) => ({
      id: `r${at}`,
      x: 14 * (at % 4),
      y: 14 * Math.floor(at / 4),
    }))
    const pairs = places.flatMap((one, at) =>
      places.slice(at + 1).map((other) => {
        const metres = Math.hypot(one.x - other.x, one.y - other.y)
        return { a: one.id, b: other.id, metres, dbm: Math.round(-45 - 20 * Math.log10(metres / 14)) }
      }),
    )
    const radios = places.map(({ id }) => radio(id, options, { band: '2.4' }))
    const channels = channelsOf({ radios, hears: pairs, others: [], adjacent: 'by-mask' })
    const besideEachOther = pairs.filter(({ metres, a, b }) => metres === 14 && channels[a] === channels[b])
    expect(besideEachOther).toEqual([])
  })

  it('puts radios that hear each other on different channels, and reuses one where they do not', () => {
    const options = [option(36), option(44)]
    const problem: ChannelProblem = {
      radios: ['a', 'b', 'c'].map((id) => radio(id, options)),
      hears: [
        { a: 'a', b: 'b', dbm: -60 },
        { a: 'b', b: 'c', dbm: -60 },
      ],
      others: [],
    }
    const channels = channelsOf(problem)
    expect(channels.a).toBe(channels.c)
    expect(channels.a).not.toBe(channels.b)
  })

  it('keeps locks, by channel or by channel and width, and gives way to networks of others', () => {
    const options = [option(36), option(36, 40), option(44)]
    const others = [{ radio: 'b', lowMhz: 5210, highMhz: 5230, dbm: -60 }]
    const problem: ChannelProblem = {
      radios: [
        radio('a', options, { locked: 44 }),
        radio('b', options),
        radio('c', options, { locked: { channel: 36, width: 40 } }),
      ],
      hears: [],
      others,
    }
    const { chosen } = planChannels(problem)
    expect(chosen.get('a')?.channel).toBe(44)
    expect(chosen.get('b')?.channel).toBe(36)
    expect(chosen.get('c')).toMatchObject({ channel: 36, width: 40 })
  })

  it('prefers among equals no wait for radar, then what is set already, then the wider', () => {
    expect(channelsOf({ radios: [radio('a', [option(52, 20, true), option(36)])], hears: [], others: [] })).toEqual({
      a: 36,
    })
    expect(
      channelsOf({
        radios: [radio('a', [option(36), option(44)], { set: { channel: 44, width: 20 } })],
        hears: [],
        others: [],
      }),
    ).toEqual({ a: 44 })
    expect(
      channelsOf({
        radios: [radio('a', [option(52, 20, true), option(36)], { set: { channel: 52, width: 20 } })],
        hears: [],
        others: [],
      }),
    ).toEqual({ a: 36 })
    expect(
      planChannels({ radios: [radio('a', [option(36), option(36, 40)])], hears: [], others: [] }).chosen.get('a')
        ?.width,
    ).toBe(40)
  })

  it('takes a radar channel where it disturbs less', () => {
    const problem: ChannelProblem = {
      radios: [radio('a', [option(36)]), radio('b', [option(36), option(52, 20, true)])],
      hears: [{ a: 'a', b: 'b', dbm: -70 }],
      others: [],
    }
    expect(channelsOf(problem)).toEqual({ a: 36, b: 52 })
  })

  it('is the same each time', () => {
    const house = building(5, { radios: 24, floors: 2, roomM: 9 })
    const problem = problemOf(house, '5', optionsOf(countryOf('NZ'), '5', 80, 'avoid'))
    expect(planChannels(problem)).toEqual(planChannels(problem))
  })

  it('is never worse than any plan that is drawn by lot, and as good as the best of all where all can be tried', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), fc.integer({ min: 2, max: 7 }), (seed, count) => {
        const house = building(seed, { radios: count, floors: 1, roomM: 8 })
        const options = optionsOf(countryOf('US'), '2.4', 20, 'avoid')
        const problem = problemOf(house, '2.4', options, neighbours(seed, house, options, 3))
        let best = Number.POSITIVE_INFINITY
        for (let plan = 0; plan < options.length ** count; plan += 1) {
          const chosen = new Map(
            problem.radios.map(({ id }, index) => [
              id,
              options[Math.floor(plan / options.length ** index) % options.length] as ChannelOption,
            ]),
          )
          best = Math.min(best, costOf(problem, chosen))
        }
        expect(planChannels(problem, 'quick').cost).toBeCloseTo(best, 6)
      }),
      { numRuns: 25 },
    )
  })

  it('beats the greedy colouring on a large field, by its full search', () => {
    const house = building(11, { radios: 400, floors: 4, roomM: 8 })
    const problem = problemOf(house, '5', optionsOf(countryOf('GB'), '5', 80, 'avoid'))
    expect(planChannels(problem).cost).toBeLessThan(planChannels(problem, 'greedy').cost)
  })
})

describe('a problem that comes from outside', () => {
  const good = {
    radios: [
      {
        id: 'a',
        band: '5',
        options: [{ channel: 36, width: 80, lowMhz: 5170, highMhz: 5250, radar: false }],
        locked: null,
      },
    ],
    hears: [],
    others: [],
  }
  it.each([
    ['no options', { ...good, radios: [{ ...good.radios[0], options: [] }] }, 'a radio needs one option at least'],
    [
      'an option that ends before it begins',
      { ...good, radios: [{ ...good.radios[0], options: [{ channel: 36, width: 20, lowMhz: 5190, highMhz: 5170 }] }] },
      'highMhz is greater than lowMhz',
    ],
    [
      'an option that has no width',
      { ...good, radios: [{ ...good.radios[0], options: [{ channel: 36, width: 20, lowMhz: 5170, highMhz: 5170 }] }] },
      'highMhz is greater than lowMhz',
    ],
    ['one radio twice', { ...good, radios: [good.radios[0], good.radios[0]] }, 'there is another radio "a"'],
    [
      'a lock to nothing',
      { ...good, radios: [{ ...good.radios[0], locked: 40 }] },
      'radio "a" is locked to a channel that is none of its options',
    ],
    ['a stranger', { ...good, hears: [{ a: 'a', b: 'x', dbm: -70 }] }, 'there is no radio "x"'],
    ['a radio that hears itself', { ...good, hears: [{ a: 'a', b: 'a', dbm: -70 }] }, 'radio "a" does not hear itself'],
    [
      'a level of nobody',
      { ...good, others: [{ radio: 'x', lowMhz: 1, highMhz: 2, dbm: -70 }] },
      'there is no radio "x"',
    ],
  ])('is refused for %s', (_what, problem, reason) => {
    expect(english(channelProblemSchema.safeParse(problem).error?.issues[0]?.message)).toContain(reason)
  })
  it('is taken as it should be', () => {
    expect(channelProblemSchema.safeParse(good).success).toBe(true)
    // A lock is to one of the options, by its channel or by channel and width.
    const [first] = good.radios
    const [only] = first?.options ?? []
    const options = [only, { ...only, channel: 52, lowMhz: 5250, highMhz: 5330 }]
    const takes = (locked: unknown): boolean =>
      channelProblemSchema.safeParse({ ...good, radios: [{ ...first, options, locked }] }).success
    expect([takes(52), takes({ channel: 36, width: 80 }), takes({ channel: 36, width: 40 })]).toEqual([
      true,
      true,
      false,
    ])
    const heard = { ...good, others: [{ radio: 'a', lowMhz: 5170, highMhz: 5190, dbm: -70 }] }
    expect(channelProblemSchema.safeParse(heard).success).toBe(true)
  })
  it('is told where it is wrong', () => {
    const [first] = good.radios
    const wrong = {
      radios: [first, first, { ...first, id: 'b', locked: 40 }],
      hears: [
        { a: 'x', b: 'a', dbm: -70 },
        { a: 'a', b: 'a', dbm: -70 },
      ],
      others: [{ radio: 'y', lowMhz: 1, highMhz: 2, dbm: -70 }],
    }
    expect(channelProblemSchema.safeParse(wrong).error?.issues.map(({ path }) => path)).toEqual([
      ['radios', 1, 'id'],
      ['radios', 2, 'locked'],
      ['hears', 0],
      ['hears', 1],
      ['others', 0],
    ])
  })
})

describe('an explanation', () => {
  it('says whom a radio hears worst, what the next best would cost, and what is free of radar', () => {
    const options = [option(36), option(44), option(52, 20, true)]
    const problem: ChannelProblem = {
      radios: [radio('a', options), radio('b', options), radio('c', options)],
      hears: [
        { a: 'a', b: 'b', dbm: -70 },
        { a: 'a', b: 'c', dbm: -80 },
      ],
      others: [{ radio: 'a', lowMhz: 5250, highMhz: 5270, dbm: -90 }],
    }
    const chosen = new Map([
      ['a', options[2] as ChannelOption],
      ['b', options[0] as ChannelOption],
      ['c', options[1] as ChannelOption],
    ])
    const reason = explainRadios(problem, chosen).get('a')
    expect(reason?.worst).toEqual({ radio: undefined, dbm: -90, overlap: 1, lossDb: 0 })
    expect(reason?.loudest).toMatchObject({ radio: 'b', dbm: -70 })
    expect(reason?.cost).toBe(2)
    expect(reason?.next).toMatchObject({ option: { channel: 44 }, cost: 12 })
    expect(reason?.withoutRadar).toMatchObject({ option: { channel: 44 }, cost: 12 })
  })
})
