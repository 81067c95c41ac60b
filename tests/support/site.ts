/** Everything that runs in the demo, with a page of Chromium on it, for tests of the real interface. */
import { rmSync } from 'node:fs'
import { type Browser, connect, type Page } from 'puppeteer-core'
import { afterAll, beforeAll, inject } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
// @ts-expect-error the same
import { loadDemoJob } from '../../scripts/lib/demo-job.mjs'
// @ts-expect-error the same
import { buildSiteIfStale } from '../../scripts/lib/site.mjs'
// @ts-expect-error the same
import { startStack } from '../../scripts/lib/stack.mjs'
import { clickOn } from './click-on'
import { passingFolder } from './passing-folder'
import { patienceMs } from './patience'

/** Of the units of the demo's first job, in the order of their list. */
export const macs = ['02:4f:52:10:6a:2c', '02:4f:52:10:6a:2d', '02:4f:52:10:6a:2e', '02:4f:32:10:6a:31']

export interface Stack {
  readonly url: string
  /** What a browser shows once, to be let in. */
  readonly key: string
  readonly env: Record<string, string>
  readonly lab: { readonly url: string; readonly token: string }
  /** Ends a part at once; whoever started the stack starts it again. */
  kill(part: 'database' | 'lab' | 'runner' | 'pages', signal?: string): void
  child(part: string): { readonly pid: number; readonly ended: Promise<unknown> } | undefined
  stop(): Promise<void>
}

export interface Site {
  readonly stack: Stack
  /** Where further pages come from, with the cookies of this one. */
  readonly browser: PageSource
  readonly page: Page
  /** Folder with the data and logs of everything that runs. */
  readonly folder: string
  /** What the browser complained about. */
  readonly complaints: readonly string[]
  go(stage: string): Promise<unknown>
  text(): Promise<string>
  /** Waits until the page shows these words. */
  sees(words: string): Promise<unknown>
  /** Clicks the button or link that holds these words. */
  press(words: string): Promise<void>
  /** Types into the field of this label, in place of what it holds. */
  type(label: string, text: string): Promise<void>
  hand(move: object): Promise<unknown>
  close(): Promise<void>
}

/** Pages with cookies and storage of their own, in the browser of all tests. */
export type PageSource = Pick<Browser, 'newPage' | 'close'>

export async function openBrowser(): Promise<PageSource> {
  const answer = await fetch(inject('browserService'))
  if (!answer.ok) throw new Error(`Chromium did not start: ${await answer.text()}`)
  const browser = await connect({ browserWSEndpoint: await answer.text(), protocolTimeout: patienceMs })
  const context = await browser.createBrowserContext()
  return {
    newPage: async () => {
      const page = await context.newPage()
      page.setDefaultTimeout(patienceMs)
      return page
    },
    close: async () => {
      await context.close()
      await browser.disconnect()
    },
  }
}

/** Gives the browser of a page the cookie that the printed address would give it. */
export async function letIn(page: Page, { url, key }: Stack): Promise<void> {
  const { hostname, port } = new URL(url)
  await page.browserContext().setCookie({
    name: `air-muster-${port}`,
    value: key,
    domain: hostname,
    path: '/',
    httpOnly: true,
    sameSite: 'Strict',
  })
}

export interface SiteOptions {
  /** How many times faster than life its wire runs. */
  readonly pace?: number
  /** Those of the demo that are loaded; the bench of the first is swept. */
  readonly jobs?: readonly string[]
  /** Where its data lies; a new folder where none is named. */
  readonly folder?: string
}

/** A stack, and the folder with the data and logs of everything that runs in it. */
interface Standing {
  readonly stack: Stack
  readonly folder: string
  stop(): Promise<void>
}

async function standUp({ pace = 60, jobs = ['port-ellery'], folder }: SiteOptions): Promise<Standing> {
  await bundleIfStale()
  buildSiteIfStale()
  const there = folder ?? passingFolder('air-muster-e2e-')
  const stack: Stack = await startStack({ folder: there, pace, wantedPort: 0 })
  if (jobs.length > 0) await loadDemoJob(stack.env, jobs)
  return {
    stack,
    folder: there,
    stop: async () => {
      await stack.stop()
      rmSync(there, { recursive: true, force: true })
    },
  }
}

/** A stack for several walks, one after the other: each has a browser with cookies and storage of its own. */
export function sharedSite(options: SiteOptions): () => Promise<Site> {
  let standing: Standing
  beforeAll(async () => {
    standing = await standUp(options)
  })
  afterAll(() => standing.stop())
  return async () => {
    const browser = await openBrowser()
    const site = await siteOn(browser, standing)
    return { ...site, browser, close: () => browser.close() }
  }
}

/** A stack of its own. */
export async function openSite(browser: PageSource, options: SiteOptions = {}): Promise<Site> {
  const standing = await standUp(options)
  const site = await siteOn(browser, standing)
  return {
    ...site,
    close: async () => {
      await site.close()
      await standing.stop()
    },
  }
}

async function siteOn(browser: PageSource, { stack, folder }: Standing): Promise<Site> {
  const page = await browser.newPage()
  await letIn(page, stack)
  const complaints: string[] = []
  page.on('pageerror', (error) => complaints.push(String(error)))
  page.on(
    'console',
    (message) => message.type() === 'error' && complaints.push(`${message.text()} ${message.location().url ?? ''}`),
  )
  return {
    stack,
    browser,
    page,
    folder,
    complaints,
    go: (stage) => page.goto(`${stack.url}/jobs/port-ellery/${stage}`, { waitUntil: 'load' }),
    text: () => page.evaluate(() => document.body.innerText),
    sees: (words) => page.waitForFunction((wanted) => document.body.innerText.includes(wanted), {}, words),
    press: (words) =>
      clickOn(
        page,
        `::-p-xpath(//*[self::button or self::a][contains(normalize-space(.), "${words}")][not(@disabled)])`,
      ),
    type: async (label, text) => {
      const input = await page.waitForSelector(`[aria-label="${label}"]`)
      // By focus and keys, not by the pointer: wherever it stands, it is this one.
      await input?.focus()
      await page.keyboard.down('Control')
      await page.keyboard.press('KeyA')
      await page.keyboard.up('Control')
      await page.keyboard.press('Backspace')
      // In one piece, as from a clipboard: each key by itself would draw the page anew.
      await page.keyboard.sendCharacter(text)
    },
    hand: (move) =>
      fetch(`${stack.lab.url}/hand`, {
        method: 'POST',
        headers: { 'x-lab-token': stack.lab.token },
        body: JSON.stringify(move),
      }),
    close: () => page.close(),
  }
}
