import { describe, expect, it } from 'vitest'
import { cardOf, countryOf } from '../../../../tests/support/data'
import { radioPolicySchema } from '../../brief/policies'
import { planRadios } from '../../plan/plan-radios'
import { emptySite, floorSchema } from '../propagation/floor'
import type { ChannelOption, ChannelProblem } from './channel-problem'
import { crowdedRadios } from './crowded'

const on = (channel: number): ChannelOption => {
  const lowMhz = 2397 + 5 * channel
  return { channel, width: 20, lowMhz, highMhz: lowMhz + 20, radar: false, price: 0 }
}
const problem = (band: '2.4' | '5', pairs: readonly (readonly [string, string, number])[]): ChannelProblem => {
  const ids = [...new Set([...pairs.map(([a]) => a), ...pairs.map(([, b]) => b)])].sort()
  return {
    radios: ids.map((id) => ({ id, band, options: [on(1)], locked: null, set: null })),
    hears: pairs.map(([a, b, dbm]) => ({ a, b, dbm })),
    others: [],
  }
}
const all = (of: ChannelProblem, channel = 1) => new Map(of.radios.map(({ id }) => [id, on(channel)]))
const star = [
  ['a', 'b', -60],
  ['a', 'c', -64],
  ['a', 'd', -50],
] as const

describe('radios that are too many', () => {
  it('are those that hear three others louder than -65 dBm on their channel', () => {
    expect(crowdedRadios(problem('2.4', star), all(problem('2.4', star)))).toEqual(['a'])
    const fainter = [star[0], star[1], ['a', 'd', -65] as const]
    expect(crowdedRadios(problem('2.4', fainter), all(problem('2.4', fainter)))).toEqual([])
    expect(crowdedRadios(problem('5', star), all(problem('5', star)))).toEqual([])
    expect(crowdedRadios(problem('2.4', star), new Map([...all(problem('2.4', star)), ['d', on(6)]]))).toEqual([])
  })

  it('hear nobody who is on no channel', () => {
    const chosen = all(problem('2.4', star))
    chosen.delete('d')
    expect(crowdedRadios(problem('2.4', star), chosen)).toEqual([])
  })

  it('are first whoever hears most, wherever it stands on the list', () => {
    // b hears four and a three of them: without b nobody hears three any more.
    const pairs = [
      ['a', 'b', -50],
      ['a', 'c', -50],
      ['a', 'd', -50],
      ['b', 'c', -50],
      ['b', 'd', -50],
      ['b', 'e', -50],
    ] as const
    expect(crowdedRadios(problem('2.4', pairs), all(problem('2.4', pairs)))).toEqual(['b'])
    const turned = pairs.map(([a, b, dbm]) => [a === 'a' ? 'z' : a, b, dbm] as const)
    expect(crowdedRadios(problem('2.4', turned), all(problem('2.4', turned)))).toEqual(['b'])
  })

  it('are no more than it takes: one that is off is heard no more', () => {
    const ids = ['a', 'b', 'c', 'd', 'e']
    const everybody = ids.flatMap((a, at) => ids.slice(at + 1).map((b) => [a, b, -50] as const))
    const five = problem('2.4', everybody)
    // Of five that all hear each other three may stay: each then hears two.
    expect(crowdedRadios(five, all(five))).toEqual(['e', 'd'])
  })
})

it('are planned off where the policy says so, and only proposed where it does not', () => {
  const hall = floorSchema.parse({
    ...{ id: 'g', name: 'Hall', storey: 0, heightM: 4, environment: 'indoor', widthM: 60, depthM: 30, drawing: null },
    walls: [],
    innerWalls: 'all-drawn',
  })
  const requests = Array.from({ length: 16 }, (_, at) => ({
    unit: `u${at}`,
    card: cardOf('Ostrel O-40'),
    locks: {},
    set: {},
  }))
  const site = {
    ...emptySite,
    floors: [hall],
    placements: requests.map(({ unit }, at) => ({
      unit,
      floor: 'g',
      x: 4 + 7 * (at % 8),
      y: 8 + 12 * Math.floor(at / 8),
    })),
  }
  const planned = (crowded24: 'stay-on' | 'switch-off') => {
    const policy = radioPolicySchema.parse({
      environment: 'indoor',
      bands: [{ band: '2.4', width: 20 }],
      radar: 'avoid',
      crowded24,
    })
    return planRadios(countryOf('NZ'), policy, requests, site, 'quick')
  }
  const kept = planned('stay-on')
  expect(kept.crowded.length).toBeGreaterThan(3)
  expect([...kept.plans.values()].every((radios) => radios.length === 1)).toBe(true)
  const fewer = planned('switch-off')
  const off = [...fewer.plans].filter(([, radios]) => radios.length === 0).map(([unit]) => `${unit} 2.4`)
  expect(off.sort()).toEqual([...fewer.crowded].sort())
  expect(fewer.cost).toBeLessThan(kept.cost / 2)
})
