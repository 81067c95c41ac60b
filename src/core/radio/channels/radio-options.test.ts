import { describe, expect, it } from 'vitest'
import { cards, countryOf } from '../../../../tests/support/data'
import { type RadioPolicy, radioPolicySchema } from '../../brief/policies'
import type { CardRadio } from '../../kit/card-parts'
import { legalBlocks } from '../../regulatory/legal'
import { isScanningChannel, type RadioDemand, radioOptions } from './radio-options'

const policy = (part: object = {}): RadioPolicy =>
  radioPolicySchema.parse({ environment: 'indoor', bands: [{ band: '5', width: 40 }], radar: 'avoid', ...part })
const radioOf = (band: string, part: Partial<CardRadio> = {}): CardRadio => {
  const radio = [...cards.values()].flatMap(({ radios }) => radios).find((each) => each.band === band)
  if (!radio) throw new Error(`no radio at ${band} GHz`)
  return { ...radio, leftOut: [], ...part }
}
const options = (code: string, of: RadioPolicy, demand: Partial<RadioDemand>) =>
  radioOptions(legalBlocks(countryOf(code)), of, {
    ...{ radio: radioOf('5'), width: 40, environment: 'indoor', lock: undefined, use: 'area' },
    ...demand,
  })
const shown = (of: ReturnType<typeof options>) => of.map(({ channel, width }) => `${channel}/${width}`)

describe('options of a radio', () => {
  it('are each block once, by its first primary, the widest first', () => {
    expect(shown(options('NZ', policy(), {}))).toEqual([
      ...['36/40', '44/40', '149/40', '157/40', '165/40'],
      ...['36/20', '40/20', '44/20', '48/20', '149/20', '153/20', '157/20', '161/20', '165/20', '169/20', '173/20'],
    ])
  })

  it('keep off radar where something else is left, unless it is welcome or chosen by hand', () => {
    const radar = (of: ReturnType<typeof options>) => of.some((each) => each.radar)
    expect(radar(options('NZ', policy(), {}))).toBe(false)
    expect(radar(options('NZ', policy({ radar: 'welcome' }), {}))).toBe(true)
    expect(shown(options('NZ', policy(), { lock: 56 }))).toEqual(['56/40', '56/20'])
    // Outdoors in Germany all that is left below 5.7 GHz listens; a radio that leaves the rest out has nothing else.
    const upper = radioOf('5', { leftOut: [149, 153, 157, 161, 165, 169, 173] })
    expect(options('DE', policy(), { radio: upper, environment: 'outdoor' }).every((each) => each.radar)).toBe(true)
  })

  it('are indoors alone where the country says so', () => {
    const channels = (environment: 'indoor' | 'outdoor') =>
      new Set(options('DE', policy(), { radio: radioOf('5'), width: 20, environment }).map(({ channel }) => channel))
    expect(channels('indoor').has(36)).toBe(true)
    expect(channels('outdoor').has(36)).toBe(false)
    expect(channels('outdoor').has(100)).toBe(true)
  })

  it('are those that the model has: its band, its widths, without what its maker left out', () => {
    expect(options('NZ', policy(), { radio: radioOf('2.4') }).every(({ band }) => band === '2.4')).toBe(true)
    expect(
      shown(options('NZ', policy(), { radio: radioOf('5', { widths: [20], leftOut: [36, 149] }), width: 80 })),
    ).toEqual(['40/20', '44/20', '48/20', '153/20', '157/20', '161/20', '165/20', '169/20', '173/20'])
    expect(options('NZ', policy(), { radio: radioOf('5'), width: 20 }).every(({ width }) => width === 20)).toBe(true)
  })

  it('leave out a block on which even the lowest step is too loud', () => {
    // At 5 GHz New Zealand allows 30 dBm on 36, and 36 dBm on 149.
    const loud = radioOf('5', { steps: [27, 30], gain: 4, chains: 1 })
    expect(new Set(options('NZ', policy(), { radio: loud, width: 20 }).map(({ channel }) => channel >= 149))).toEqual(
      new Set([true]),
    )
  })

  it('are 1, 6, 11 at 2.4 GHz; 1, 5, 9, 13 where wanted and all of them legal; any where none of these is left', () => {
    const at24 = (code: string, of: RadioPolicy, part: Partial<CardRadio> = {}) =>
      options(code, of, { radio: radioOf('2.4', { widths: [20], ...part }), width: 20 }).map(({ channel }) => channel)
    expect(at24('NZ', policy())).toEqual([1, 6, 11])
    expect(at24('NZ', policy({ raster24: '1-5-9-13' }))).toEqual([1, 5, 9, 13])
    expect(at24('US', policy({ raster24: '1-5-9-13' }))).toEqual([1, 6, 11])
    expect(at24('NZ', policy(), { leftOut: [1, 6, 11] })).toEqual([2, 3, 4, 5, 7, 8, 9, 10, 12, 13])
  })

  it('are preferred scanning channels at 6 GHz, or any', () => {
    const at6 = (of: RadioPolicy) => options('NZ', of, { radio: radioOf('6'), width: 20 }).map(({ channel }) => channel)
    expect(at6(policy())).toEqual([5, 21, 37, 53, 69, 85])
    expect(at6(policy({ scanning6: 'any' }))).toHaveLength(24)
    const without = radioOf('6', { leftOut: [5, 21, 37, 53, 69, 85] })
    expect(options('NZ', policy(), { radio: without, width: 20 })).toHaveLength(18)
  })
})

it('clients at 6 GHz look first at 5, 21, 37 and so on to 229', () => {
  const all = Array.from({ length: 240 }, (_, channel) => channel).filter(isScanningChannel)
  expect(all).toEqual(Array.from({ length: 15 }, (_, index) => 5 + 16 * index))
})
