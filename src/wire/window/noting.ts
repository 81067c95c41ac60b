/** A page of a window while hands show how a model is set: what they do on it is told, and where its elements are. */
import type { Page } from 'puppeteer-core'
import type { Described } from '../../core/kit/page-element'
import { seek } from '../../core/showing/seek'
import { inPage } from '../page-elements/in-page'
import { elementsName, installElements } from '../page-elements/page-elements'
import { handsBinding, noteHands } from './page-hands'

/** A place in the picture of a page, CSS pixels. */
export interface Box {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** A page that waits for a login takes no scripts until it has it: they are on their way. */
const waitsForLoginMs = 1000

/** From now on the page tells, and every page that takes its place. */
export async function beginNoting(page: Page): Promise<void> {
  const begun = (async () => {
    await page.evaluateOnNewDocument(installElements, elementsName)
    await page.evaluateOnNewDocument(noteHands, handsBinding, elementsName)
    // The page that is there now hears its frames itself.
    await page.evaluate(installElements, elementsName).catch(() => undefined)
    await page.evaluate(noteHands, handsBinding, elementsName).catch(() => undefined)
  })()
  begun.catch(() => undefined)
  await Promise.race([begun, new Promise((waited) => setTimeout(waited, waitsForLoginMs))])
}

/** Where an element is, scrolled into the picture; undefined where it is not there, or what is there may still move. */
export async function placeOn(page: Page, at: Described): Promise<Box | undefined> {
  await page.evaluate(painted)
  const facts = await inPage(page, (elements) => (document.readyState === 'complete' ? elements.look() : []))
  const { found } = seek(facts, at)
  return found && inPage(page, (elements, seen) => elements.box(seen), found.seen)
}

/** Presses on what was not painted yet are lost; a page that nothing changes paints nothing, and has long been. */
const painted = (): Promise<void> =>
  new Promise((done) => {
    setTimeout(done, 500)
    requestAnimationFrame(() => requestAnimationFrame(() => done()))
  })
