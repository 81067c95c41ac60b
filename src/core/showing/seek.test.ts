import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Described, ElementFacts } from '../kit/page-element'
import { describe as described, seek } from './seek'
import { noSiteWords } from './site-words'

const facts = (...elements: Partial<ElementFacts>[]): ElementFacts[] =>
  elements.map((each, seen) => ({
    ...{ use: 'type', name: '', id: '', label: '', text: '', hint: '', role: '', heading: '', row: '' },
    ...each,
    seen,
  }))
const nobody = noSiteWords
const channel24 = { label: 'Channel', heading: '2.4 GHz', name: 'f17' }
const channel5 = { label: 'Channel', heading: '5 GHz', name: 'f18' }
const title = { label: 'Device name', name: 'title' }
const page = facts(channel24, channel5, title)
const seenOf = (elements: ElementFacts[], at: Described) => {
  const sought = seek(elements, at)
  return sought.found?.seen ?? ('why' in sought ? sought.why : undefined)
}
const of = (element: number): Described => {
  const at = described(page, page[element] as ElementFacts, nobody)
  if (!at) throw new Error('it is not described')
  return at
}

describe('an element of a page', () => {
  it('is described by what tells it from its like, and by no name that a script has made', () => {
    expect(of(0).by).toEqual([{ label: 'Channel', heading: '2.4 GHz' }])
    expect(of(2).by).toEqual([{ label: 'Device name' }, { name: 'title' }])
  })

  it('is found again in another order, beside more fields, and by what is left of its descriptions', () => {
    expect(seenOf(facts(title, { label: 'Width', heading: '5 GHz' }, channel5, channel24), of(1))).toBe(2)
    expect(seenOf(facts(channel24, channel5, { ...title, label: 'Name of the device' }), of(2))).toBe(2)
    expect(seenOf(facts(channel24, channel5, { ...title, name: 'host' }), of(2))).toBe(2)
    expect(seenOf(facts({ ...title, label: 'DEVICE NAME: *' }), of(2))).toBe(0)
  })

  it('is not found where the one that was meant has gone, or its descriptions point to two', () => {
    expect(seenOf(facts(channel24, title), of(1))).toBe('not-there')
    expect(seenOf(facts({ label: 'Device name' }, { label: 'Other', name: 'title' }), of(2))).toBe('ambiguous')
    expect(seenOf(facts(channel5, channel5), of(1))).toBe('ambiguous')
    expect(seenOf(facts({ ...title, use: 'tick' }), of(2))).toBe('not-there')
  })

  it('is described by its place among its like where nothing else tells them apart', () => {
    const like = facts({ text: 'Edit', use: 'press' }, { text: 'Edit', use: 'press' })
    expect(described(like, like[1] as ElementFacts, nobody)).toEqual({ use: 'press', by: [{ text: 'Edit', nth: 2 }] })
  })

  it('is never described by words of the site', () => {
    const crew = facts(
      { label: 'Passphrase', heading: 'Edit: Ellery Crew' },
      { label: 'Passphrase', heading: 'Guests' },
    )
    const ofSite = { ...noSiteWords, has: (words: string): boolean => words.includes('Ellery Crew') }
    expect(JSON.stringify(described(crew, crew[0] as ElementFacts, ofSite))).not.toContain('Ellery')
  })

  it('is found as itself or not at all on the page on which it was described', () => {
    const word = fc.constantFrom('', 'Channel', 'Width', 'Name', '5 GHz')
    const element = fc.record({ label: word, heading: word, text: word, row: word, name: word })
    fc.assert(
      fc.property(fc.array(element, { minLength: 1, maxLength: 12 }), fc.nat(11), (elements, which) => {
        const all = facts(...elements)
        const own = all[which % all.length] as ElementFacts
        const at = described(all, own, nobody)
        if (at) expect(seenOf(all, at)).toBe(own.seen)
      }),
    )
  })
})
