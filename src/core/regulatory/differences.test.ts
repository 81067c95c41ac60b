/** What newer rules change, word for word, in made-up countries. */

import { expect, it } from 'vitest'
import { sentence } from '../../words/en/sentence'
import { message } from '../message/message'
import type { CountryRules, RegulatoryDatabase, RegulatoryRule } from './database'
import { rulesDifferences } from './differences'

const rule = (part: Partial<RegulatoryRule> = {}): RegulatoryRule =>
  ({
    ...{ startKhz: 5_170_000, endKhz: 5_250_000, bandwidthKhz: 80_000, eirpCentiDbm: 2350 },
    ...{ dfs: false, noOutdoor: false, noIr: false, noOfdm: false, autoBandwidth: false },
    ...part,
  }) as RegulatoryRule
const land = (rules: RegulatoryRule[], dfs: CountryRules['dfs'] = 'ETSI'): CountryRules =>
  ({ country: 'AA', dfs, rules }) as CountryRules
const database = (of: Record<string, CountryRules>): RegulatoryDatabase => new Map(Object.entries(of)) as never
const changed = (before: CountryRules, after: CountryRules) =>
  rulesDifferences(database({ AA: before }), database({ AA: after }))[0]?.changes.map(sentence)

it('names countries that come and go, in the order of their codes, and none that is as it was', () => {
  const [same, other] = [land([rule()]), land([rule({ eirpCentiDbm: 2000 })])]
  const found = rulesDifferences(
    database({ DD: same, BB: same, CC: same }),
    database({ CC: same, AA: same, BB: other }),
  )
  expect(found.map(({ country, changes }) => [country, changes.length])).toEqual([
    ['AA', 1],
    ['BB', 1],
    ['DD', 1],
  ])
  expect([found[0]?.changes, found[2]?.changes]).toEqual([[message('country-new')], [message('country-gone')]])
})

it('says which range changes from what to what, which comes in, and which goes', () => {
  const upper = rule({ startKhz: 5_735_000, endKhz: 5_835_000 })
  expect(changed(land([rule()]), land([rule({ eirpCentiDbm: 2000 })]))).toEqual([
    '5170 to 5250 MHz: 23.5 dBm, 80 MHz wide becomes 20 dBm, 80 MHz wide',
  ])
  expect(changed(land([rule()]), land([rule(), upper]))).toEqual(['5735 to 5835 MHz comes in: 23.5 dBm, 80 MHz wide'])
  expect(changed(land([rule(), upper]), land([upper]))).toEqual(['5170 to 5250 MHz goes: it was 23.5 dBm, 80 MHz wide'])
  expect(changed(land([rule()]), land([rule()]))).toBeUndefined()
})

it('names every condition', () => {
  const all = { autoBandwidth: true, dfs: true, listenSeconds: 600, noOutdoor: true, noIr: true, noOfdm: true }
  expect(changed(land([rule()]), land([rule(all)]))).toEqual([
    '5170 to 5250 MHz: 23.5 dBm, 80 MHz wide becomes 23.5 dBm, 80 MHz wide with its neighbours, listens for ' +
      'radar, for 600 s, indoors only, no access point, no OFDM',
  ])
})

it('says whose radar rules hold from now on', () => {
  expect(changed(land([rule()], 'ETSI'), land([rule()], 'FCC'))).toEqual(['radar rules of ETSI become those of FCC'])
  expect(changed(land([rule()], null as never), land([rule()], 'JP'))).toEqual([
    'radar rules of nobody become those of JP',
  ])
  expect(changed(land([rule()], 'JP'), land([rule()], null as never))).toEqual([
    'radar rules of JP become those of nobody',
  ])
})
