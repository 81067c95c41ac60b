/** What the overlay adds, by hand from the clauses that its lines cite. */

import { describe, expect, it } from 'vitest'
import { countryOf } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import type { Band, Width } from './blocks'
import { judgeChannel, type LegalBlock, whyNothingIsLegal } from './legal'
import { overlaySchema, withOverlay } from './overlay'

function block(code: string, band: Band, channel: number, width: Width): LegalBlock {
  const judgement = judgeChannel(countryOf(code), band, channel, width)
  if (!judgement.legal) throw new Error(judgement.refusal.reason.code)
  return judgement.block
}

describe('listening for radar', () => {
  // EN 301 893 V2.1.1, table D.1: 600 s where a channel touches 5600 to 5650 MHz.
  it.each([
    [116, 20, 60],
    [120, 20, 600],
    [124, 20, 600],
    [128, 20, 600],
    [132, 20, 60],
    [108, 40, 60],
    [116, 40, 600],
    [124, 40, 600],
    [132, 40, 60],
    [100, 80, 60],
    [116, 80, 600],
    [132, 80, 60],
    [100, 160, 600],
    [52, 20, 60],
    [36, 160, 60],
    [36, 80, 0],
  ] as const)('in Germany channel %i at %i MHz takes %i s', (channel, width, seconds) => {
    expect(block('DE', '5', channel, width)).toMatchObject({ listenSeconds: seconds, radar: seconds > 0 })
  })

  it('takes a minute everywhere under other rules, and in countries of no region', () => {
    for (const code of ['US', 'JP', 'IN', 'GY']) {
      expect(block(code, '5', 124, 20), code).toMatchObject({ listenSeconds: 60, radar: true })
      expect(block(code, '5', 100, 20), code).toMatchObject({ listenSeconds: 60, radar: true })
    }
  })
})

describe('conducted limits', () => {
  it('are those of the United States below 6 GHz, and nobody else', () => {
    expect(block('US', '2.4', 6, 20)).toMatchObject({
      limitDbm: 30,
      conducted: { upToDbi: 6, pointToPoint: 'third' },
    })
    expect(block('US', '5', 100, 20)).toMatchObject({ limitDbm: 24, conducted: { upToDbi: 6, pointToPoint: 'same' } })
    expect(block('US', '5', 149, 80)).toMatchObject({ limitDbm: 30, conducted: { upToDbi: 6, pointToPoint: 'free' } })
    for (const code of ['CA', 'DE', 'NZ']) expect(block(code, '5', 149, 20).conducted, code).toBeUndefined()
  })
})

it('lets an access point of the United States start at 6 GHz, indoors, at 5 dBm in each megahertz', () => {
  // 47 CFR 15.407(a)(5): 18 dBm at 20 MHz to 30 dBm at 320 MHz.
  const us = ([20, 80, 320] as const).map((width) => block('US', '6', 37, width))
  expect(us.map(({ limitDbm, indoor }) => [limitDbm, indoor])).toEqual([
    [18.01, true],
    [24.03, true],
    [30, true],
  ])
})

it('a density at 6 GHz grows with the width: 18, 21, 24, 27, 30 dBm', () => {
  expect(([20, 40, 80, 160, 320] as const).map((width) => block('CA', '6', 37, width).limitDbm)).toEqual([
    18.01, 21.02, 24.03, 27.04, 30,
  ])
})

it('Japan has 36 to 64 indoors only', () => {
  expect(block('JP', '5', 36, 20).indoor).toBe(true)
  expect(block('JP', '5', 64, 40).indoor).toBe(true)
  expect(block('JP', '5', 100, 20).indoor).toBe(false)
})

// 5725 to 5850 and 5850 to 5895 MHz: the kernel looks 20 MHz below and above, and takes the stricter of both.
it('a channel over the border of two rules that touch has the stricter of both', () => {
  expect(block('CA', '5', 169, 20)).toMatchObject({ limitDbm: 27, radar: false })
  expect(block('CA', '5', 165, 40)).toMatchObject({ limitDbm: 27 })
  expect(block('CA', '5', 177, 20)).toMatchObject({ limitDbm: 27 })
  // In the United States nothing may start above 5850 MHz.
  expect(english(judgeChannel(countryOf('US'), '5', 169, 20))).toMatchObject({
    legal: false,
    refusal: { reason: expect.stringContaining('does not let an access point start') },
  })
  // There is a gap in Germany: 5725 touches 5725, 5470 does not touch 5350.
  expect(judgeChannel(countryOf('DE'), '5', 144, 20)).toMatchObject({ legal: true })
})

it('says why a band is no use at all', () => {
  expect(english(whyNothingIsLegal(countryOf('HN'), '6'))).toBe(
    'The database marks it as not for what starts by itself (5925 to 6425 MHz), and no line here says otherwise.',
  )
  expect(whyNothingIsLegal(countryOf('US'), '6')).toBeUndefined()
  expect(whyNothingIsLegal(countryOf('CA'), '6')).toBeUndefined()
  expect(english(whyNothingIsLegal({ ...countryOf('DE'), rules: [] }, '6'))).toBe(
    'The database has no rule for it: whether it is legal there, this file does not say.',
  )
})

it('speaks of rules that lie within its range, and of no others', () => {
  const before = new Map([['DE', countryOf('DE')]])
  const line = {
    countries: ['DE', 'XX'],
    fromMhz: 5151,
    toMhz: 5350,
    says: { kind: 'indoor' } as const,
    source: 'made up',
  }
  const after = withOverlay(before, [{ ...line, source: 'made up here' }])
  const changed = (after.get('DE')?.rules ?? []).filter((rule) => rule.sources !== undefined)
  expect(changed.map(({ startKhz }) => startKhz)).toEqual([5_250_000])
  expect(overlaySchema.safeParse([{ ...line, source: '' }]).success).toBe(false)
})
