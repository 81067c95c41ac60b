/**
 * What runs inside the pages of a window: a list of choices (`select`) opens beside the page, where no picture shows
 * it. The page is kept from opening it, and tells what it holds instead.
 */

/** Sent by the page; parsed before anybody believes it. */
export const choicesBinding = 'airMusterChoices'

/** Runs in every frame before its own scripts. @param binding  name of the function that tells */
export function tellChoices(binding: string): void {
  // A page that another has opened may be told twice. By the document: a frame keeps its window from the empty page on
  // that it begins with, and loses its listeners.
  if (binding in document) return
  Object.defineProperty(document, binding, { value: true })
  const held = new Map<number, HTMLSelectElement>()
  let number = 0
  const tell = (list: HTMLSelectElement): void => {
    number += 1
    held.clear()
    held.set(number, list)
    let { left, bottom, width } = list.getBoundingClientRect()
    // Up through frames of the same host, as far as they let anybody look.
    for (let frame = window.frameElement; frame; frame = frame.ownerDocument.defaultView?.frameElement ?? null) {
      const around = frame.getBoundingClientRect()
      left += around.left
      bottom += around.top
    }
    width = Math.max(width, 80)
    const options = [...list.options].map(({ label, text, selected, disabled }) => ({
      label: (label || text).slice(0, 300),
      chosen: selected,
      disabled,
    }))
    const say = (globalThis as unknown as Record<string, (text: string) => void>)[binding]
    say?.(JSON.stringify({ number, multiple: list.multiple, options, x: left, y: bottom, width }))
  }
  const listOf = (event: Event): HTMLSelectElement | undefined => {
    const [target] = event.composedPath()
    const list = target instanceof Element ? target.closest('select') : null
    return list && !list.disabled && list.size < 2 ? list : undefined
  }
  addEventListener(
    'mousedown',
    (event) => {
      const list = listOf(event)
      if (!list) return
      event.preventDefault()
      list.focus()
      tell(list)
    },
    true,
  )
  addEventListener(
    'keydown',
    (event) => {
      const list = listOf(event)
      const opens = event.key === ' ' || event.key === 'Enter' || (event.altKey && event.key === 'ArrowDown')
      if (!list || !opens) return
      event.preventDefault()
      tell(list)
    },
    true,
  )
  Object.defineProperty(globalThis, `${binding}Chosen`, {
    configurable: true,
    value: (which: number, places: number[]): void => {
      const list = held.get(which)
      held.delete(which)
      if (!list) return
      for (const [place, option] of [...list.options].entries()) option.selected = places.includes(place)
      for (const kind of ['input', 'change']) list.dispatchEvent(new Event(kind, { bubbles: true }))
    },
  })
}
