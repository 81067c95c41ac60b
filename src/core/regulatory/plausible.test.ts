import { describe, expect, it } from 'vitest'
import { regulatory } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { sentence } from '../../words/en/sentence'
import type { RegulatoryRule } from './database'
import { rulesDifferences } from './differences'
import { implausible } from './plausible'

const nz = regulatory.get('NZ')
if (!nz) throw new Error('no NZ')
const [first, ...others] = nz.rules as [RegulatoryRule, ...RegulatoryRule[]]
const withFirst = (change: Partial<RegulatoryRule>) =>
  new Map(regulatory).set('NZ', { ...nz, rules: [{ ...first, ...change }, ...others] })

describe('rules of the radio', () => {
  it('that come with the program are plausible', () => {
    expect(implausible(regulatory)).toEqual([])
  })

  it.each([
    [{ eirpCentiDbm: 60_000 }, 'NZ: 2400 to 2483.5 MHz allows 600 dBm'],
    [{ bandwidthKhz: 41_000 }, 'NZ: 2400 to 2483.5 MHz allows a width of 41 MHz, which no standard has'],
    [{ bandwidthKhz: 160_000 }, 'NZ: 2400 to 2483.5 MHz is narrower than the width of 160 MHz that it allows'],
    [{ startKhz: 1 }, 'NZ: 0.001 to 2483.5 MHz is no band of wireless networks'],
    [{ endKhz: 2_483_513 }, 'NZ: 2400 to 2483.513 MHz does not end at a whole step'],
    [{ listenSeconds: 40_000 }, 'NZ: 2400 to 2483.5 MHz is listened to for 40000 s'],
    [{ startKhz: 5_900_000, endKhz: 5_980_000 }, 'NZ: the rules are not in the order of their frequencies'],
  ])('with %o are not', (change, words) => {
    expect(implausible(withFirst(change)).map(sentence)).toContain(words)
  })
})

describe('at the edge of what can be', () => {
  const faultsOf = (...rules: readonly Partial<RegulatoryRule>[]): string[] =>
    implausible(
      new Map([
        ['NZ', { ...nz, rules: rules.map((rule) => ({ ...first, startKhz: 2_400_000, endKhz: 2_480_000, ...rule })) }],
      ]),
    ).map(sentence)
  it.each([
    [{ startKhz: 400_000 }, { startKhz: 399_900 }],
    [{ endKhz: 80_000_000 }, { endKhz: 80_000_100 }],
    [{ startKhz: 2_400_100 }, { startKhz: 2_400_050 }],
    [{ bandwidthKhz: 80_000 }, { bandwidthKhz: 160_000 }],
    [{ eirpCentiDbm: 5000 }, { eirpCentiDbm: 5001 }],
    [{ listenSeconds: 3600 }, { listenSeconds: 3601 }],
  ])('%o is plausible, %o is not', (good, bad) => {
    expect(faultsOf(good)).toEqual([])
    expect(faultsOf(bad)).toHaveLength(1)
  })

  it('has 64 rules a country at the most, in the order of their frequencies, two from one frequency on', () => {
    expect(faultsOf(...Array.from({ length: 64 }, () => ({})))).toEqual([])
    expect(faultsOf(...Array.from({ length: 65 }, () => ({})))).toEqual(['NZ has 65 rules'])
    expect(faultsOf({ startKhz: 2_410_000, bandwidthKhz: 20_000 }, {})).toHaveLength(1)
  })

  it('has its countries in order, each once', () => {
    const ordered = (...codes: string[]): string[] =>
      implausible(new Map(codes.map((code) => [code, { ...nz, country: code, rules: [] }]))).map(sentence)
    expect(ordered('AD', 'DE', 'NZ')).toEqual([])
    expect(ordered('AD', 'NZ', 'DE')).toEqual(['DE stands out of order'])
  })
})

describe('what newer rules change', () => {
  it('is told of each range: what comes in, what goes, what it becomes, and whose radar rules', () => {
    const rule: RegulatoryRule = {
      ...{ startKhz: 5_250_000, endKhz: 5_350_000, bandwidthKhz: 80_000, eirpCentiDbm: 2300 },
      ...{ dfs: false, noOutdoor: false, noIr: false, noOfdm: false, autoBandwidth: false },
    } as RegulatoryRule
    const country = (rules: readonly RegulatoryRule[], dfs: 'ETSI' | 'FCC' | null = 'ETSI') =>
      new Map([['XA', { ...nz, country: 'XA', dfs, rules }]])
    const told = (...pair: Parameters<typeof rulesDifferences>) => rulesDifferences(...pair)[0]?.changes.map(sentence)
    expect(told(country([]), country([rule]))).toEqual(['5250 to 5350 MHz comes in: 23 dBm, 80 MHz wide'])
    expect(told(country([rule]), country([]))).toEqual(['5250 to 5350 MHz goes: it was 23 dBm, 80 MHz wide'])
    expect(told(country([rule]), country([rule], null))).toEqual(['radar rules of ETSI become those of nobody'])
    expect(told(country([rule], null), country([rule], 'FCC'))).toEqual(['radar rules of nobody become those of FCC'])
    const all = { dfs: true, listenSeconds: 600, noOutdoor: true, noIr: true, noOfdm: true, autoBandwidth: true }
    expect(told(country([rule]), country([{ ...rule, ...all }]))).toEqual([
      '5250 to 5350 MHz: 23 dBm, 80 MHz wide becomes 23 dBm, 80 MHz wide with its neighbours, listens for ' +
        'radar, for 600 s, indoors only, no access point, no OFDM',
    ])
  })

  it('is told country by country', () => {
    const newer = withFirst({ eirpCentiDbm: 1000, noOutdoor: true })
    newer.delete('AD')
    newer.set('QQ', { ...nz, country: 'QQ' })
    expect(english(rulesDifferences(regulatory, newer))).toEqual([
      { country: 'AD', changes: ['is no longer there'] },
      {
        country: 'NZ',
        changes: [
          expect.stringMatching(
            /^2400 to 2483\.5 MHz: \d+ dBm, 40 MHz wide becomes 10 dBm, 40 MHz wide, indoors only$/,
          ),
        ],
      },
      { country: 'QQ', changes: ['is new'] },
    ])
    expect(rulesDifferences(regulatory, regulatory)).toEqual([])
  })
})
