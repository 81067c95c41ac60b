/** A tab of a browser that reaches nobody: pages are put into it by a test. */
import type { Page as Tab } from 'puppeteer-core'
import { afterAll, beforeAll } from 'vitest'
import { browserContext, closeContext, endBrowser } from '../../src/wire/browser/chromium'

/** @returns the tab, once the tests of a file run */
export function blankTab(): () => Tab {
  let tab: Tab | undefined
  let close: (() => Promise<void>) | undefined
  beforeAll(async () => {
    const context = await browserContext('http://127.0.0.1:9')
    tab = await context.newPage()
    close = () => closeContext(context)
  })
  afterAll(async () => {
    await close?.()
    await endBrowser()
  })
  return () => {
    if (!tab) throw new Error('no test of this file runs yet')
    return tab
  }
}
