import { describe, expect, it } from 'vitest'
import { countryOf } from '../../../tests/support/data'
import { listenWords } from '../../words/en/duration'
import { conditionsOf, limitWords, radarRules } from '../../words/en/radio-rules'
import { allBlocks, type Band, blockOf, centreMhz, type Width } from './blocks'
import { listenSecondsOf } from './radar-listening'

const firsts = (band: Band, width: Width): number[] => {
  const here = allBlocks.filter((block) => block.band === band && block.width === width)
  return here
    .filter(({ lowMhz }, at) => here.findIndex((other) => other.lowMhz === lowMhz) === at)
    .map(({ channel }) => channel)
}

describe('channel blocks', () => {
  // IEEE 802.11-2020, Annex E.
  it('are numbered as the standard has them', () => {
    expect(firsts('2.4', 20)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14])
    expect(firsts('2.4', 40)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9])
    expect(firsts('5', 40)).toEqual([36, 44, 52, 60, 100, 108, 116, 124, 132, 140, 149, 157, 165, 173])
    expect(firsts('5', 80)).toEqual([36, 52, 100, 116, 132, 149, 165])
    expect(firsts('5', 160)).toEqual([36, 100, 149])
    expect(firsts('6', 80)).toEqual(Array.from({ length: 14 }, (_, at) => 1 + 16 * at))
    expect(firsts('6', 160)).toEqual(Array.from({ length: 7 }, (_, at) => 1 + 32 * at))
    expect(firsts('6', 320).toSorted((a, b) => a - b)).toEqual([1, 33, 65, 97, 129, 161])
  })

  it('have their centres where the standard puts them', () => {
    expect([1, 13, 14].map((channel) => centreMhz('2.4', channel))).toEqual([2412, 2472, 2484])
    expect([36, 165].map((channel) => centreMhz('5', channel))).toEqual([5180, 5825])
    expect([1, 233].map((channel) => centreMhz('6', channel))).toEqual([5955, 7115])
  })

  it('are found by primary and width, with all primaries of a block within it', () => {
    expect(blockOf('5', 48, 80)).toEqual({ band: '5', channel: 48, width: 80, lowMhz: 5170, highMhz: 5250 })
    expect(blockOf('2.4', 6, 40)).toMatchObject({ lowMhz: 2407, highMhz: 2447 })
    expect(blockOf('2.4', 14, 40)).toBeUndefined()
    expect(blockOf('5', 36, 320)).toBeUndefined()
    expect(blockOf('5', 37, 20)).toBeUndefined()
    for (const { band, channel, width, lowMhz, highMhz } of allBlocks) {
      expect(highMhz - lowMhz).toBe(width)
      expect(centreMhz(band, channel) - 10).toBeGreaterThanOrEqual(lowMhz)
      expect(centreMhz(band, channel) + 10).toBeLessThanOrEqual(highMhz)
    }
  })

  it('stand in order of band, channel and width', () => {
    const order = allBlocks.map(({ band, channel, width, lowMhz }) => [Number(band), channel, width, lowMhz])
    expect(order).toEqual(
      order.toSorted((a, b) => a.map((each, at) => each - (b[at] ?? 0)).find((difference) => difference !== 0) ?? 0),
    )
  })
})

describe('conditions in words', () => {
  const block = { band: '5', channel: 52, width: 20, lowMhz: 5250, highMhz: 5270, limitDbm: 23 } as const
  it('name radar with its seconds, indoors, and how a conducted limit is meant', () => {
    expect(conditionsOf({ ...block, radar: false, listenSeconds: 0, indoor: false })).toEqual([])
    expect(
      conditionsOf({
        ...{ ...block, radar: true, listenSeconds: 600, indoor: true },
        conducted: { upToDbi: 6, pointToPoint: 'same' },
      }),
    ).toEqual(['listens 10 minutes for radar', 'indoors only', 'conducted, antennas up to 6 dBi'])
    expect(limitWords(block)).toBe('23.0 dBm EIRP')
    expect(limitWords({ limitDbm: 30, conducted: { upToDbi: 6, pointToPoint: 'same' } })).toBe('30.0 dBm conducted')
  })

  it('tell whose radar rules a country follows', () => {
    expect(radarRules(countryOf('DE'))).toBe('radar rules of ETSI')
    const rule = { ...countryOf('DE').rules[0], dfs: true } as ReturnType<typeof countryOf>['rules'][number]
    expect(radarRules({ dfs: null, rules: [rule] })).toBe('radar channels, of no region')
    expect(radarRules({ dfs: null, rules: [{ ...rule, dfs: false }] })).toBe('no radar channels')
  })

  it('count seconds as seconds, and whole minutes as minutes', () => {
    expect([30, 60, 90, 600].map(listenWords)).toEqual(['30 s', '60 s', '90 s', '10 minutes'])
  })

  it('listen ten minutes where European rules meet weather radar, from its first hertz to its last', () => {
    const rule = { ...countryOf('DE').rules[0], dfs: true, listenSeconds: undefined } as ReturnType<
      typeof countryOf
    >['rules'][number]
    const at = (lowMhz: number, highMhz: number, dfs: 'ETSI' | 'FCC' = 'ETSI') =>
      listenSecondsOf(dfs, { lowMhz, highMhz }, [rule])
    expect([at(5580, 5600), at(5590, 5610), at(5640, 5660), at(5650, 5670)]).toEqual([60, 600, 600, 60])
    expect(at(5590, 5610, 'FCC')).toBe(60)
    expect(listenSecondsOf('ETSI', { lowMhz: 5590, highMhz: 5610 }, [{ ...rule, dfs: false }])).toBe(0)
  })
})
