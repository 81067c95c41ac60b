/** What a rule takes off where a radio hangs, and for what it lacks: by hand from the clauses. */
import { describe, expect, it } from 'vitest'
import { countryOf } from '../../../../tests/support/data'
import { judgeChannel, type LegalBlock } from '../../regulatory/legal'
import { asUsed } from './as-used'
import { antennaTakes, highestLegalStep } from './power'

const block = (country: string, channel: number): LegalBlock => {
  const judgement = judgeChannel(countryOf(country), '5', channel, 20)
  if (!judgement.legal) throw new Error(judgement.refusal.reason.code)
  return judgement.block
}
const omni = { gain: 5, tpc: false, above30Db: 0 }
const steps = [5, 8, 11, 14, 16, 17, 20, 23]
const at = (used: LegalBlock, gain: number) =>
  highestLegalStep(used, { steps, gain, chains: 1, stepsAre: 'total' }, 'area')

describe('5150 to 5250 MHz in the United States', () => {
  it('is 21 dBm EIRP outdoors with an antenna alike in all directions (47 CFR 15.407(a)(1)(i))', () => {
    const inside = asUsed(block('US', 36), { radio: omni, environment: 'indoor', use: 'area' })
    const outside = asUsed(block('US', 36), { radio: omni, environment: 'outdoor', use: 'area' })
    expect(at(inside, 5)).toBe(23)
    expect(outside).toMatchObject({ limitDbm: 21 })
    // 21 less 5 dBi.
    expect(at(outside, 5)).toBe(16)
  })

  it('is more by what a pattern falls off towards the sky', () => {
    const tilted = { ...omni, above30Db: 4 }
    expect(asUsed(block('US', 36), { radio: tilted, environment: 'outdoor', use: 'area' })).toMatchObject({
      limitDbm: 25,
    })
    const steep = { ...omni, above30Db: 30 }
    expect(asUsed(block('US', 36), { radio: steep, environment: 'outdoor', use: 'area' })).toEqual(block('US', 36))
  })

  it('is left as it is for a fixed link, which loses nothing up to 23 dBi ((a)(1)(iii))', () => {
    const used = asUsed(block('US', 36), {
      radio: { ...omni, gain: 23 },
      environment: 'outdoor',
      use: 'point-to-point',
    })
    expect(used).toEqual(block('US', 36))
    expect([23, 25].map((gain) => antennaTakes(used, gain, 'point-to-point'))).toEqual([0, 2])
  })
})

it(
  'takes 3 dB off at 5250 to 5350 MHz without power control, and never below what needs none (EN 301 893, ' +
    'table 2)',
  () => {
    const used = (country: string, tpc: boolean) =>
      asUsed(block(country, 56), { radio: { ...omni, tpc }, environment: 'indoor', use: 'area' }).limitDbm
    expect([used('HR', true), used('HR', false)]).toEqual([23.01, 20.01])
    expect([used('SX', true), used('SX', false)]).toEqual([21, 20])
    // Where the database has no more than 20 dBm, nothing is lost.
    expect([used('DE', true), used('DE', false)]).toEqual([20, 20])
  },
)
