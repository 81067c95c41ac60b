/**
 * Every view, in both schemes, on a desk and on a phone: no rule of accessibility is broken, and the page has its
 * frame.
 */
import { source } from 'axe-core'
import type { Page } from 'puppeteer-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { isLong } from '../support/long'
import type { Site } from '../support/site'

const stages = [
  '/jobs/port-ellery-whole/brief',
  '/jobs/port-ellery/kit',
  '/jobs/port-ellery-whole/plan',
  '/jobs/port-ellery/bench',
  '/jobs/port-ellery/muster',
  '/jobs/port-ellery-whole/handover',
]
/** Rules about what a phone lays out otherwise than a desk. */
const layoutRules = [
  'aria-hidden-focus',
  'color-contrast',
  'label',
  'region',
  'scrollable-region-focusable',
  'target-size',
]
const others = [
  '/',
  '/jobs/port-ellery/kit/cards?model=Brackwater%20B7',
  '/jobs/port-ellery/bench/hall-01',
  '/jobs/port-ellery/plan?view=band',
  '/jobs/port-ellery/plan?view=addresses',
  '/jobs/port-ellery-whole/plan?view=links',
  '/jobs/port-ellery/plan?view=laptop',
  '/jobs/port-ellery/plan?view=rules',
]

/** A view is looked at when this stands on it; others as soon as their frame does. */
const ready: Readonly<Record<string, string>> = { '/jobs/port-ellery/bench/hall-01': 'main [role="dialog"]' }

/** What axe finds, each rule with the first place. @param rules  those that are asked, or all of them */
const faultsOf = (page: Page, rules?: readonly string[]): Promise<string[]> =>
  page.evaluate(
    async (only) => {
      // @ts-expect-error the page has it by now
      const { violations } = await window.axe.run(document, {
        resultTypes: ['violations'],
        ...(only ? { runOnly: { type: 'rule', values: only } } : {}),
      })
      return (violations as { id: string; nodes: { html: string }[] }[]).map(
        ({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160)} (${nodes.length})`,
      )
    },
    rules && [...rules],
  )
/** By how many px the page can be scrolled beyond its frame, to nothing: across, and down. */
const beyond = (page: Page): Promise<number[]> =>
  page.evaluate(() => [
    document.documentElement.scrollWidth - window.innerWidth,
    document.documentElement.scrollHeight - window.innerHeight,
  ])

/** @param open  a page on a site with both jobs of the demo */
export function accessibleWalk(open: () => Promise<Site>): void {
  let site: Site
  beforeAll(async () => {
    site = await open()
  })
  afterAll(() => site.close())

  // Every other stage in `npm test`, all views in `npm run test:long`. On the same page: all rules on a desk in light,
  // and on a phone in dark; what the scheme alone changes is colour.
  it.each(isLong ? [...stages, ...others] : stages.filter((_, index) => index % 2 === 0))(
    '%s breaks no rule of accessibility, and ends at its frame',
    async (view) => {
      const { page } = site
      const scheme = (value: 'light' | 'dark') => page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value }])
      await page.setViewport({ width: 1280, height: 800 })
      await scheme('light')
      await page.goto(`${site.stack.url}${view}`)
      await page.waitForSelector(ready[view] ?? 'main', { timeout: 120_000 })
      await page.evaluate(source)
      expect(await faultsOf(page), 'light, on a desk').toEqual([])
      expect(Math.max(...(await beyond(page))), 'px beyond the frame, on a desk').toBeLessThanOrEqual(0)
      await scheme('dark')
      expect(await faultsOf(page, ['color-contrast']), 'dark, on a desk').toEqual([])
      await page.setViewport({ width: 390, height: 844 })
      expect(await faultsOf(page, isLong ? undefined : layoutRules), 'dark, on a phone').toEqual([])
      expect((await beyond(page))[0], 'px wider than a phone').toBeLessThanOrEqual(0)
    },
  )
}
