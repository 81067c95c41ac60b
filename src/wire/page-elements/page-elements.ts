/**
 * What runs inside a unit's pages: it tells which elements a person sees there and what each goes by, and keeps them,
 * so that they can be acted on by their number. Frames of the same host are seen as parts of their page.
 */
import type { ElementFacts, ElementUse } from '../../core/kit/page-element'

export interface PageElements {
  /** What is seen now; numbers of before no longer hold. */
  look(): ElementFacts[]
  element(seen: number): Element | undefined
  facts(element: Element): ElementFacts | undefined
  /** Where it is in the picture of the page, CSS pixels; undefined where it is gone. */
  box(seen: number): { x: number; y: number; width: number; height: number } | undefined
  /** Presses as a pointer does: some pages listen to its coming down, and not to the click. */
  press(element: Element): void
  /** All that a selector finds, frames included. */
  all(selector: string): Element[]
  /**
   * The page with the state of its fields in its attributes, its frames within it, and the number of each element that
   * was seen last as `data-seen`. `not-yet` between two pages; undefined where it is longer than so many signs.
   */
  html(most: number): string | undefined | 'not-yet'
  /** Once anything on the page has changed, or when so much time has passed, ms. */
  changes(withinMs: number): Promise<void>
  /** While a list of the page's own making is open: what was seen before, and what it offers. */
  seenBefore: ReadonlySet<Element | undefined>
  offered: readonly (Element | undefined)[]
  /**
   * All that can be read on it now, place by place; a place keeps its number until this is asked again. Undefined where
   * it is longer than so many signs.
   */
  written(most: number): Written[] | undefined
  /** Makes places unreadable, where they stand. */
  blank(places: readonly number[]): void
}

export interface Written {
  readonly text: string
  readonly isPassword: boolean
}

/** The name under which a page keeps it. */
export const elementsName = 'airMusterElements'

