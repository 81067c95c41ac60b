/** Runs a function in a page, which is given what knows the elements there. */
import type { Frame, Page } from 'puppeteer-core'
import { elementsName, installElements, type PageElements } from './page-elements'

/**
 * @param act  runs from its own text: nothing outside it is there
 * @param args  anything that JSON holds
 */
export function inPage<A extends readonly unknown[], R>(
  page: Pick<Page | Frame, 'evaluate'>,
  act: (elements: PageElements, ...args: A) => R,
  ...args: A
): Promise<R> {
  const name = JSON.stringify(elementsName)
  // In one go: between two, another page could have come.
  const text =
    `(${installElements.toString()})(${name}); (${act.toString()})(globalThis[${name}], ` +
    `...${JSON.stringify(args)})`
  return page.evaluate(text) as Promise<R>
}
