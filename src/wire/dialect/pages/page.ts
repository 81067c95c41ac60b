/**
 * One page as it was seen: what its fields hold and its words say. What a unit sends is hostile: bounded, no scripts.
 */

import type { CheerioAPI } from 'cheerio/slim'
import type { AnyNode, Element } from 'domhandler'
import type { SettingId } from '../../../core/catalogue/catalogue'
import { isSame } from '../../../core/config/compare'
import { findFirst } from '../../../core/input/pattern'
import type { ElementFacts } from '../../../core/kit/page-element'
import type { At, PagePlace, PageValue, PageWords } from '../../../core/kit/page-places'
import { message } from '../../../core/message/message'
import { seek } from '../../../core/showing/seek'
import { WireError } from '../../errors/wire-error'
import { fromWords, toWords } from '../words'
import { type Entry, placeWords, type Seen } from './engine'
import { parsed } from './parsed'

/** Text that one place holds. */
const longestText = 4096
const tick = { true: 'on', false: 'off' } as const

type Place = PagePlace & Partial<Pick<PageWords, 'words' | 'times' | 'as' | 'separator' | 'absent'>>

export class Page {
  readonly #$: CheerioAPI
  readonly #root: AnyNode | undefined
  /** What is seen of it, and on the whole page. */
  readonly #facts: readonly ElementFacts[]
  readonly #onWhole: readonly ElementFacts[]

  private constructor(
    $: CheerioAPI,
    root: AnyNode | undefined,
    facts: { readonly own: readonly ElementFacts[]; readonly whole: readonly ElementFacts[] },
    readonly status: number,
  ) {
    this.#$ = $
    this.#root = root
    this.#facts = facts.own
    this.#onWhole = facts.whole
  }

  /** @throws WireError garbled */
  static async of({ html, status, facts = [] }: Pick<Seen, 'html' | 'status' | 'facts'>): Promise<Page> {
    return new Page(await parsed(html), undefined, { own: facts, whole: facts }, status)
  }

  get title(): string {
    return this.#$('title').first().text().trim().slice(0, 200)
  }