/** Puts it into a page that has none yet. @param name  `elementsName`, since nothing outside is known in a page */
export function installElements(name: string): void {
  if (name in globalThis) return
  const mostElements = 4000
  const kept: Element[] = []
  const numbers = new Map<Element, number>()
  let told: ElementFacts[] = []

  const clean = (text: string | null | undefined): string => (text ?? '').replace(/\s+/g, ' ').trim().slice(0, 200)
  // What is of another frame is of another class of the same name.
  const tagOf = (element: Element): string => element.localName
  const typeOf = (element: Element): string => (element.getAttribute('type') ?? 'text').toLowerCase()

  function* documents(from: Document): Generator<Document> {
    yield from
    for (const frame of from.querySelectorAll('iframe, frame')) {
      let inner: Document | null = null
      try {
        inner = (frame as HTMLIFrameElement).contentDocument
      } catch {
        // Of another host.
      }
      if (inner?.documentElement) yield* documents(inner)
    }
  }

  const pressedInputs = new Set(['submit', 'button', 'image', 'reset'])
  const pressedRoles = new Set(['button', 'link', 'tab', 'menuitem', 'menuitemradio', 'option', 'treeitem'])
  const handlingOf = (element: Element): ElementUse | undefined => {
    const role = element.getAttribute('role') ?? ''
    const tag = tagOf(element)
    if (tag === 'input') {
      const type = typeOf(element)
      if (type === 'hidden') return undefined
      if (type === 'checkbox' || type === 'radio') return 'tick'
      if (pressedInputs.has(type)) return 'press'
      return type === 'file' ? 'give' : 'type'
    }
    if (tag === 'textarea' || role === 'textbox' || element.getAttribute('contenteditable') === 'true') return 'type'
    if (tag === 'select' || role === 'combobox') return 'choose'
    if (role === 'checkbox' || role === 'switch' || role === 'radio') return 'tick'
    const inner = element.querySelector('a[href], button')
    // A tab around a link is pressed by the link.
    if (inner && pressedRoles.has(role) && clean(inner.textContent) === clean(element.textContent)) return undefined
    if (tag === 'button' || tag === 'summary' || pressedRoles.has(role)) return 'press'
    if (tag === 'a' && element.hasAttribute('href')) return 'press'
    if (element.hasAttribute('onclick')) return 'press'
    // A picture that says what it is for only while a pointer rests on it.
    if (element.hasAttribute('title') && clean(element.textContent) === '' && element.children.length === 0)
      return 'press'
    if (tag === 'label' || tag === 'option') return undefined
    const view = element.ownerDocument.defaultView
    const isHand = (each: Element | null): boolean => each !== null && view?.getComputedStyle(each).cursor === 'pointer'
    if (isHand(element) && !isHand(element.parentElement) && !element.querySelector('input, select, button, a'))
      return 'press'
    return [...element.childNodes].some((node) => node.nodeType === 3 && clean(node.textContent) !== '')
      ? 'show'
      : undefined
  }

  const byIds = (element: Element, ids: string): string =>
    clean(
      ids
        .split(/\s+/)
        .map((id) => element.ownerDocument.getElementById(id)?.textContent ?? '')
        .join(' '),
    )
  /** Words of a label without what is chosen in it. */
  const wordsOf = (label: Element): string => {
    const copy = label.cloneNode(true) as Element
    for (const field of copy.querySelectorAll('input, select, textarea, button, [role=combobox]')) field.remove()
    return clean(copy.textContent)
  }
  const fields = 'input, select, textarea, [role=combobox]'
  /** Words before a field that has its place to itself, such as a cell that is made of boxes. */
  const wordsBeside = (element: Element): string => {
    let at = element
    for (let up = 0; up < 3 && at.parentElement; up += 1) {
      at = at.parentElement
      if (at.querySelectorAll(fields).length > 1) return ''
      const before = at.previousElementSibling
      const words = before?.querySelector(fields) ? '' : clean(before?.textContent)
      if (words !== '') return words.length <= 60 ? words : ''
    }
    return ''
  }
  const labelOf = (element: Element): string => {
    const aria = clean(element.getAttribute('aria-label'))
    if (aria !== '') return aria
    const ids = element.getAttribute('aria-labelledby')
    if (ids) return byIds(element, ids)
    const labels = (element as HTMLInputElement).labels
    if (labels && labels.length > 0) return clean([...labels].map(wordsOf).join(' '))
    const around = element.closest('label')
    if (around) return wordsOf(around)
    const cell = element.closest('td, dd, th')
    const before = cell?.previousElementSibling
    if (cell && before && /^(th|td|dt)$/.test(tagOf(before))) return clean(before.textContent)
    const previous = element.previousSibling
    if (previous && previous !== element) {
      const words = clean(previous.textContent)
      if (
        words !== '' &&
        words.length <= 60 &&
        (previous.nodeType === 3 || !(previous as Element).querySelector('input, select'))
      )
        return words
    }
    return clean(element.getAttribute('title')) || wordsBeside(element)
  }
  const headings = 'h1, h2, h3, h4, h5, h6, legend, caption, [role=heading]'
  const headingOf = (element: Element): string => {
    for (let at: Element | null = element; at; at = at.parentElement) {
      if (at !== element && at.getAttribute('role') === 'dialog') {
        const own = clean(at.getAttribute('aria-label')) || clean(at.querySelector(headings)?.textContent)
        if (own !== '') return own
      }
      for (let before = at.previousElementSibling; before; before = before.previousElementSibling) {
        const found = before.matches(headings) ? before : [...before.querySelectorAll(headings)].at(-1)
        if (found) return clean(found.textContent)
      }
    }
    return ''
  }
  const rowOf = (element: Element): string => {
    const row = element.closest('tr, [role=row]')
    const first = row?.querySelector('td, th, [role=cell], [role=rowheader]')
    return first && !first.contains(element) ? clean(first.textContent) : ''
  }

  const factsOf = (element: Element, seen: number): ElementFacts | undefined => {
    const use = handlingOf(element)
    if (use === undefined) return undefined
    const isField = use === 'type' || use === 'choose' || use === 'tick' || use === 'give'
    const ownWords = isField ? '' : clean(element.textContent) || clean(element.getAttribute('value'))
    return {
      seen,
      use,
      name: element.getAttribute('name') ?? '',
      id: element.id,
      label:
        use === 'press'
          ? clean(element.getAttribute('aria-label')) || (ownWords === '' ? clean(element.getAttribute('title')) : '')
          : labelOf(element),
      text: ownWords,
      hint: clean(element.getAttribute('placeholder')),
      role: element.getAttribute('role') ?? '',
      heading: headingOf(element),
      row: rowOf(element),
    }
  }
  const isSeen = (element: Element): boolean =>
    typeof element.checkVisibility !== 'function' || element.checkVisibility({ visibilityProperty: true })

  /** Words for those who hear a page are kept on it where nobody sees them. */
  const isSpokenOnly = (element: Element): boolean => {
    const { width, height } = element.getBoundingClientRect()
    return width <= 1 && height <= 1
  }

  let places: Element[] = []
  const ownTextOf = (element: Element): string => {
    if (tagOf(element) === 'input' || tagOf(element) === 'textarea')
      return `${(element as HTMLInputElement).value} ${element.getAttribute('placeholder') ?? ''}`
    // What stands in a tree of its own is one place.
    if (element.shadowRoot) return element.shadowRoot.textContent ?? ''
    return [...element.childNodes].map((node) => (node.nodeType === 3 ? (node.textContent ?? '') : '')).join(' ')
  }

  const api: PageElements = {
    seenBefore: new Set(),
    offered: [],
    look() {
      kept.length = 0
      numbers.clear()
      told = []
      for (const page of documents(document))
        for (const element of page.body?.querySelectorAll('*') ?? []) {
          if (told.length >= mostElements) break
          if (/^(script|style|iframe|svg|path|br|hr)$/.test(tagOf(element)) || !isSeen(element)) continue
          const facts = factsOf(element, kept.length)
          if (!facts || (facts.use === 'show' && isSpokenOnly(element))) continue
          numbers.set(element, kept.length)
          kept.push(element)
          told.push(facts)
        }
      return told
    },
    element: (seen) => (kept[seen]?.isConnected ? kept[seen] : undefined),
    facts: (element) => told[numbers.get(element) ?? -1],
    box(seen) {
      const element = api.element(seen)
      if (!element) return undefined
      element.scrollIntoView({ block: 'nearest' })
      let { left: x, top: y, width, height } = element.getBoundingClientRect()
      for (let frame = element.ownerDocument.defaultView?.frameElement; frame; ) {
        const around = frame.getBoundingClientRect()
        x += around.left
        y += around.top
        frame = frame.ownerDocument.defaultView?.frameElement
      }
      return { x, y, width, height }
    },
    press(element) {
      const view = element.ownerDocument.defaultView
      if (!view) return
      const { left, top, width, height } = element.getBoundingClientRect()
      const place = { clientX: left + width / 2, clientY: top + height / 2, button: 0 }
      const common = { ...place, bubbles: true, cancelable: true, composed: true, view }
      element.dispatchEvent(new view.PointerEvent('pointerdown', { ...common, buttons: 1 }))
      element.dispatchEvent(new view.MouseEvent('mousedown', { ...common, buttons: 1, detail: 1 }))
      element.dispatchEvent(new view.PointerEvent('pointerup', common))
      element.dispatchEvent(new view.MouseEvent('mouseup', { ...common, detail: 1 }))
      if ('click' in element) (element as HTMLElement).click()
      else element.dispatchEvent(new view.MouseEvent('click', { ...common, detail: 1 }))
    },
    all: (selector) => [...documents(document)].flatMap((page) => [...page.querySelectorAll(selector)]),
    written(most) {
      const all = [...documents(document)]
        .flatMap((page) => [...(page.body?.querySelectorAll('*') ?? [])])
        .filter((each) => !/^(script|style)$/.test(tagOf(each)) && isSeen(each))
        .map((element) => ({
          element,
          text: ownTextOf(element),
          isPassword: tagOf(element) === 'input' && typeOf(element) === 'password',
        }))
        .filter(({ text }) => text.trim() !== '')
      places = all.map(({ element }) => element)
      if (all.reduce((length, { text }) => length + text.length, 0) > most) return undefined
      return all.map(({ text, isPassword }) => ({ text, isPassword }))
    },
    blank(numbers) {
      for (const number of numbers) {
        const element = places[number]
        if (element && 'style' in element)
          (element as HTMLElement).style.setProperty('visibility', 'hidden', 'important')
      }
    },
    changes: (withinMs) =>
      new Promise((resolve) => {
        const done = (): void => {
          watching.disconnect()
          clearTimeout(late)
          resolve()
        }
        const watching = new MutationObserver(done)
        const late = setTimeout(done, withinMs)
        for (const page of documents(document))
          watching.observe(page, { subtree: true, childList: true, attributes: true, characterData: true })
      }),
    html(most) {
      if (!document.documentElement) return 'not-yet'
      const copied = (from: Element): Element => {
        const copy = from.cloneNode(true) as Element
        const all = (root: Element): Element[] => [root, ...root.querySelectorAll('*')]
        const twins = all(copy)
        for (const [index, own] of all(from).entries()) {
          const twin = twins[index]
          if (!twin) continue
          const seen = numbers.get(own)
          if (seen !== undefined) twin.setAttribute('data-seen', String(seen))
          const tag = tagOf(own)
          if (tag === 'input') {
            twin.setAttribute('value', (own as HTMLInputElement).value)
            twin.toggleAttribute('checked', (own as HTMLInputElement).checked)
          } else if (tag === 'option') twin.toggleAttribute('selected', (own as HTMLOptionElement).selected)
          else if (tag === 'textarea') twin.textContent = (own as HTMLTextAreaElement).value
          else if (tag === 'iframe' || tag === 'frame') {
            let inner: Document | null = null
            try {
              inner = (own as HTMLIFrameElement).contentDocument
            } catch {
              // Of another host.
            }
            if (!inner?.body) continue
            const part = document.createElement('section')
            part.append(...copied(inner.body).childNodes)
            twin.replaceWith(part)
          }
        }
        return copy
      }
      const copy = copied(document.documentElement)
      for (const script of copy.querySelectorAll('script, style')) script.remove()
      const html = copy.outerHTML
      return html.length > most ? undefined : html
    },
  }
  Object.defineProperty(globalThis, name, { value: api })
}
