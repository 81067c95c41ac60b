import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { building, neighbours, optionsOf, problemOf } from '../../../../tests/bench/building'
import { countryOf } from '../../../../tests/support/data'
import { anneal } from './anneal'
import { ChannelField } from './channel-field'
import { type ChannelOption, type ChannelProblem, costOf, costOfMeeting, meetingOf, weightOf } from './channel-problem'
import { placeLoudestFirst, searchAll, searchLocally, seeded, settle } from './channel-search'
import { colourBySaturation } from './dsatur'
import type { Span } from './span'

const problemOfSeed = (seed: number, radios: number): ChannelProblem => {
  const house = building(seed, { radios, floors: 1 + (seed % 3), roomM: 8 })
  const options = optionsOf(countryOf('NZ'), '5', 80, 'welcome')
  return problemOf(house, '5', options, neighbours(seed, house, options, 4))
}
const fieldOf = (problem: ChannelProblem): ChannelField => new ChannelField(problem)
const costNow = (problem: ChannelProblem, field: ChannelField): number =>
  costOf(problem, new Map(problem.radios.map(({ id }, at) => [id, field.optionOf(at)])))

/** What each option costs a radio, worked out anew. */
function priceAnew(problem: ChannelProblem, field: ChannelField, radio: number, option: ChannelOption): number {
  const own = problem.radios[radio]?.id
  const heard = problem.hears.flatMap(({ a, b, dbm }) => {
    const other = a === own ? b : b === own ? a : undefined
    const at = problem.radios.findIndex(({ id }) => id === other)
    return at === -1 ? [] : [{ at, dbm }]
  })
  const costOf = (span: Span, dbm: number): number =>
    costOfMeeting(meetingOf(option, span, problem.adjacent), weightOf(dbm))
  return (
    heard.reduce((sum, { at, dbm }) => sum + costOf(field.optionOf(at), dbm), 0) +
    problem.others.filter((other) => other.radio === own).reduce((sum, other) => sum + costOf(other, other.dbm), 0)
  )
}

describe('the field of prices', () => {
  it('is kept current by any moves, as if it were worked out anew', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500 }),
        fc.integer({ min: 2, max: 12 }),
        fc.array(fc.tuple(fc.nat(11), fc.nat(50)), { maxLength: 30 }),
        fc.constantFrom(undefined, 'by-mask' as const),
        (seed, radios, moves, adjacent) => {
          const problem = { ...problemOfSeed(seed, radios), adjacent }
          const field = fieldOf(problem)
          placeLoudestFirst(field)
          for (const [radio, pick] of moves) {
            const at = radio % radios
            const choices = field.choices[at] ?? new Int32Array()
            field.move(at, choices[pick % choices.length] ?? 0)
          }
          problem.radios.forEach(({ options }, radio) => {
            for (const choice of field.choices[radio] ?? []) {
              const option = options[field.optionAt[radio * field.blocks + choice] ?? 0] as ChannelOption
              // The preference among equals is worth less than any difference that counts.
              expect(field.price[radio * field.blocks + choice]).toBeCloseTo(
                priceAnew(problem, field, radio, option),
                2,
              )
            }
          })
        },
      ),
      { numRuns: 20 },
    )
  })

  it('takes options that differ in the primary channel alone for one block, and keeps the primary that is set', () => {
    const [first, second] = [36, 40].map(
      (channel): ChannelOption => ({ channel, width: 40, lowMhz: 5170, highMhz: 5210, radar: false, price: 0 }),
    )
    const field = fieldOf({
      radios: [
        {
          id: 'a',
          band: '5',
          options: [first, second] as ChannelOption[],
          locked: null,
          set: { channel: 40, width: 40 },
        },
      ],
      hears: [],
      others: [],
    })
    expect(field.choices[0]).toHaveLength(1)
    field.move(0, field.cheapest(0))
    expect(field.optionOf(0).channel).toBe(40)
  })

  it('has no option for a radio that has no channel yet', () => {
    expect(() => fieldOf(problemOfSeed(1, 3)).optionOf(0)).toThrow('radio r0 has no channel yet')
  })
})

describe.each([undefined, 'by-mask' as const])('each way of searching, adjacent channels %s', (adjacent) => {
  const problem = { ...problemOfSeed(7, 40), adjacent }
  it.each([
    ['settling', (field: ChannelField) => settle(field)],
    ['the search of the whole', (field: ChannelField) => searchAll(field, 400_000, seeded(1))],
    ['the search by neighbourhoods', (field: ChannelField) => searchLocally(field, 400_000, seeded(1))],
    ['annealing', (field: ChannelField) => anneal(field, 400_000, seeded(1))],
    ['annealing cut short', (field: ChannelField) => anneal(field, 1, seeded(1))],
  ])('%s makes no plan worse, and leaves nobody who would rather move', (_name, search) => {
    const field = fieldOf(problem)
    colourBySaturation(field)
    const before = costNow(problem, field)
    search(field)
    expect(costNow(problem, field)).toBeLessThanOrEqual(before + 1e-6)
    problem.radios.forEach((_, radio) => {
      expect(field.cheapest(radio)).toBe(field.block[radio])
    })
  })

  it(
    'by annealing comes closer to the best of a large field than neighbourhood by neighbourhood, for the same ' +
      'work',
    () => {
      const large = { ...problemOfSeed(11, 500), adjacent }
      const costBy = (search: (field: ChannelField) => void): number => {
        const field = fieldOf(large)
        placeLoudestFirst(field)
        settle(field)
        search(field)
        return costNow(large, field)
      }
      const annealed = costBy((field) => anneal(field, 15_000_000, seeded(1)))
      expect(annealed).toBeLessThan(0.98 * costBy((field) => searchLocally(field, 15_000_000, seeded(1))))
      expect(costBy((field) => anneal(field, 15_000_000, seeded(1)))).toBe(annealed)
    },
  )

  it('draws the same lots from the same seed, between 0 and 1', () => {
    const [a, b] = [seeded(5), seeded(5)]
    const lots = Array.from({ length: 1000 }, a)
    expect(Array.from({ length: 1000 }, b)).toEqual(lots)
    expect(Math.min(...lots)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...lots)).toBeLessThan(1)
    expect(lots.reduce((sum, lot) => sum + lot, 0) / 1000).toBeCloseTo(0.5, 1)
  })
})
