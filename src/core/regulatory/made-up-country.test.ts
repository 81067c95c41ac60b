/** How rules are read, on countries that are made up for it: one thing at a time. */

import { describe, expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import type { Band, Width } from './blocks'
import type { CountryRules, RegulatoryRule } from './database'
import { judgeChannel, legalBlocks, whyNothingIsLegal } from './legal'
import { withOverlay } from './overlay'

const rule = (fromMhz: number, toMhz: number, part: Partial<RegulatoryRule> = {}): RegulatoryRule =>
  ({
    ...{ startKhz: fromMhz * 1000, endKhz: toMhz * 1000, bandwidthKhz: 80_000, eirpCentiDbm: 2000 },
    ...{ noOfdm: false, noOutdoor: false, dfs: false, noIr: false, autoBandwidth: false, listenSeconds: undefined },
    ...part,
  }) as RegulatoryRule
const country = (...rules: readonly RegulatoryRule[]): CountryRules => ({ country: 'XA', dfs: 'ETSI', rules })
const judged = (of: CountryRules, channel: number, width: Width, band: Band = '5') => {
  const judgement = judgeChannel(of, band, channel, width)
  return judgement.legal ? judgement.block : english(judgement.refusal.reason)
}

describe('a block within one rule', () => {
  it('has its limit and what it demands', () => {
    const strict = rule(5170, 5250, { eirpCentiDbm: 2301, dfs: true, noOutdoor: true })
    expect(judged(country(strict), 36, 40)).toEqual({
      ...{ band: '5', channel: 36, width: 40, lowMhz: 5170, highMhz: 5210 },
      ...{ limitDbm: 23.01, radar: true, listenSeconds: 60, indoor: true },
    })
  })

  it('is refused by the piece that no rule covers, by the width, by no-IR and by no-OFDM', () => {
    expect(judged(country(rule(5170, 5210)), 36, 80)).toBe(
      'Channel 36 at 80 MHz is not legal in XA: no rule covers 5210 to 5230 MHz.',
    )
    expect(judged(country(rule(5170, 5250, { bandwidthKhz: 40_000 })), 36, 80)).toBe(
      'Channel 36 at 80 MHz is not legal in XA: the rule for 5170 to 5250 MHz lets a channel be 40 MHz wide ' +
        'at the most.',
    )
    expect(judged(country(rule(5170, 5250, { noIr: true, noOfdm: true })), 36, 20)).toBe(
      'Channel 36 at 20 MHz is not legal in XA: by the rule for 5170 to 5250 MHz, the database does not let ' +
        'an access point start to radiate there.',
    )
    expect(judged(country(rule(5170, 5250, { noOfdm: true })), 36, 20)).toContain('only old modulations')
    expect(judged(country(), 38, 40)).toBe('There is no channel 38 of 40 MHz at 5 GHz.')
  })
})

describe('a block over several rules', () => {
  it('has the least limit of them, and demands what any of them demands', () => {
    const two = country(
      rule(5170, 5190, { eirpCentiDbm: 2300, noOutdoor: true }),
      rule(5190, 5210, { eirpCentiDbm: 2000, dfs: true }),
    )
    expect(judged(two, 36, 40)).toMatchObject({ limitDbm: 20, radar: true, indoor: true })
    const turned = country(rule(5170, 5190, { eirpCentiDbm: 2000 }), rule(5190, 5210, { eirpCentiDbm: 2300 }))
    expect(judged(turned, 36, 40)).toMatchObject({ limitDbm: 20, radar: false, indoor: false })
  })

  it('takes a conducted limit as what it is with an antenna up to its allowance', () => {
    const conducted = { upToDbi: 6, pointToPoint: 'same' } as const
    const mixed = country(rule(5170, 5190, { eirpCentiDbm: 2300 }), rule(5190, 5210, { eirpCentiDbm: 2000, conducted }))
    expect(judged(mixed, 36, 40)).toMatchObject({ limitDbm: 23 })
    expect(judged(mixed, 36, 40)).not.toHaveProperty('conducted')
    const lower = country(rule(5170, 5190, { eirpCentiDbm: 2300 }), rule(5190, 5210, { eirpCentiDbm: 1600, conducted }))
    expect(judged(lower, 36, 40)).toMatchObject({ limitDbm: 16, conducted })
  })

  it('may lie over the border of two rules that touch, and not over a gap', () => {
    const piece = (second: RegulatoryRule) => judged(country(rule(5150, 5180), second), 36, 20)
    expect(piece(rule(5180, 5230, { eirpCentiDbm: 1700 }))).toMatchObject({ limitDbm: 17 })
    expect(english(piece(rule(5181, 5230)))).toContain('no rule covers 5170 to 5190 MHz')
    // The piece below and the one above must each have a rule of their own.
    expect(judged(country(rule(5160, 5180), rule(5180, 5230)), 36, 20)).toContain('no rule covers')
  })
})

describe('the widest channel under a rule', () => {
  const auto = { autoBandwidth: true, bandwidthKhz: 20_000 }
  it('is its own width, or with auto-bandwidth the run of all that touch', () => {
    expect(judged(country(rule(5170, 5250, { bandwidthKhz: 20_000 })), 36, 40)).toContain('20 MHz wide at the most')
    expect(judged(country(rule(5170, 5210, auto)), 36, 40)).toMatchObject({ width: 40 })
    const run = country(rule(5170, 5190, auto), rule(5190, 5210, auto), rule(5210, 5230, auto), rule(5230, 5250, auto))
    expect(judged(run, 36, 80)).toMatchObject({ width: 80 })
    expect(judged(run, 48, 80)).toMatchObject({ width: 80 })
    const gap = country(rule(5170, 5190, auto), rule(5191, 5250, auto))
    expect(judged(gap, 36, 40)).toContain('the rule for 5170 to 5190 MHz lets a channel be 20 MHz wide')
  })

  it('is its own where that is more than the run', () => {
    expect(
      judged(country(rule(5170, 5190, { ...auto, bandwidthKhz: 40_000 }), rule(5190, 5210, auto)), 36, 40),
    ).toMatchObject({ width: 40 })
  })
})

describe('a channel whose second one may lie on either side', () => {
  it('is legal where one of the two is', () => {
    expect(judged(country(rule(2400, 2452, { bandwidthKhz: 40_000 })), 6, 40, '2.4')).toMatchObject({ lowMhz: 2407 })
    expect(judged(country(rule(2422, 2483, { bandwidthKhz: 40_000 })), 6, 40, '2.4')).toMatchObject({ lowMhz: 2427 })
  })
})

describe('why a band is no use', () => {
  it('is that no rule covers it, or which rules let no access point start', () => {
    expect(whyNothingIsLegal(country(rule(2400, 2483, { bandwidthKhz: 20_000 })), '2.4')).toBeUndefined()
    const uncovered = 'The database has no rule for it: whether it is legal there, this file does not say.'
    expect(english(whyNothingIsLegal(country(), '6'))).toBe(uncovered)
    const silent = country(rule(5925, 6425, { noIr: true }), rule(6525, 7125, { noIr: true }))
    expect(english(whyNothingIsLegal(silent, '6'))).toBe(
      'The database marks it as not for what starts by itself (5925 to 6425 MHz, 6525 to 7125 MHz), and no ' +
        'line here says otherwise.',
    )
    expect(english(whyNothingIsLegal(country(rule(5925, 6425, { noOfdm: true })), '6'))).toBe(uncovered)
    // One channel of twenty is enough to be of use.
    expect(
      whyNothingIsLegal(country(rule(5945, 5965, { bandwidthKhz: 20_000 }), rule(5965, 7125, { noIr: true })), '6'),
    ).toBe(undefined)
  })

  it('lists nothing legal where nothing is', () => {
    expect(legalBlocks(country())).toEqual([])
    expect(legalBlocks(country(rule(5170, 5190, { bandwidthKhz: 20_000 }))).map(({ channel }) => channel)).toEqual([36])
  })
})

describe('the overlay', () => {
  const before = new Map([['XA', country(rule(5170, 5250), rule(5250, 5330))]])
  const laid = (fromMhz: number, toMhz: number, says: Parameters<typeof withOverlay>[1][number]['says']) =>
    withOverlay(before, [{ countries: ['XA', 'QQ'], fromMhz, toMhz, says, source: 'made up for this test' }])
      .get('XA')
      ?.rules.map(({ noOutdoor, density, sources }) => [noOutdoor, density, sources])
  it('speaks of the rules that lie within its range, from its first to its last kilohertz', () => {
    const source = ['made up for this test']
    const untouched = [false, undefined, undefined]
    expect(laid(5170, 5250, { kind: 'indoor' })).toEqual([[true, undefined, source], untouched])
    expect(laid(5171, 5330, { kind: 'indoor' })).toEqual([untouched, [true, undefined, source]])
    expect(laid(5170, 5329, { kind: 'density', dbmPerMhz: 5, mostDbm: 30 })).toEqual([
      [false, { dbmPerMhz: 5, mostDbm: 30 }, source],
      untouched,
    ])
  })
})
