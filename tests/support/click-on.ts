import type { ElementHandle, Page } from 'puppeteer-core'
import { patienceMs } from './patience'

const events = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click'] as const

/**
 * Clicks the first element that a selector finds, with the pointer. Where the page moves between the look and the
 * click, the click would reach a neighbour: it is kept from it, and repeated.
 */
export async function clickOn(page: Page, selector: string): Promise<void> {
  const end = Date.now() + patienceMs
  for (;;) {
    const element = (await page
      .locator(selector)
      .setTimeout(patienceMs)
      .waitHandle()) as unknown as ElementHandle<Element>
    const clicked = await clickOnce(element)
    if (clicked) return
    if (Date.now() > end) throw new Error(`no click reached ${selector}`)
  }
}

async function clickOnce(element: ElementHandle<Element>): Promise<boolean> {
  try {
    await element.scrollIntoView()
    await element.evaluate(guard, events)
    await element.click()
  } catch (error) {
    // Taken off the page before the click: the next look finds what stands there now.
    if (/detached|not clickable|not visible/i.test(String(error))) return false
    throw error
  }
  // A click that leads to another page takes the guard along.
  return element.evaluate(unguard).catch(() => true)
}

type Guarded = Element & { unguard?: () => boolean }

function guard(element: Guarded, names: readonly string[]): void {
  let reached = false
  const keep = (event: Event): void => {
    // What the page itself clicks in turn, such as the field of a file, is its own affair.
    if (!event.isTrusted) return
    if (!element.contains(event.target as Node)) {
      event.stopImmediatePropagation()
      event.preventDefault()
    } else if (event.type === 'click') reached = true
  }
  for (const name of names) window.addEventListener(name, keep, true)
  element.unguard = () => {
    for (const name of names) window.removeEventListener(name, keep, true)
    return reached
  }
}

const unguard = (element: Guarded): boolean => element.unguard?.() ?? true
