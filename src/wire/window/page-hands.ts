/**
 * What runs inside the pages of a window while hands show how a model is set: it tells what they do and to which
 * element, and what the page looks like afterwards. It changes nothing.
 */
import type { ElementFacts } from '../../core/kit/page-element'
import type { Noted, NotedRow, Puts } from '../../core/showing/noted'
import type { PageElements } from '../page-elements/page-elements'

/** Sent by the page; parsed before anybody believes it. */
export const handsBinding = 'airMusterHands'

/**
 * Runs in every frame, and listens in the outermost: a frame loses the listeners of the empty page that it begins with,
 * so whoever is around it listens in it, each time that it has loaded.
 * @param binding  name of the function that tells @param elementsName  of what knows elements */
export function noteHands(binding: string, elementsName: string): void {
  const named = (view: unknown, name: string): unknown => (view as Record<string, unknown>)[name]
  const isWhole = (): boolean => {
    try {
      return window === window.top || !window.top?.document
    } catch {
      return true
    }
  }
  if (binding in document || !isWhole()) return
  Object.defineProperty(document, binding, { value: true })
  const elements = (): PageElements | undefined => named(window, elementsName) as PageElements | undefined
  const path = (): string => `${location.pathname}${location.search}${location.hash}`.slice(0, 2000)
  const say = (noted: Omit<Noted, 'path' | 'rows'> & { rows?: Noted['rows'] }): void => {
    const tell = named(window, binding) as ((text: string) => void) | undefined
    tell?.(JSON.stringify({ path: path(), ...noted }))
  }

  const clean = (words: string | null | undefined): string => (words ?? '').replace(/\s+/g, ' ').trim()
  const rowOf = (element: Element): Element | null => element.closest('tbody tr, [role=row], li')
  /** Finds the rows of this table, and of no other on the page. */
  const selectorOf = (row: Element): string => {
    const each = row.localName === 'tr' ? 'tbody tr' : row.getAttribute('role') === 'row' ? '[role=row]' : 'li'
    const table = row.closest('table, ul, ol, [role=table], [role=grid]') ?? row.parentElement
    const others = (selector: string): boolean =>
      [...row.ownerDocument.querySelectorAll(selector)].some((other) => !table?.contains(other))
    if (!others(each)) return each
    for (let at = table, up = 0; at && up < 6; at = at.parentElement, up += 1) {
      const names = [
        ...(at.id ? [`#${CSS.escape(at.id)}`] : []),
        ...[...at.classList].map((one) => `.${CSS.escape(one)}`),
      ]
      const found = names.map((one) => `${one} ${each}`).find((one) => !/\d{2,}/.test(one) && !others(one))
      if (found && found.length <= 300) return found
    }
    return each
  }
  const firstWords = (row: Element): { name: string; text: string } | undefined => {
    for (const [index, cell] of [...row.children].entries()) {
      const text = clean(cell.textContent)
      // Buttons are laid out in tables too: a row is called by no button.
      const button = cell.querySelector('button, [role=button]')
      if (button && clean(button.textContent) === text) continue
      if (text !== '') return { name: `${cell.localName}:nth-child(${index + 1})`, text: text.slice(0, 200) }
    }
    return undefined
  }
  const notedRow = (element: Element): NotedRow | null => {
    const row = rowOf(element)
    const words = row && firstWords(row)
    // A menu is a list too: a row is one of several that have something to press beside their name.
    if (!row || !words || row.querySelectorAll('a, button, [role=button]').length === 0) return null
    return row.localName === 'li' && row.children.length < 2 ? null : { each: selectorOf(row), name: words.name }
  }
  const mostRows = 60
  /** All that a row may be called by: its first words first, then what stands in its cells. */
  const namesIn = (row: Element): { name: string; text: string }[] => {
    const first = firstWords(row)
    if (!first) return []
    const names = new Map([[first.text, first.name]])
    for (const [index, cell] of [...row.children].slice(0, 8).entries()) {
      const place = `${cell.localName}:nth-child(${index + 1})`
      for (const tag of ['', ' a', ' strong', ' b', ' span', ' div', ' label']) {
        const text = clean((tag === '' ? cell : cell.querySelector(tag.trim()))?.textContent)
        if (text !== '' && text.length <= 64 && !names.has(text) && names.size < 10) names.set(text, `${place}${tag}`)
      }
    }
    return [...names].map(([text, name]) => ({ name, text }))
  }
  const rows = (): Noted['rows'] =>
    // A menu of many entries leaves room for the rows of a table.
    ['tbody tr, [role=row]', 'li']
      .flatMap((each) => (elements()?.all(each) ?? []).slice(0, mostRows / 2))
      .flatMap((row) => {
        // Fields stand in rows too: those are called by their labels.
        const isForm = row.querySelector('input:not([type=checkbox], [type=radio], [type=hidden]), select, textarea')
        if (isForm || row.children.length < 2) return []
        const each = selectorOf(row)
        return namesIn(row).map((one, index) => ({ each, ...one, isFirst: index === 0 }))
      })

  let lastSeen = ''
  const look = (): void => {
    const known = elements()
    if (!known) return
    listenInFrames()
    const facts = known.look()
    const words = JSON.stringify(facts.map(({ text, label }) => [text, label]))
    if (words === lastSeen) return
    lastSeen = words
    say({ facts, rows: rows() })
  }
  // What a press leads to comes at once or after a while, and may fade.
  const lookLater = (): void => {
    for (const ms of [100, 400, 900, 1800, 3500]) setTimeout(look, ms)
  }

  /** Fields that were typed into, and what stands in them was not told yet: it may be what stood there before. */
  const touched = new Set<Element>()
  const tellTyped = (field: Element): void => {
    const known = elements()
    if (!known || !touched.delete(field)) return
    const facts = known.look()
    const own = known.facts(field)
    if (own?.use === 'type' && 'value' in field)
      say({ facts, hands: { kind: 'typed', seen: own.seen, text: String(field.value).slice(0, 2000) } })
  }

  const chosenIn = ({ value, options }: HTMLSelectElement, seen: number): Puts => {
    const offered = [...options].slice(0, 600).map((each) => each.value.slice(0, 200))
    return { kind: 'chosen', seen, value: value.slice(0, 200), offered }
  }

  /** What stands in the fields that a button sends: those of its form or dialog, or else of its document. */
  const standingFor = (button: Element, facts: readonly ElementFacts[]): Puts[] => {
    const around = button.closest('form, dialog, [role=dialog]') ?? button.ownerDocument.documentElement
    const all = facts.flatMap(({ seen, use }): Puts[] => {
      const field = elements()?.element(seen)
      if (!field || !around.contains(field)) return []
      const type = field.getAttribute('type')
      if (use === 'type' && 'value' in field && type !== 'password')
        return [{ kind: 'typed', seen, text: String(field.value).slice(0, 2000) }]
      if (use === 'tick') {
        const ticked = 'checked' in field ? field.checked === true : field.getAttribute('aria-checked') === 'true'
        return [{ kind: 'ticked', seen, ticked, isOneOfSeveral: type === 'radio' }]
      }
      if (use !== 'choose') return []
      if (field.localName !== 'select')
        return [{ kind: 'chosen', seen, value: clean(field.textContent).slice(0, 200), offered: [] }]
      return [chosenIn(field as HTMLSelectElement, seen)]
    })
    return all.slice(0, 200)
  }

  /** A list of the page's own making that is open, and what was seen before. */
  let list: { facts: ElementFacts[]; seen: number; before: Set<Element> } | undefined
  // What is of a frame is of a class of that frame.
  const pathOf = (event: Event): Element[] =>
    event.composedPath().filter((each): each is Element => (each as Node).nodeType === 1)
  const take = (event: Event): void => {
    const known = elements()
    if (!event.isTrusted || !known) return
    // Some are left only when what is pressed has put them out of sight.
    for (const field of [...touched]) tellTyped(field)
    const facts = known.look()
    const around = pathOf(event).slice(0, 12)
    if (list) {
      const { before, ...open } = list
      list = undefined
      const option = around.find((each) => !before.has(each) && (known.facts(each)?.text ?? '') !== '')
      const value = option && known.facts(option)?.text
      if (value) {
        const role = option.getAttribute('role')
        const offered = facts
          .filter((each) => each.role === role && !before.has(known.element(each.seen) ?? option.ownerDocument.body))
          .map(({ text }) => text)
        const hands = { kind: 'chosen', seen: open.seen, value, offered: offered.slice(0, 600) } as const
        return say({ facts: open.facts, hands })
      }
    }
    for (const element of around) {
      const own = known.facts(element)
      if (own?.use === 'press') {
        const isButton = element.matches('button, input, [role=button]')
        const row = notedRow(element)
        const inRow = row ? facts.filter(({ seen }) => rowOf(element)?.contains(known.element(seen) ?? null)) : []
        const within = inRow.slice(0, 200).map(({ seen }) => seen)
        const standing = standingFor(element, facts)
        say({ facts, hands: { kind: 'pressed', seen: own.seen, row, isButton, within, standing } })
        return lookLater()
      }
      if (own?.use === 'choose' && element.localName !== 'select') {
        const before = new Set(facts.flatMap(({ seen }) => known.element(seen) ?? []))
        list = { facts, seen: own.seen, before }
        return
      }
      // The one of several that is ticked already does not change, and is meant.
      if (own?.use === 'tick' && element.getAttribute('type') === 'radio')
        return say({ facts, hands: { kind: 'ticked', seen: own.seen, ticked: true, isOneOfSeveral: true } })
      if (own && own.use !== 'show') return
    }
  }
  const tellChanged = (event: Event): void => {
    const known = elements()
    const [field] = pathOf(event)
    if (!known || !field) return
    const facts = known.look()
    const own = known.facts(field)
    if (!own) return
    const { seen } = own
    if (field.localName === 'select') return say({ facts, hands: chosenIn(field as HTMLSelectElement, seen) })
    if (!event.isTrusted) return
    if (field.getAttribute('type') === 'checkbox') {
      const { checked: ticked } = field as HTMLInputElement
      return say({ facts, hands: { kind: 'ticked', seen, ticked, isOneOfSeveral: false } })
    }
    tellTyped(field)
  }

  const tellEntered = (field: Element): void => {
    const known = elements()
    if (!known || !field.matches('input, textarea')) return
    const facts = known.look()
    const own = known.facts(field)
    const isPassword = field.getAttribute('type') === 'password'
    if (own?.use === 'type') say({ facts, entered: { seen: own.seen, isPassword } })
  }

  const heard = new WeakSet<Document>()
  const listenIn = (view: Window): void => {
    if (heard.has(view.document)) return
    heard.add(view.document)
    view.addEventListener('click', take, true)
    view.addEventListener(
      'input',
      (event) => event.isTrusted && event.target && touched.add(event.target as Element),
      true,
    )
    view.addEventListener('focusin', (event) => event.target && tellEntered(event.target as Element), true)
    view.addEventListener('focusout', (event) => event.target && tellTyped(event.target as Element), true)
    view.addEventListener('change', tellChanged, true)
    // A frame that has loaded; that does not bubble, and is caught on its way down.
    view.addEventListener('load', listenInFrames, true)
  }
  function listenInFrames(): void {
    for (const frame of elements()?.all('iframe, frame') ?? []) {
      try {
        const view = (frame as HTMLIFrameElement).contentWindow
        if (view?.document) listenIn(view)
      } catch {
        // Of another host.
      }
    }
  }
  listenIn(window)
  listenInFrames()
  addEventListener('hashchange', lookLater)
  if (document.readyState === 'complete') lookLater()
  else addEventListener('load', lookLater)
}
