import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { isDirect, modelName, readKitCard } from './kit-card'

const text = readFileSync(join(import.meta.dirname, '../../../data/kit/ostrel-o-40.yaml'), 'utf8')

describe('a kit card', () => {
  it('names line and field of each fault', () => {
    const faulty = readKitCard(text.replace('prefix: 24', 'prefix: 99').replace('watts: 13.5', 'watts: many'))
    expect(faulty).toMatchObject({
      ok: false,
      faults: [
        { line: 11, field: 'factory.prefix' },
        { line: 18, field: 'power.watts' },
      ],
    })
    expect(readKitCard('maker: [')).toMatchObject({ ok: false, faults: [{ line: expect.any(Number) }] })
  })

  it('refuses a key that it does not know, so that a slip of the pen is no setting left out', () => {
    expect(english(readKitCard(text.replace('watts:', 'wats:')))).toMatchObject({
      ok: false,
      faults: expect.arrayContaining([expect.objectContaining({ reason: expect.stringContaining('wats') })]),
    })
  })

  it('refuses an expression that is none, and one that reads no value', () => {
    const b7 = readFileSync(join(import.meta.dirname, '../../../data/kit/brackwater-b7.yaml'), 'utf8')
    const lineOf = (words: string) => b7.split('\n').findIndex((line) => line.includes(words)) + 1
    const reading = readKitCard(b7.replace('"^no: "', '"^no: ("').replace('(?<value>[A-Z]{2})', '([A-Z]{2})'))
    expect(english(reading.ok ? [] : reading.faults.map(({ line, reason }) => [line, reason]))).toEqual([
      [lineOf('"^no: "'), '"^no: (" is not a regular expression: missing closing ): `^no: (`'],
      [lineOf('(?<value>[A-Z]{2})'), 'the expression names a group: (?<value>…)'],
    ])
  })
})

describe('the cards that come with the program', () => {
  it('cover every model, each way of speaking and each kind of factory state', () => {
    expect([...cards.keys()]).toEqual([
      'Brackwater B7',
      'Debian hostapd',
      'Lowbeam L24',
      'Ostrel O-20 US',
      'Ostrel O-20',
      'Ostrel O-40',
      'Pellworth P6',
      'Tarnhelm C1',
      'Tarnhelm T2',
      'Tarnhelm T3',
      'Windrow W5',
    ])
    expect(new Set([...cards.values()].map((card) => card.dialect.kind))).toEqual(
      new Set(['restconf', 'prompt', 'netconf', 'pages', 'managed', 'snmp']),
    )
    expect(new Set([...cards.values()].map((card) => card.factory.addressing))).toEqual(
      new Set(['static', 'dhcp-first', 'dhcp-only']),
    )
  })

  it('have MACs of their own, locally administered, and name controllers that there are', () => {
    const prefixes = [...cards.values()].flatMap((card) => card.recognise.macPrefixes)
    expect(new Set(prefixes).size).toBe(prefixes.length)
    for (const prefix of prefixes) expect(prefix[1]).toMatch(/[26ae]/)
    for (const { dialect } of cards.values())
      if (dialect.kind === 'managed') for (const by of dialect.by) expect(cards.get(by)?.role).toBe('controller')
  })

  it('are set directly only where this release speaks their dialect to a unit with an address of its own', () => {
    expect([...cards.values()].filter(isDirect).map(modelName)).toEqual([
      'Brackwater B7',
      'Debian hostapd',
      'Ostrel O-20 US',
      'Ostrel O-20',
      'Ostrel O-40',
      'Pellworth P6',
      'Tarnhelm C1',
    ])
  })
})
