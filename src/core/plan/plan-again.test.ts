/** Planning again from what is set: nobody is worse off for it. */
import { describe, it as eachTime, expect } from 'vitest'
import { building, optionsOf, problemOf } from '../../../tests/bench/building'
import { countryOf } from '../../../tests/support/data'
import { shortIt as it, longIt, someOf } from '../../../tests/support/long'
import type { ChannelProblem } from '../radio/channels/channel-problem'
import { type ChannelPlan, planChannels, withBandwidth } from '../radio/channels/plan-channels'

const fieldOf = (radios: number): ChannelProblem =>
  problemOf(building(7, { radios, floors: 3, roomM: 8 }), '5', optionsOf(countryOf('GB'), '5', 40, 'avoid'))
const setTo = (problem: ChannelProblem, { chosen }: ChannelPlan): ChannelProblem => ({
  ...problem,
  radios: problem.radios.map((radio) => {
    const { channel, width } = chosen.get(radio.id) ?? { channel: 0, width: 20 }
    return { ...radio, set: { channel, width } }
  }),
})

describe('what is planned already', () => {
  it('is where a quick search of 330 radios begins: it does not come so far from nothing', () => {
    const problem = fieldOf(330)
    const better = planChannels(setTo(problem, planChannels(problem)), 'quick')
    expect(withBandwidth(planChannels(problem, 'quick'))).toBeGreaterThan(withBandwidth(better))
    expect(withBandwidth(planChannels(setTo(problem, better), 'quick'))).toBeLessThanOrEqual(withBandwidth(better))
  })

  longIt('is kept by a thorough search of 300 radios that ends above it', () => {
    const problem = fieldOf(300)
    // Better than a thorough search from nothing finds: it went on from there.
    const better = planChannels(setTo(problem, planChannels(problem)), 'quick')
    expect(withBandwidth(better)).toBeLessThan(withBandwidth(planChannels(problem)))
    expect(withBandwidth(planChannels(setTo(problem, better)))).toBeLessThanOrEqual(withBandwidth(better))
  })

  it('gives way where it is no option any more, and never to a lock', () => {
    const span = { lowMhz: 5170, highMhz: 5190, radar: false, price: 0, width: 20 }
    const options = [36, 40, 44].map((channel, at) => ({
      ...span,
      channel,
      lowMhz: 5170 + 20 * at,
      highMhz: 5190 + 20 * at,
    }))
    const radio = { id: 'a', band: '5' as const, options, locked: null, set: { channel: 157, width: 20 } }
    const hears = [{ a: 'a', b: 'b', dbm: -60 }]
    const locked = { ...radio, id: 'b', locked: 40, set: { channel: 36, width: 20 } }
    for (const effort of ['quick', 'thorough'] as const) {
      const { chosen, cost } = planChannels({ radios: [radio, locked], hears, others: [] }, effort)
      expect([chosen.get('a')?.channel, chosen.get('b')?.channel, cost]).toEqual([36, 40, 0])
    }
  })
})

eachTime.each(someOf([330, 400, 1001]))(
  'is made better by more work: a thorough plan of %i radios costs less than a quick one',
  (radios) => {
    const problem = fieldOf(radios)
    expect(withBandwidth(planChannels(problem))).toBeLessThan(withBandwidth(planChannels(problem, 'quick')))
  },
)
