/** One page as it was seen: what its fields hold and its words say. What a unit sends is hostile: bounded, no scripts. */
import type { CheerioAPI } from 'cheerio/slim'
import type { AnyNode, Element } from 'domhandler'
import { isSame } from '../../../core/config/compare'
import type { SettingId } from '../../../core/config/setting-ids'
import { findAll } from '../../../core/input/pattern'
import type { PagePlace, PageValue } from '../../../core/kit/pages-dialect'
import { WireError } from '../../wire-error'
import { fromWords, toWords } from '../words'
import type { Entry, Seen } from './engine'
import { parsed } from './parsed'

/** Text that one place holds. */
const longestText = 4096
const tick = { true: 'on', false: 'off' } as const

type Place = PagePlace & Partial<Pick<PageValue, 'words' | 'times' | 'as' | 'separator' | 'absent'>>

export class Page {
  readonly #$: CheerioAPI
  readonly #root: AnyNode | undefined

  private constructor(
    $: CheerioAPI,
    root: AnyNode | undefined,
    readonly status: number,
  ) {
    this.#$ = $
    this.#root = root
  }

  /** @throws WireError garbled */
  static of({ html, status }: Pick<Seen, 'html' | 'status'>): Page {
    return new Page(parsed(html), undefined, status)
  }

  get title(): string {
    return this.#$('title').first().text().trim().slice(0, 200)
  }

  has(selector: string): boolean {
    return this.#all(selector).length > 0
  }

  /** The parts that match, each as a page of its own. */
  parts(selector: string): Page[] {
    return this.#all(selector)
      .toArray()
      .slice(0, 200)
      .map((each) => new Page(this.#$, each, this.status))
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
  value(id: SettingId, place: Place, at: number): unknown {
    const text = this.text(place)
    const how = this.#howAt(place)
    return text === undefined || text === '' ? place.absent : fromWords(id, text, how, at)
  }

  /**
   * How a value of a setting is put into its field. Where there is a choice, one that means the same is chosen.
   * @throws WireError garbled where the field is not there, rejected where it does not take the value
   */
  entry(id: SettingId, value: unknown, place: Place): Entry {
    const { at, shows } = place
    const [field] = this.#all(at).toArray()
    if (!isElement(field)) throw new WireError('garbled', `there is no ${at} on its page`)
    const how = this.#howAt(place)
    const text = toWords(value, how)
    const written = text === null || text === undefined ? '' : String(text)
    if (typeOf(field) === 'checkbox') return { at, kind: 'tick', ticked: written === 'on' || written === 'true' }
    const choices = this.#choices(at, field)
    if (!choices) return this.#typed(at, field, written)
    const chosen = choices.find((choice) => {
      const shown = within(choice, shows)
      const means = shown === undefined ? undefined : shown === '' ? place.absent : fromWords(id, shown, how, 0)
      return means !== undefined && isSame(id, value, means)
    })
    if (chosen === undefined) throw new WireError('rejected', `its page does not offer ${written || 'none'}`)
    return { at, kind: 'text', text: chosen }
  }

  #typed(at: string, field: Element, text: string): Entry {
    const most = Number(field.attribs.maxlength ?? Number.NaN)
    if (text.length > most) throw new WireError('rejected', `its field takes ${most} characters at the most`)
    // A field has one line; whatever would end it was never asked for.
    if (/[\p{Cc}\p{Zl}\p{Zp}]/u.test(text)) throw new WireError('rejected', 'its field takes no control characters')
    return { at, kind: 'text', text }
  }

  #howAt(place: Place): Place & { separator: string } {
    const [field] = this.#all(place.at).toArray()
    const ticks = isElement(field) && typeOf(field) === 'checkbox' && place.words === undefined
    return { ...place, separator: place.separator ?? ',', ...(ticks ? { words: tick } : {}) }
  }

  /** Values that are chosen among; undefined where one types. */
  #choices(at: string, field: Element): string[] | undefined {
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
    // Words stand between the spaces of the markup; a field holds what it holds.
    if (first.name !== 'input') return this.#$(first).text().replace(/\s+/g, ' ').trim()
    const type = typeOf(first)
    if (type === 'checkbox') return first.attribs.checked === undefined ? 'off' : 'on'
    if (type !== 'radio') return first.attribs.value ?? ''
    const chosen = found.find((each) => isElement(each) && each.attribs.checked !== undefined)
    return isElement(chosen) ? (chosen.attribs.value ?? 'on') : undefined
  }

  #all(selector: string) {
    try {
      if (this.#root !== undefined && selector === ':scope') return this.#$(this.#root)
      return this.#root === undefined ? this.#$(selector) : this.#$(this.#root).find(selector)
    } catch (cause) {
      throw new WireError('garbled', `its page cannot be searched for ${selector}`, { cause })
    }
  }
}

const isElement = (node: AnyNode | undefined): node is Element => node?.type === 'tag'
const typeOf = (field: Element): string =>
  field.name === 'input' ? (field.attribs.type ?? 'text').toLowerCase() : field.name

function within(text: string, shows: string | undefined): string | undefined {
  return shows === undefined ? text : findAll(shows, text)[0]?.groups.value
}
