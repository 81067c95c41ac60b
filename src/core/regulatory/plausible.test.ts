import { describe, expect, it } from 'vitest'
import { regulatory } from '../../../tests/support/data'
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
  ])('with %o are not', (change, sentence) => {
    expect(implausible(withFirst(change))).toContain(sentence)
  })
})

describe('what newer rules change', () => {
  it('is told country by country', () => {
    const newer = withFirst({ eirpCentiDbm: 1000, noOutdoor: true })
    newer.delete('AD')
    newer.set('QQ', { ...nz, country: 'QQ' })
    expect(rulesDifferences(regulatory, newer)).toEqual([
      { country: 'AD', sentences: ['is no longer there'] },
      {
        country: 'NZ',
        sentences: [
          expect.stringMatching(
            /^2400 to 2483\.5 MHz: \d+ dBm, 40 MHz wide becomes 10 dBm, 40 MHz wide, indoors only$/,
          ),
        ],
      },
      { country: 'QQ', sentences: ['is new'] },
    ])
    expect(rulesDifferences(regulatory, regulatory)).toEqual([])
  })
})
