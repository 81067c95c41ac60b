/** Many tabs of one browser on one stream, and a page that loses the server. */
import type { Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect } from 'vitest'
// @ts-expect-error the scripts are plain JavaScript
import { killDuringMuster } from '../../scripts/lib/chaos.mjs'
import { loadJob } from '../../src/jobs/load-job'
import { openStore, type Store } from '../../src/store/open'
import { demoJob } from '../support/bench'
import { shortIt as it, longIt } from '../support/long'
import { patienceMs } from '../support/patience'
import { macs, type Site } from '../support/site'

/** @param open  a page on a site with the demo's first job */
export function tabsWalk(open: () => Promise<Site>): void {
  let site: Site
  let store: Store
  beforeAll(async () => {
    site = await open()
    await site.page.setViewport({ width: 1280, height: 800 })
    const { AIR_MUSTER_DB: url = '', AIR_MUSTER_VAULT_FILE: vaultKeyFile = '' } = site.stack.env
    store = openStore({ url, vaultKeyFile })
    const units = demoJob().units.map((unit) => ({ ...unit, mac: unit.mac.replace(/^02:4f/, '02:4e'), serial: '' }))
    await loadJob(store, { ...demoJob(), slug: 'harbour', name: 'Harbour', units }, new Date())
  })
  afterAll(async () => {
    await store.close()
    await site.close()
  })

  const answering = (page: Page) => page.$eval('h1', (title) => title.textContent)
  const openTab = async (job: string): Promise<Page> => {
    const page = await site.browser.newPage()
    await page.goto(`${site.stack.url}/jobs/${job}/muster`, { waitUntil: 'load' })
    return page
  }

  describe('eight tabs of one browser', () => {
    longIt(
      'all load, and all hear of a muster; the one that reads for the others may be closed in the middle',
      async () => {
        const first = await openTab('port-ellery')
        const others: Page[] = []
        for (let tab = 0; tab < 7; tab += 1) others.push(await openTab(tab % 3 === 2 ? 'harbour' : 'port-ellery'))
        const here = others.filter((_, tab) => tab % 3 !== 2)
        await here[0]?.bringToFront()
        for (const mac of macs) await site.hand({ do: 'press-reset', mac, seconds: 12 })
        const begins = '//button[contains(., "Muster all") or contains(., "Call the roll again")][not(@disabled)]'
        await here[0]?.locator(`::-p-xpath(${begins})`).setTimeout(patienceMs).click()
        await here[1]?.waitForFunction(() => document.body.innerText.includes('Pause after this step'), {
          polling: 200,
        })
        await first.close()
        for (const page of here) {
          await page.bringToFront()
          await page.waitForFunction(() => /4 of 4 answer[\s\S]*Call the roll again/.test(document.body.innerText), {
            polling: 200,
          })
        }
        for (const [tab, page] of others.entries())
          expect(await answering(page)).toBe(tab % 3 === 2 ? '0 of 4 answer' : '4 of 4 answer')
        const streams = await Promise.all(
          others.map((page) =>
            page.evaluate(
              () => performance.getEntriesByType('resource').filter(({ name }) => name.includes('/api/events')).length,
            ),
          ),
        )
        // Whoever never read the stream has never opened one.
        expect(streams.filter((count) => count === 0).length).toBeGreaterThanOrEqual(4)
        await Promise.all(others.map((page) => page.close()))
      },
    )
  })

  describe('a part that is killed in the middle of a muster', () => {
    longIt.each(['pages', 'database', 'lab', 'runner'] as const)(
      'comes back by itself, is said on the page, and all units answer: %s',
      async (part) => {
        await site.page.bringToFront()
        await site.go('muster')
        const moment = () => site.page.waitForSelector('td[data-step="networks"] [data-kind="done"]')
        await killDuringMuster({ stack: site.stack, page: site.page, part, moment })
      },
    )
  })

  it('a page that could not be shown tries again by itself', async () => {
    await store.db.execute('rename table plannings to plannings_away')
    await site.go('kit')
    await site.sees('This page could not be shown.')
    await store.db.execute('rename table plannings_away to plannings')
    await site.page.waitForSelector('[data-row]')
  })
}
