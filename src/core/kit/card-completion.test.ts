import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { settingIds } from '../catalogue/catalogue'
import { completeCard } from './card-completion'

const card = (file: string): string => readFileSync(join(import.meta.dirname, '../../../data/kit', file), 'utf8')

/** Words at the place of the bar. */
const at = (text: string): string[] => {
  const cursor = text.indexOf('|')
  return completeCard(text.replace('|', ''), cursor).words.map(({ word }) => word)
}

describe('what can be typed next in a card', () => {
  it('is the fields that it does not have yet, with what they are', () => {
    const text = 'maker: Ostrel\nmodel: O-99\n'
    const { from, words } = completeCard(`${text}ro`, text.length + 2)
    expect(from).toBe(text.length)
    expect(words).toContainEqual({ word: 'role', kind: 'field', about: 'one of its values, needed' })
    expect(words).toContainEqual({ word: 'radios', kind: 'field', about: 'list, needed' })
    expect(words).toContainEqual({ word: 'triedWith', kind: 'field', about: 'text, optional' })
    expect(words.map(({ word }) => word)).not.toContain('maker')
  })

  it('is the values that a field may have, a number among texts in its quotes', () => {
    expect(at('role: |')).toEqual(['access-point', 'controller', 'link-end', 'managed-access-point', 'switch'])
    expect(at('role: contr|\nmaker: x')).toContain('controller')
    expect(at('radios:\n  - { name: a, band: | }')).toEqual(['"2.4"', '"5"', '"6"'])
    expect(at('radios:\n  - name: a\n    stepsAre: |')).toEqual(['per-chain', 'total'])
  })

  it('is the settings of the table under "can", and what a card may say of one', () => {
    const under = at('can:\n  radio.channel:\n  |\n')
    expect(under).toContain('radio.width')
    expect(under).not.toContain('radio.channel')
    expect(under).toHaveLength(settingIds.length - 1)
    expect(at('can: { radio.channel, | }')).toContain('radio.width')
    expect(at('can:\n  radio.power: { | }')).toEqual(['as', 'readable', 'step', 'values'])
    expect(at('can:\n  radio.power: { readable: | }')).toEqual(['no', 'yes'])
  })

  it('heeds which kind of a thing it is', () => {
    expect(at('dialect:\n  kind: |')).toEqual(expect.arrayContaining(['prompt', 'netconf', 'pages', 'restconf']))
    expect(at('dialect:\n  kind: netconf\n  |')).toEqual(['joinsBy', 'managementInterface', 'showsMac'])
    expect(at('dialect:\n  kind: prompt\n  |')).toContain('prompt')
    expect(at('dialect:\n  kind: prompt\n  |')).not.toContain('showsMac')
    expect(at('dialect:\n  kind: prompt\n  over: |')).toEqual(['ssh', 'tcp', 'telnet'])
  })

  it('is nothing where a text of one’s own belongs', () => {
    expect(at('maker: |')).toEqual([])
    expect(at('lights:\n  green: |')).toEqual([])
  })

  it('is found in half a card too, wherever the cursor stands', () => {
    const text = card('debian-hostapd.yaml')
    fc.assert(
      fc.property(fc.nat(text.length), fc.nat(text.length), (cut, place) => {
        const half = text.slice(0, cut)
        const { from, words } = completeCard(half, Math.min(place, cut))
        expect(from).toBeGreaterThanOrEqual(0)
        expect(words.every(({ word }) => word.length > 0)).toBe(true)
      }),
      { numRuns: 80 },
    )
  })
})
