/** Many tabs of one browser on one stream, and a page that loses the server. */
import type { Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
// @ts-expect-error the scripts are plain JavaScript
import { killDuringMuster } from '../../scripts/lib/chaos.mjs'
import { openBrowser, openSite, type PageSource, type Site } from '../support/site'

let browser: PageSource
let site: Site
beforeAll(async () => {
  browser = await openBrowser()
  site = await openSite(browser, { jobs: ['port-ellery', 'port-ellery-whole'] })
  await site.page.setViewport({ width: 1280, height: 800 })
})
afterAll(async () => {
  await site.close()
  await browser.close()
})

const answering = (page: Page) => page.$eval('h1', (title) => title.textContent)
const openTab = async (job: string): Promise<Page> => {
  const page = await browser.newPage()
  await page.goto(`${site.stack.url}/jobs/${job}/muster`, { waitUntil: 'load' })
  return page
}

describe('ten tabs of one browser', () => {
  it('all load, and all hear of a muster; the one that reads for the others may be closed in the middle', async () => {
    const first = await openTab('port-ellery')
    const others: Page[] = []
    for (let tab = 0; tab < 9; tab += 1) others.push(await openTab(tab % 3 === 2 ? 'port-ellery-whole' : 'port-ellery'))
    const here = others.filter((_, tab) => tab % 3 !== 2)
    await here[0]?.bringToFront()
    await here[0]?.locator('::-p-xpath(//button[contains(., "Muster all 4")])').click()
    await here[1]?.waitForFunction(() => document.body.innerText.includes('Pause after this step'), { polling: 200 })
    await first.close()
    for (const page of here) {
      await page.bringToFront()
      await page.waitForFunction(() => document.body.innerText.includes('4 of 4 answer'), { polling: 200 })
    }
    for (const [tab, page] of others.entries())
      expect(await answering(page)).toBe(tab % 3 === 2 ? '0 of 33 answer' : '4 of 4 answer')
    const streams = await Promise.all(
      others.map((page) =>
        page.evaluate(
          () => performance.getEntriesByType('resource').filter(({ name }) => name.includes('/api/events')).length,
        ),
      ),
    )
    // Whoever never read the stream has never opened one.
    expect(streams.filter((count) => count === 0).length).toBeGreaterThanOrEqual(6)
    await Promise.all(others.map((page) => page.close()))
  })
})

describe('a part that is killed in the middle of a muster', () => {
  it.each(['pages', 'database', 'lab', 'runner'] as const)(
    'comes back by itself, is said on the page, and all units answer: %s',
    async (part) => {
      await site.page.bringToFront()
      await site.go('muster')
      await killDuringMuster({ stack: site.stack, page: site.page, part, afterMs: 2500 })
    },
  )
})
