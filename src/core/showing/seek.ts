/**
 * Finds an element again by what was said of it. Each way of describing it that fits exactly one element has a vote.
 * Votes that disagree find nothing: a value must never be put into the wrong field.
 */
import { type Described, type Description, type ElementFacts, type Telling, tellings } from '../kit/page-element'
import type { SiteWords } from './site-words'

export type Sought =
  | { readonly found: ElementFacts }
  /** `ambiguous`: ways of describing it fit several elements, or different ones. */
  | { readonly found: undefined; readonly why: 'not-there' | 'ambiguous' }

export function seek(facts: readonly ElementFacts[], { use, by }: Described): Sought {
  const usable = facts.filter((each) => each.use === use)
  let isAmbiguous = false
  const votes = new Set<ElementFacts>()
  for (const way of by) {
    const [one, another] = fitting(usable, way)
    if (one && !another) votes.add(one)
    else if (another) isAmbiguous = true
  }
  const [found, other] = votes
  if (found && !other) return { found }
  return { found: undefined, why: other || isAmbiguous ? 'ambiguous' : 'not-there' }
}

/** All that one way of describing an element fits, in the order of the page. */
function fitting(usable: readonly ElementFacts[], { nth, part, ...way }: Description): ElementFacts[] {
  const fits = usable.filter(
    (each) =>
      tellings.every((telling) => way[telling] === undefined || isSaid(each[telling], way[telling])) &&
      (part === undefined || plain(each.text).includes(plain(part))),
  )
  return nth === undefined ? fits : fits.slice(nth - 1, nth)
}

/** Words are the same whatever their case, and with or without the sign that often ends a label. */
const plain = (words: string): string => words.replace(/[\s:*]+$/, '').toLowerCase()
const isSaid = (seen: string, said: string): boolean => seen !== '' && plain(seen) === plain(said)

/** Ways of describing an element in the order in which they are tried; each is kept where it fits nothing else. */
const ways: readonly (readonly Telling[])[] = [
  ['label'],
  ['name'],
  ['id'],
  ['text'],
  ['hint'],
  ['label', 'role'],
  ['text', 'role'],
  ['label', 'heading'],
  ['text', 'heading'],
  ['label', 'row'],
  ['text', 'row'],
  ['hint', 'heading'],
  ['name', 'heading'],
  ['label', 'heading', 'row'],
  ['text', 'heading', 'row'],
]
/** Where nothing tells it from its like, its place among them does. */
const counted: readonly (readonly Telling[])[] = [
  ['label', 'heading'],
  ['text', 'heading'],
  ['label'],
  ['text'],
  ['name'],
  ['heading', 'role'],
  ['heading'],
  ['role'],
]
const mostWays = 5

/**
 * Describes an element by what tells it from all others now.
 * @param ofSite    words that belong to the site or to one unit, and are on no other: nothing is described by them
 * @returns         undefined where nothing that may be said of it finds it again
 */
export function describe(
  facts: readonly ElementFacts[],
  { seen, use }: Pick<ElementFacts, 'seen' | 'use'>,
  ofSite: SiteWords,
): Described | undefined {
  const own = facts.find((each) => each.seen === seen)
  if (!own) return undefined
  const usable = facts.filter((each) => each.use === use)
  const by: Description[] = []
  for (const way of ways) {
    const description = said(own, way, ofSite)
    if (!description || by.length >= mostWays) continue
    if (fitting(usable, description).length === 1) by.push(description)
  }
  const part = use === 'show' && by.length === 0 ? ofSite.rest(own.text) : ''
  if (part !== '' && fitting(usable, { part }).length === 1) by.push({ part })
  if (by.length > 0) return { use, by }
  const [among] = counted.flatMap((way) => said(own, way, ofSite) ?? [])
  return among && { use, by: [{ ...among, nth: fitting(usable, among).indexOf(own) + 1 }] }
}

/** What is said of an element in one way; undefined where it has not all of it, or what does not last. */
function said(own: ElementFacts, way: readonly Telling[], ofSite: SiteWords): Description | undefined {
  const lasts = (telling: Telling): boolean => {
    const words = own[telling]
    return words !== '' && !ofSite.has(words) && !((telling === 'id' || telling === 'name') && isMade(words))
  }
  return way.every(lasts) ? Object.fromEntries(way.map((telling) => [telling, own[telling]])) : undefined
}

/** An id or name that a script has made up looks so: digits, or many signs without a word. */
const isMade = (id: string): boolean => /\d{2,}|^[^a-z]*$|^:.*:$|[0-9a-f]{8}/i.test(id)
