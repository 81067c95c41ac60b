/** Everything that runs in the demo, with a page of Chromium on it, for tests of the real interface. */
import { rmSync } from 'node:fs'
import { type Browser, connect, type Page } from 'puppeteer-core'
import { inject } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
// @ts-expect-error the same
import { loadDemoJob } from '../../scripts/lib/demo-job.mjs'
// @ts-expect-error the same
import { buildSiteIfStale } from '../../scripts/lib/site.mjs'
// @ts-expect-error the same
import { startStack } from '../../scripts/lib/stack.mjs'
import { passingFolder } from './passing-folder'
import { patienceMs } from './patience'

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
  await bundleIfStale()
  buildSiteIfStale()
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

/** @param jobs  those of the demo that are loaded; the bench of the first is swept */
export async function openSite(
  browser: PageSource,
  {
    pace = 60,
    jobs = ['port-ellery'],
    folder = passingFolder('air-muster-e2e-'),
  }: { pace?: number; jobs?: readonly string[]; folder?: string } = {},
): Promise<Site> {
  const stack: Stack = await startStack({ folder, pace })
  if (jobs.length > 0) await loadDemoJob(stack.env, jobs)
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
    page,
    folder,
    complaints,
    go: (stage) => page.goto(`${stack.url}/jobs/port-ellery/${stage}`, { waitUntil: 'load' }),
    text: () => page.evaluate(() => document.body.innerText),
    sees: (words) => page.waitForFunction((wanted) => document.body.innerText.includes(wanted), {}, words),
    // A locator waits until what it found stands still: a page that has just learnt something may still move.
    press: (words) =>
      page
        .locator(`::-p-xpath(//*[self::button or self::a][contains(normalize-space(.), "${words}")][not(@disabled)])`)
        .setTimeout(patienceMs)
        .click(),
    type: async (label, text) => {
      const input = await page.waitForSelector(`[aria-label="${label}"]`)
      // By focus and keys, not by the pointer: wherever it stands, it is this one.
      await input?.focus()
      await page.keyboard.down('Control')
      await page.keyboard.press('KeyA')
      await page.keyboard.up('Control')
      await page.keyboard.press('Backspace')
      await page.keyboard.type(text)
    },
    hand: (move) =>
      fetch(`${stack.lab.url}/hand`, {
        method: 'POST',
        headers: { 'x-lab-token': stack.lab.token },
        body: JSON.stringify(move),
      }),
    close: async () => {
      await page.close()
      await stack.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
