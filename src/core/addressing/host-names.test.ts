import fc from 'fast-check'
import { expect, it } from 'vitest'
import { hostNames } from './host-names'

it('writes names of any script in letters that DNS takes', () => {
  expect(hostNames(['Hall 1', 'Café Süd', 'Зал 2', '東京', '-lobby-'])).toEqual([
    'hall-1',
    'cafe-sud',
    'zal-2',
    'dongjing',
    'lobby',
  ])
})

it('numbers names that come out alike, and gives way to whoever has that name himself', () => {
  expect(hostNames(['Hall 1', 'hall-1', 'HALL_1', 'hall-1-2'])).toEqual(['hall-1', 'hall-1-3', 'hall-1-4', 'hall-1-2'])
  expect(hostNames(['!!!', '???', '...'])).toEqual(['unit', 'unit-2', 'unit-3'])
})

it('gives each a name of its own that is one, whatever they are called', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(fc.string({ unit: 'grapheme', maxLength: 80 }), fc.constantFrom('a', 'a-2', 'A', 'ä')), {
        maxLength: 30,
      }),
      (names) => {
        const given = hostNames(names)
        expect(new Set(given).size).toBe(names.length)
        for (const name of given) expect(name).toMatch(/^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/)
        expect(hostNames(names)).toEqual(given)
      },
    ),
  )
})

it('keeps long names within what DNS takes, numbered ones too', () => {
  const long = 'x'.repeat(80)
  expect(hostNames([long, long])).toEqual(['x'.repeat(63), `${'x'.repeat(61)}-2`])
  expect(hostNames(['a  --  b'])).toEqual(['a----b'])
})