  /** All that is said on it, where the engine tells what is seen. */
  get words(): ReadonlySet<string> {
    return new Set(this.#onWhole.flatMap(({ use, text }) => (use === 'show' ? [text] : [])))
  }

  has(at: At): boolean {
    return this.#all(at).length > 0
  }

  /** The parts that match, each as a page of its own. */
  parts(selector: string): Page[] {
    return this.#all(selector)
      .toArray()
      .slice(0, 200)
      .map((each) => {
        const facts = { own: this.#factsWithin(each), whole: this.#onWhole }
        return new Page(this.#$, each, facts, this.status)
      })
  }

  /** Where on the whole page an element of this part is; undefined where there is none of the kind. */
  placeOf(at: At): At | undefined {
    const [element] = this.#all(at).toArray()
    const own = isElement(element)
      ? this.#facts.find(({ seen }) => String(seen) === element.attribs['data-seen'])
      : undefined
    if (!own) return undefined
    const { use, text, label, name, role } = own
    const alike = this.#onWhole.filter(
      (each) =>
        each.use === use && each.text === text && each.label === label && each.name === name && each.role === role,
    )
    const words = Object.entries({ text, label, name, role }).filter(([, each]) => each !== '')
    return { use, by: [{ ...Object.fromEntries(words), nth: alike.indexOf(own) + 1 }] }
  }

  /** What stands at a place; undefined where the place is not there, or shows nothing of the kind. */
  text({ at, attribute, shows }: PagePlace): string | undefined {
    const found = this.#all(at)
    if (found.length === 0) return undefined
    const raw = attribute === undefined ? this.#shown(found.toArray()) : found.first().attr(attribute)
    if (raw === undefined) return undefined
    return within(raw.slice(0, longestText), shows)
  }

  /** @param at  when the page was asked for, ms since 1970 @returns undefined where it says nothing of it */
  value(id: SettingId, place: PageValue, at: number): unknown {
    if ('ticks' in place) return this.#ticked(id, place.ticks)
    const text = this.text(place)
    const how = this.#howAt(place)
    return text === undefined || text === '' ? place.absent : fromWords(id, text, how, at)
  }

  /**
   * How a value of a setting is put into its fields. Where there is a choice, one that means the same is chosen.
   * @throws WireError garbled where a field is not there, rejected where it does not take the value
   */
  entries(id: SettingId, value: unknown, place: PageValue): Entry[] {
    if (!('ticks' in place)) {
      const { again, ...first } = place
      return [first, ...(again === undefined ? [] : [{ ...first, at: again }])].map((one) => this.entry(id, value, one))
    }
    const all = Object.entries(place.ticks)
    const isMeant = (each: string): boolean =>
      (Array.isArray(value) ? value.map(String) : [String(value)]).includes(each)
    if (!all.some(([each]) => isMeant(each)) && !(Array.isArray(value) && value.length === 0))
      throw new WireError('rejected', message('choice-not-offered', { choice: String(value) }))
    return all.flatMap(([each, at]): Entry[] => {
      const [field] = this.#all(at).toArray()
      // One of several is ticked, which unticks the others.
      if (isElement(field) && typeOf(field) === 'radio' && !isMeant(each)) return []
      return [{ at, kind: 'tick', ticked: isMeant(each) }]
    })
  }

  /** How words that are always the same are put into a field. */
  plainEntry(at: At, text: string): Entry {
    const [field] = this.#all(at).toArray()
    const isOwn = isElement(field) && isOwnList(field)
    return isOwn ? { at, kind: 'choose', means: (words) => words === text, said: text } : { at, kind: 'text', text }
  }

  entry(id: SettingId, value: unknown, place: Place): Entry {
    const { at, shows } = place
    const [field] = this.#all(at).toArray()
    if (!isElement(field)) throw new WireError('garbled', message('nothing-on-page', { place: placeWords(at) }))
    if (isOwnList(field)) return this.#fromOwnList(id, value, place)
    const how = this.#howAt(place)
    const text = toWords(value, how)
    const written = text === null || text === undefined ? '' : String(text)
    if (isTick(field)) return { at, kind: 'tick', ticked: written === 'on' || written === 'true' }
    const choices = this.#choices(at, field)
    if (!choices) return this.#typed(at, field, written)
    const chosen = choices.find((choice) => {
      const shown = within(choice, shows)
      const means = shown === undefined ? undefined : shown === '' ? place.absent : fromWords(id, shown, how, 0)
      return means !== undefined && isSame(id, value, means)
    })
    if (chosen === undefined)
      throw new WireError('rejected', message('choice-not-offered', { choice: written || 'none' }))
    return { at, kind: 'text', text: chosen }
  }

  /** A list of the page's own making: what it offers is known once it is open. */
  #fromOwnList(id: SettingId, value: unknown, place: Place): Entry {
    const how = this.#howAt(place)
    const means = (words: string): boolean => {
      const shown = within(words, place.shows)
      const meant = shown === undefined ? undefined : fromWords(id, shown, how, 0)
      return meant !== undefined && isSame(id, value, meant)
    }
    return { at: place.at, kind: 'choose', means, said: String(toWords(value, how) ?? 'none') }
  }

  /** The value whose element is ticked, or all of them where a setting is a list. */
  #ticked(id: SettingId, ticks: Readonly<Record<string, At>>): unknown {
    const all = Object.entries(ticks).map(([value, at]) => ({ value, found: this.#all(at) }))
    if (all.some(({ found }) => found.length === 0)) return undefined
    const chosen = all.filter(({ found }) => isTicked(found.get(0))).map(({ value }) => value)
    const list = fromWords(id, chosen.join(','), { as: 'list', separator: ',' }, 0)
    return list ?? (chosen.length === 1 ? fromWords(id, chosen[0] ?? '', undefined, 0) : undefined)
  }

  #typed(at: At, field: Element, text: string): Entry {
    const most = Number(field.attribs.maxlength ?? Number.NaN)
    if (text.length > most) throw new WireError('rejected', message('field-too-short', { most }))
    // A field has one line; whatever would end it was never asked for.
    if (/[\p{Cc}\p{Zl}\p{Zp}]/u.test(text)) throw new WireError('rejected', message('field-without-controls'))
    return { at, kind: 'text', text }
  }

  #howAt(place: Place): Place & { separator: string } {
    const [field] = this.#all(place.at).toArray()
    const ticks = isElement(field) && isTick(field) && place.words === undefined
    return { ...place, separator: place.separator ?? ',', ...(ticks ? { words: tick } : {}) }
  }

  /** Values that are chosen among; undefined where one types. */
  #choices(at: At, field: Element): string[] | undefined {
    if (field.name === 'select')
      return this.#$(field)
        .find('option')
        .toArray()
        .filter((option) => option.attribs.disabled === undefined)
        .map((option) => this.#optionValue(option))
    if (typeOf(field) !== 'radio') return undefined
    return this.#all(at)
      .toArray()
      .flatMap((each) => (isElement(each) ? [each.attribs.value ?? 'on'] : []))
  }

  /** HTML Living Standard, 4.10.10.3: without a value of its own, an option's is its text. */
  #optionValue(option: Element): string {
    return option.attribs.value ?? this.#$(option).text().trim().replace(/\s+/g, ' ')
  }

