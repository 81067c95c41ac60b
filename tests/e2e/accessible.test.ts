/** Every view, in both schemes, on a desk and on a phone: no rule of accessibility is broken, and the page has its frame. */
import { source } from 'axe-core'
import type { Browser } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBrowser, openSite, type Site } from '../support/site'

let browser: Browser
let site: Site

beforeAll(async () => {
  browser = await openBrowser()
  site = await openSite(browser, { pace: 60, jobs: ['port-ellery', 'port-ellery-whole'] })
})
afterAll(async () => {
  await site.close()
  await browser.close()
})

const views = [
  '/',
  '/jobs/port-ellery-whole/brief',
  '/jobs/port-ellery/kit',
  '/jobs/port-ellery/kit/cards?model=Brackwater%20B7',
  '/jobs/port-ellery-whole/plan',
  '/jobs/port-ellery/plan?view=band',
  '/jobs/port-ellery/plan?view=addresses',
  '/jobs/port-ellery-whole/plan?view=links',
  '/jobs/port-ellery/plan?view=laptop',
  '/jobs/port-ellery/plan?view=rules',
  '/jobs/port-ellery/bench',
  '/jobs/port-ellery/muster',
  '/jobs/port-ellery-whole/handover',
]

describe('no rule of accessibility is broken', () => {
  it.each([
    ['light', 1280, 800],
    ['dark', 1280, 800],
    ['dark', 390, 844],
  ])('in the %s scheme at %i x %i', { timeout: 120_000 }, async (scheme, width, height) => {
    const { page } = site
    await page.setViewport({ width, height })
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }])
    const found: string[] = []
    for (const view of views) {
      await page.goto(`${site.stack.url}${view}`)
      await page.waitForSelector('main')
      await page.evaluate(() => document.fonts.ready.then(() => undefined))
      await page.evaluate(source)
      const { faults, past } = await page.evaluate(async () => {
        // @ts-expect-error the page has it by now
        const { violations } = await window.axe.run(document, { resultTypes: ['violations'] })
        return {
          faults: (violations as { id: string; nodes: { html: string }[] }[]).map(
            ({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160)} (${nodes.length})`,
          ),
          // What can be scrolled beyond the frame, to nothing.
          past: [
            document.documentElement.scrollWidth - window.innerWidth,
            document.documentElement.scrollHeight - window.innerHeight,
          ],
        }
      })
      for (const fault of faults) found.push(`${view}: ${fault}`)
      if (width === 1280 && Math.max(...past) > 0) found.push(`${view}: can be scrolled past its frame by ${past} px`)
      if ((past[0] ?? 0) > 0) found.push(`${view}: is wider than the screen by ${past[0]} px`)
    }
    expect(found).toEqual([])
  })
})
