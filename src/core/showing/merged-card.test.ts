import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { parse } from 'yaml'
import { readKitCard } from '../kit/kit-card'
import { mergedCard } from './merged-card'

const text = readFileSync(join(import.meta.dirname, '../../../tests/support/cards/hearth-h1.yaml'), 'utf8')
const later = text
  .replaceAll('label: Security', 'label: Protection')
  .replaceAll('text: Add a network', 'text: New network')
  .replaceAll('label: Device name', 'label: Name of the device')
  .replace('AU: Australia, ', '')
const ways = (yaml: string): string[] => [...yaml.matchAll(/(?:label|text): (.*)/g)].map(([, words = '']) => words)

it('says all that it said and all that was shown on another firmware, and is a card', () => {
  const both = mergedCard(text, later)
  expect(readKitCard(both)).toMatchObject({ ok: true })
  for (const words of ['Security', 'Protection', 'Add a network', 'New network', 'Device name', 'Name of the device'])
    expect(ways(both)).toContain(words)
  const { rows, pages } = parse(both).dialect
  expect(rows.fields['network.security'].at.by).toEqual([{ label: 'Security' }, { label: 'Protection' }])
  expect(pages).toHaveLength(parse(text).dialect.pages.length)
  expect(both.startsWith('# Hearth H1')).toBe(true)
})

it('is as it was where the same was shown again, whichever was first', () => {
  expect(parse(mergedCard(text, text))).toEqual(parse(text))
  const [one, other] = [mergedCard(text, later), mergedCard(later, text)]
  expect(ways(one).toSorted()).toEqual(ways(other).toSorted())
})

it('is the one that was shown where the other turns no pages', () => {
  const prompt = readFileSync(join(import.meta.dirname, '../../../data/kit/ostrel-o-40.yaml'), 'utf8')
  expect(mergedCard(prompt, text)).toBe(text)
})
