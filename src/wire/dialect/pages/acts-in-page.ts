/**
 * What a browser runs in a page for a muster. Each function is sent as its text: nothing outside it is there. An
 * element is given by a selector, or by its number among those that are seen.
 */
import type { ElementFacts } from '../../../core/kit/page-element'
import type { PageElements } from '../../page-elements/page-elements'

export type ActInPage = (elements: PageElements, at: string | number, value: string | boolean) => boolean

export const lookAround = (elements: PageElements): ElementFacts[] => elements.look()
export const changed = (elements: PageElements, withinMs: number): Promise<void> => elements.changes(withinMs)
export const shownHtml = (elements: PageElements, most: number): string | undefined | 'not-yet' => elements.html(most)

export function pressed(elements: PageElements, at: string | number): boolean {
  const button = typeof at === 'string' ? elements.all(at)[0] : elements.element(at)
  if (!button) return false
  elements.press(button)
  return true
}

export function tick(elements: PageElements, at: string | number, ticked: string | boolean): boolean {
  const field = typeof at === 'string' ? elements.all(at)[0] : elements.element(at)
  if (!field) return false
  const isTicked = 'checked' in field ? field.checked === true : field.getAttribute('aria-checked') === 'true'
  if (isTicked !== ticked) elements.press(field)
  return true
}

/** Puts text into a field, or chooses by it, and tells the page of it. */
export function fillIn(elements: PageElements, at: string | number, value: string | boolean): boolean {
  const text = String(value)
  const found = typeof at === 'string' ? elements.all(at) : [elements.element(at)]
  const [field] = found
  if (!field) return false
  // It is waited for: what was ticked before it lets one fill it in.
  if (typeof at === 'number' && 'disabled' in field && field.disabled === true) return false
  // A field of a frame is of a class of that frame.
  const view = field.ownerDocument.defaultView as (Window & typeof globalThis) | null
  if (!view) return false
  if (field instanceof view.HTMLInputElement && field.type === 'radio') {
    const chosen = found.find((each) => each instanceof view.HTMLInputElement && each.value === text)
    if (chosen instanceof view.HTMLInputElement && !chosen.checked) chosen.click()
    return true
  }
  // Some take a value when a field is left, and compare it with what stood there when it was entered.
  if (field instanceof view.HTMLElement) field.focus()
  if (field instanceof view.HTMLElement && field.isContentEditable) field.textContent = text
  else {
    // A page that keeps its own copy of a value listens to the element's own setter.
    const kind =
      field instanceof view.HTMLSelectElement
        ? view.HTMLSelectElement
        : field instanceof view.HTMLTextAreaElement
          ? view.HTMLTextAreaElement
          : view.HTMLInputElement
    Object.getOwnPropertyDescriptor(kind.prototype, 'value')?.set?.call(field, text)
  }
  field.dispatchEvent(new Event('input', { bubbles: true }))
  field.dispatchEvent(new view.KeyboardEvent('keyup', { bubbles: true }))
  field.dispatchEvent(new Event('change', { bubbles: true }))
  if (field instanceof view.HTMLElement) field.blur()
  return true
}

/** Opens a list of the page's own making, and keeps in mind what was seen before. */
export function opened(elements: PageElements, at: string | number): boolean {
  const list = typeof at === 'string' ? elements.all(at)[0] : elements.element(at)
  if (!list) return false
  elements.seenBefore = new Set(elements.look().map(({ seen }) => elements.element(seen)))
  elements.press(list)
  return true
}

/** Words that an open list offers: of its options, or else of whatever was not there before. */
export function offeredWords(elements: PageElements): string[] {
  const seen = elements.look()
  const options = seen.filter(({ role }) => role === 'option')
  const offered =
    options.length > 0 ? options : seen.filter((each) => !elements.seenBefore.has(elements.element(each.seen)))
  elements.offered = offered.map((each) => elements.element(each.seen))
  return offered.map(({ text }) => text)
}

export function takeOffered(elements: PageElements, which: number): boolean {
  const option = elements.offered[which]
  if (!option?.isConnected) return false
  elements.press(option)
  return true
}
