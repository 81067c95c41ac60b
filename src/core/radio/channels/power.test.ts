/** Power by hand from the limits: EIRP less the antenna, conducted less what is above its allowance, and the chains. */
import { describe, expect, it } from 'vitest'
import { type Antenna, conductedOf, eirpOf, highestLegalStep, planPower, shortOf } from './power'

const radio = (part: Partial<Antenna> = {}): Antenna => ({
  steps: [5, 8, 11, 14, 17, 20, 23, 26, 30],
  gain: 5,
  chains: 1,
  stepsAre: 'total',
  ...part,
})
const eirp = (limitDbm: number) => ({ limitDbm })
const conducted = (limitDbm: number, pointToPoint: 'same' | 'third' | 'free') => ({
  limitDbm,
  conducted: { upToDbi: 6, pointToPoint },
})

it('sets the step at or below the wanted power, never above what is legal with the antenna', () => {
  const steps = [5, 11, 17, 23]
  expect(planPower(eirp(30), radio({ steps }), 17, 'area')?.set).toBe(17)
  expect(planPower(eirp(20), radio({ steps }), 17, 'area')?.set).toBe(11)
  expect(planPower(eirp(30), radio({ steps: [14, 17] }), 11, 'area')?.set).toBe(14)
  // Quieter than the model goes: its lowest step.
  expect(planPower(eirp(30), radio(), 1, 'area')?.set).toBe(5)
  expect(planPower(eirp(10), radio({ steps: [5, 11], gain: 9 }), 11, 'area')).toBeUndefined()
})

describe('chains', () => {
  it('add up to 10 log10 n where a step is what each of them puts out', () => {
    // Four chains are 6.02 dB: 30 - 5 - 6.02 leaves 18.98.
    const four = radio({ chains: 4, stepsAre: 'per-chain' })
    expect(highestLegalStep(eirp(30), four, 'area')).toBe(17)
    expect(highestLegalStep(eirp(30), radio({ chains: 4 }), 'area')).toBe(23)
    const sum = planPower(eirp(30), four, 17, 'area')
    // 17 are wanted in all, so each chain has 11 at the most.
    expect(sum).toMatchObject({ set: 8, limit: 30, off: 5, limitOf: 'eirp', most: 30, target: 17 })
    expect(sum && conductedOf(sum)).toBeCloseTo(14.02, 2)
    expect(sum && eirpOf(sum)).toBeCloseTo(19.02, 2)
  })
})

describe('a limit of conducted power', () => {
  it('is not lowered by an antenna up to its allowance, and by what is above it beyond', () => {
    expect(highestLegalStep(conducted(30, 'same'), radio({ gain: 6 }), 'area')).toBe(30)
    // 47 CFR 15.407(a)(3): 10 dBi are 4 above 6, so 26.
    expect(highestLegalStep(conducted(30, 'free'), radio({ gain: 10 }), 'area')).toBe(26)
    expect(planPower(conducted(30, 'free'), radio({ gain: 10 }), 40, 'area')).toMatchObject({
      off: 4,
      limitOf: 'conducted',
    })
  })

  it('lets a fixed point-to-point link keep what its rule says', () => {
    const dish = radio({ gain: 23 })
    // 17 dB above: all, a third of it or nothing is taken off.
    expect(highestLegalStep(conducted(30, 'same'), dish, 'point-to-point')).toBe(11)
    expect(highestLegalStep(conducted(30, 'third'), dish, 'point-to-point')).toBe(23)
    expect(highestLegalStep(conducted(30, 'free'), dish, 'point-to-point')).toBe(30)
    expect(highestLegalStep(conducted(30, 'free'), dish, 'area')).toBe(11)
  })
})

it('prices by how much a block is quieter than what is wanted', () => {
  expect(shortOf(eirp(13.97), radio(), 17, 'area')).toBe(9)
  expect(shortOf(eirp(23), radio(), 17, 'area')).toBe(0)
  expect(shortOf(eirp(20), radio({ chains: 2, stepsAre: 'per-chain' }), 17, 'area')).toBeCloseTo(17 - 14.01, 2)
  expect(shortOf(eirp(5), radio({ gain: 9 }), 17, 'area')).toBe(Number.POSITIVE_INFINITY)
})
