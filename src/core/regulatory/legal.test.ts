/** Worked out by hand from the rules that the database holds, country by country. */

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { dequal } from 'dequal/lite'
import { describe, expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import { conditionsOf } from '../../words/en/radio-rules'
import { asText } from '../message/message'
import { allBlocks, type Band, rasterOf320, type Width } from './blocks'
import { readRegulatoryDatabase } from './database'
import { judge, judgeChannel, legalBlocks } from './legal'

const database = readRegulatoryDatabase(readFileSync(join(import.meta.dirname, '../../../data/regulatory.db')))
const rulesOf = (code: string) => {
  const rules = database.get(code)
  if (!rules) throw new Error(`no ${code}`)
  return rules
}
const channels = (code: string, band: Band, width: Width): number[] =>
  [
    ...new Set(
      legalBlocks(rulesOf(code))
        .filter((block) => block.band === band && block.width === width)
        .map((block) => block.channel),
    ),
  ].sort((a, b) => a - b)
const one = (code: string, band: Band, channel: number, width: Width) =>
  legalBlocks(rulesOf(code)).filter(
    (block) => block.band === band && block.channel === channel && block.width === width,
  )
const range = (first: number, last: number, step = 4): number[] =>
  Array.from({ length: (last - first) / step + 1 }, (_, index) => first + index * step)

describe('New Zealand', () => {
  it('has 13 channels at 2.4 GHz at 36 dBm, and pairs within them', () => {
    expect(channels('NZ', '2.4', 20)).toEqual(range(1, 13, 1))
    expect(one('NZ', '2.4', 6, 40)).toEqual([
      {
        band: '2.4',
        channel: 6,
        width: 40,
        lowMhz: 2407,
        highMhz: 2447,
        limitDbm: 36,
        radar: false,
        listenSeconds: 0,
        indoor: false,
      },
      {
        band: '2.4',
        channel: 6,
        width: 40,
        lowMhz: 2427,
        highMhz: 2467,
        limitDbm: 36,
        radar: false,
        listenSeconds: 0,
        indoor: false,
      },
    ])
    expect(one('NZ', '2.4', 13, 40).map((block) => block.lowMhz)).toEqual([2442])
  })

  it('bonds 36 to 64 through two rules by auto-bandwidth, with the lower limit and radar of the second', () => {
    expect(one('NZ', '5', 36, 160)).toEqual([
      {
        band: '5',
        channel: 36,
        width: 160,
        lowMhz: 5170,
        highMhz: 5330,
        limitDbm: 27,
        radar: true,
        listenSeconds: 60,
        indoor: false,
      },
    ])
    expect(one('NZ', '5', 36, 80)).toEqual([
      {
        band: '5',
        channel: 36,
        width: 80,
        lowMhz: 5170,
        highMhz: 5250,
        limitDbm: 30,
        radar: false,
        listenSeconds: 0,
        indoor: false,
      },
    ])
  })

  it('ends at 173 in the upper band, whose rule is 80 MHz wide and not automatic', () => {
    expect(channels('NZ', '5', 20)).toEqual([...range(36, 64), ...range(100, 144), ...range(149, 173)])
    expect(channels('NZ', '5', 40)).toEqual([...range(36, 64), ...range(100, 144), ...range(149, 169)])
    expect(channels('NZ', '5', 80)).toEqual([...range(36, 64), ...range(100, 144), ...range(149, 161)])
    expect(channels('NZ', '5', 160)).toEqual([...range(36, 64), ...range(100, 128)])
  })

  it('has the lower 6 GHz band indoors, with 320 MHz in both rasters', () => {
    expect(channels('NZ', '6', 20)).toEqual(range(1, 93))
    expect(one('NZ', '6', 37, 320).map(({ lowMhz, indoor }) => [lowMhz, indoor])).toEqual([
      [5945, true],
      [6105, true],
    ])
    expect(one('NZ', '6', 65, 320).map(({ lowMhz }) => lowMhz)).toEqual([6105])
  })

  // IEEE 802.11be: centres 31, 95 and 159 are of the one raster, 63, 127 and 191 of the other.
  it('tells the two rasters of 320 MHz apart, and pairs of 2.4 GHz by the side of their second channel', () => {
    expect(one('NZ', '6', 37, 320).map((block) => [block.lowMhz, conditionsOf(block)[0]])).toEqual([
      [5945, '320-1 MHz'],
      [6105, '320-2 MHz'],
    ])
    const rasters = allBlocks.filter(({ width }) => width === 320).map((block) => [block.lowMhz, rasterOf320(block)])
    expect(Object.fromEntries(rasters)).toEqual({
      ...{ 5945: '320-1', 6265: '320-1', 6585: '320-1' },
      ...{ 6105: '320-2', 6425: '320-2', 6745: '320-2' },
    })
    expect(one('NZ', '2.4', 6, 40).map((block) => [block.lowMhz, conditionsOf(block)])).toEqual([
      [2407, ['second channel below']],
      [2427, ['second channel above']],
    ])
    expect(one('NZ', '5', 36, 40).map(conditionsOf)).toEqual([[]])
    expect(rasterOf320({ band: '6', channel: 37, width: 160, lowMhz: 5945, highMhz: 6105 })).toBeUndefined()
  })
})

describe('United Kingdom', () => {
  it('counts hundredths of a decibel', () => {
    expect(one('GB', '5', 36, 20)[0]?.limitDbm).toBe(23.01)
    expect(one('GB', '5', 100, 20)[0]?.limitDbm).toBe(26.98)
    expect(one('GB', '6', 1, 20)[0]?.limitDbm).toBe(23.97)
  })

  it('keeps 144 under the rule that ends at 5730 MHz although another overlaps it, and ends at 165', () => {
    expect(one('GB', '5', 144, 20)).toEqual([
      {
        band: '5',
        channel: 144,
        width: 20,
        lowMhz: 5710,
        highMhz: 5730,
        limitDbm: 26.98,
        radar: true,
        listenSeconds: 60,
        indoor: false,
      },
    ])
    expect(channels('GB', '5', 20).slice(-5)).toEqual(range(149, 165))
    expect(one('GB', '5', 149, 20)[0]).toMatchObject({ indoor: true, radar: false, limitDbm: 23.01 })
  })

  it('is indoors and radar at once where 36 to 64 are bonded', () => {
    expect(one('GB', '5', 48, 160)).toEqual([
      {
        band: '5',
        channel: 48,
        width: 160,
        lowMhz: 5170,
        highMhz: 5330,
        limitDbm: 20,
        radar: true,
        listenSeconds: 60,
        indoor: true,
      },
    ])
  })
})

describe('United States', () => {
  it('ends at 11 at 2.4 GHz, and at 165 at 5 GHz: above it nothing may start to radiate', () => {
    expect(channels('US', '2.4', 20)).toEqual(range(1, 11, 1))
    expect(channels('US', '5', 20)).toEqual([...range(36, 64), ...range(100, 144), ...range(149, 165)])
    expect(channels('US', '5', 160)).toEqual([...range(36, 64), ...range(100, 128)])
    expect(channels('US', '6', 20)).toEqual([])
  })
})

describe('Japan', () => {
  it('has 13 channels at 2.4 GHz, and not 14: no OFDM is allowed there', () => {
    expect(channels('JP', '2.4', 20)).toEqual(range(1, 13, 1))
    const judgement = judgeChannel(rulesOf('JP'), '2.4', 14, 20)
    expect(english(judgement)).toMatchObject({
      legal: false,
      refusal: {
        reason:
          'Channel 14 at 20 MHz is not legal in JP: by the rule for 2474 to 2494 MHz, only old modulations ' +
          '(no OFDM) are allowed there.',
      },
    })
  })

  it('has nothing above 144 at 5 GHz', () => {
    expect(channels('JP', '5', 20)).toEqual([...range(36, 64), ...range(100, 144)])
  })
})

describe('the world default', () => {
  it('lets an access point start on 1 to 11 alone', () => {
    expect(legalBlocks(rulesOf('00')).every((block) => block.band === '2.4' && block.channel <= 11)).toBe(true)
    expect(channels('00', '2.4', 20)).toEqual(range(1, 11, 1))
    expect(english(judgeChannel(rulesOf('00'), '5', 36, 20))).toMatchObject({
      legal: false,
      refusal: { reason: expect.stringContaining('does not let an access point start to radiate') },
    })
  })
})

it.each([
  ['NZ', 252],
  ['GB', 248],
  ['US', 114],
  ['JP', 235],
  ['00', 25],
])('%s has as many blocks as were counted by hand', (code, count) => {
  expect(legalBlocks(rulesOf(code))).toHaveLength(count)
})

describe('every country', () => {
  it('has no legal block whose pieces are not each within a rule that lets an access point transmit that loud', () => {
    // Gathered, and expected once: there are some hundred thousand.
    const beyond: string[] = []
    for (const country of database.values()) {
      for (const block of legalBlocks(country)) {
        for (let low = block.lowMhz; low < block.highMhz; low += 20) {
          const touched = country.rules.filter((rule) => rule.startKhz < (low + 20) * 1000 && rule.endKhz > low * 1000)
          const holding = touched.filter((rule) => rule.startKhz <= low * 1000 && rule.endKhz >= (low + 20) * 1000)
          // In one of them, or over the border of two.
          const lets = (holding.length > 0 ? holding.slice(0, 1) : touched).map(
            (rule) => !rule.noIr && !rule.noOfdm && rule.eirpCentiDbm >= Math.round(block.limitDbm * 100),
          )
          if (lets.length === 0 || lets.includes(false)) beyond.push(`${country.country} ${block.channel}`)
        }
      }
    }
    expect(beyond).toEqual([])
  })

  it('refuses what is not legal with a reason that names the channel', () => {
    const nameless: string[] = []
    for (const country of database.values()) {
      for (const block of allBlocks) {
        const judgement = judge(country, block)
        if (judgement.legal) continue
        const { channel, width } = block
        const named = { channel, width, country: country.country }
        const { reason } = judgement.refusal
        if (!dequal({ ...reason.params, ...named }, reason.params)) nameless.push(asText(reason))
      }
    }
    expect(nameless).toEqual([])
  })
})

it('numbers 6 GHz to 233, and blocks as they are bonded from 1', () => {
  const at6 = (width: Width) =>
    new Set(allBlocks.filter((block) => block.band === '6' && block.width === width).map((block) => block.lowMhz))
  expect([20, 40, 80, 160, 320].map((width) => at6(width as Width).size)).toEqual([59, 29, 14, 7, 6])
})