  #shown(found: AnyNode[]): string | undefined {
    const [first] = found
    if (!isElement(first)) return undefined
    if (first.name === 'select') {
      const options = this.#$(first).find('option').toArray()
      const chosen = options.findLast((option) => option.attribs.selected !== undefined) ?? options[0]
      return chosen && this.#optionValue(chosen)
    }
    if (first.name === 'textarea') return this.#$(first).text()
    if (isOwnTick(first)) return first.attribs['aria-checked'] === 'true' ? 'on' : 'off'
    // Words stand between the spaces of the markup; a field holds what it holds.
    if (first.name !== 'input') return this.#$(first).text().replace(/\s+/g, ' ').trim()
    const type = typeOf(first)
    if (type === 'checkbox') return first.attribs.checked === undefined ? 'off' : 'on'
    if (type !== 'radio') return first.attribs.value ?? ''
    const chosen = found.find((each) => isElement(each) && each.attribs.checked !== undefined)
    return isElement(chosen) ? (chosen.attribs.value ?? 'on') : undefined
  }

  /** What of the whole page stands within a part of it. */
  #factsWithin(part: AnyNode): ElementFacts[] {
    const seen = new Set(
      this.#$(part)
        .find('[data-seen]')
        .toArray()
        .map((each) => (isElement(each) ? Number(each.attribs['data-seen']) : -1)),
    )
    return this.#facts.filter((each) => seen.has(each.seen))
  }

  #all(at: At) {
    const sought = typeof at === 'string' ? undefined : seek(this.#facts, at)
    const selector = typeof at === 'string' ? at : `[data-seen="${sought?.found?.seen ?? 'none'}"]`
    try {
      if (this.#root !== undefined && selector === ':scope') return this.#$(this.#root)
      return this.#root === undefined ? this.#$(selector) : this.#$(this.#root).find(selector)
    } catch (cause) {
      throw new WireError('garbled', message('page-not-searchable', { selector }), { cause })
    }
  }
}

const isElement = (node: AnyNode | undefined): node is Element => node?.type === 'tag'
/** A box to tick of the page's own making (WAI-ARIA 1.2, checkbox, switch, radio). */
const isOwnTick = ({ name, attribs }: Element): boolean =>
  name !== 'input' && ['checkbox', 'switch', 'radio'].includes(attribs.role ?? '')
const isTick = (field: Element): boolean => typeOf(field) === 'checkbox' || isOwnTick(field)
const isTicked = (field: AnyNode | undefined): boolean =>
  isElement(field) && (field.attribs.checked !== undefined || field.attribs['aria-checked'] === 'true')
const isOwnList = ({ name, attribs }: Element): boolean =>
  name !== 'select' && name !== 'input' && attribs.role === 'combobox'
const typeOf = (field: Element): string =>
  field.name === 'input' ? (field.attribs.type ?? 'text').toLowerCase() : field.name

function within(text: string, shows: string | undefined): string | undefined {
  return shows === undefined ? text : findFirst(shows, text)?.groups.value
}
