/** What surrounds the stages: the scheme, the help, the muster by its buttons. */
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Site } from '../support/site'

/** The first to muster finds boxed units. @param open  a page on a site with the demo's first job */
export function frameWalk(open: () => Promise<Site>): void {
  let shared: Site
  beforeAll(async () => {
    shared = await open()
    await shared.page.setViewport({ width: 1280, height: 800 })
  })
  afterAll(() => shared.close())

  describe('the frame', () => {
    it('shows its keys on ?, turns dark and light, and remembers it', async () => {
      const { page, go, sees, press } = shared
      await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'light' }])
      await go('muster')
      await sees('Your next move')
      await page.keyboard.press('?')
      await sees('pause after this step')
      await page.keyboard.press('Escape')
      await page.waitForFunction(() => document.querySelector('[role="dialog"]') === null)
      const scheme = () => page.$eval('html', (html) => html.dataset.mantineColorScheme)
      expect(await scheme()).toBe('light')
      await press('dark')
      await page.waitForFunction(() => document.documentElement.dataset.mantineColorScheme === 'dark')
      await page.reload()
      expect(await scheme()).toBe('dark')
    })

    it('shows its key to nobody else who serves on this laptop', async () => {
      const { page, go } = shared
      const cookies: (string | undefined)[] = []
      const other = createServer((request, response) => {
        cookies.push(request.headers.cookie)
        response.setHeader('content-type', 'text/html').end('<title>another</title>')
      })
      await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve))
      const { port } = other.address() as AddressInfo
      for (const host of ['127.0.0.1', 'localhost']) await page.goto(`http://${host}:${port}/`)
      other.close()
      expect(cookies.length).toBeGreaterThan(1)
      expect(cookies.filter((cookie) => cookie !== undefined)).toEqual([])
      // At its own address it is let in.
      await go('muster')
      expect(await page.title()).not.toBe('another')
    })

    it('shows the pages of a unit as they are, beside what it is to be, and closes them', async () => {
      const { page, go, sees, press } = shared
      await go('bench/hall-01')
      await sees('The unit wants a login for Ostrel O-40')
      const login = '[aria-label="The unit wants a login"] input'
      await page.locator(`${login}[name="user"]`).fill('setup')
      await page.locator(`${login}[name="password"]`).fill('setup')
      await press('Sign in')
      const address = 'input[aria-label="Address within the unit"]'
      await page.waitForFunction(
        (at) => document.querySelector<HTMLInputElement>(at)?.value.includes('192.168.77.1'),
        {},
        address,
      )
      const isDrawn = () =>
        page.$eval('canvas', (canvas) => {
          const { data } = (canvas as HTMLCanvasElement).getContext('2d')?.getImageData(0, 0, 300, 200) ?? { data: [] }
          return data.some((value, at) => at % 4 < 3 && value < 128 && data[at - (at % 4) + 3] === 255)
        })
      await expect.poll(isDrawn).toBe(true)
      // Keys go to the unit, and there is a way out.
      const focused = () => page.evaluate(() => document.activeElement?.getAttribute('role'))
      await page.focus('[role="application"]')
      await page.keyboard.press('Tab')
      expect(await focused()).toBe('application')
      await page.keyboard.down('Shift')
      await page.keyboard.press('Escape')
      await page.keyboard.up('Shift')
      expect(await focused()).not.toBe('application')
      // Another host is nothing that it shows.
      await page.locator(address).fill('https://127.0.0.1/')
      await page.keyboard.press('Enter')
      await sees('A window shows this unit alone')
      await page.locator('[data-setting="unit.name"] button').click()
      await sees('goes into the field that has the focus')
      await press('Close the window')
      await sees('The window is closed.')
      await press('Open the window')
      await press('Close the window')
      await sees('The window is closed.')
    })

    it('tells every stage, every step and every cell by words too', async () => {
      const { page, go, sees } = shared
      await go('muster')
      await sees('Your next move')
      expect(
        await page.$$eval('nav[aria-label="Stages"] a', (tabs) => tabs.map((tab) => tab.getAttribute('aria-current'))),
      ).toEqual([null, null, null, null, 'page', null])
      const words = await page.$$eval('td[data-step] .visually-hidden', (cells) =>
        cells.map((cell) => cell.textContent),
      )
      // The O-20 is given no image: it has no such step.
      expect(words).toEqual(Array.from({ length: 3 * 15 + 14 }, () => 'not yet'))
      expect(await page.$$eval('th[scope="col"]', (heads) => heads.map((head) => head.textContent))).toEqual([
        'Unit',
        'Your next move',
        'Reach',
        'Sign in',
        'Backup',
        'Firmware',
        'Country',
        'Clock',
        'Networks',
        'Radios',
        'Services',
        'Password',
        'Address',
        'Apply',
        'Return',
        'On air',
        'Proof',
        'Port',
      ])
      expect(await page.$('[role="status"][aria-live="polite"]')).not.toBeNull()
      expect(await page.$eval('html', (html) => html.lang)).toBe('en')
    })
  })

  describe('the muster by its buttons', () => {
    it('pauses, says so, and goes on', async () => {
      const { page, go, press, sees, text } = shared
      await go('muster')
      await press('Muster all 4')
      await page.waitForFunction(() => document.querySelectorAll('[data-step="backup"] [data-kind="done"]').length > 0)
      await press('Pause after this step')
      await sees('Go on')
      expect(await text()).toContain('paused')
      await press('Go on')
      await sees('4 of 4 answer')
      await press('Call the roll again')
      // A roll that changes nothing may be over between two looks: what it leaves says that it was called.
      // Cells of the table alone: the phone's tick list tells one unit once more.
      await page.waitForFunction(
        () => document.querySelectorAll('td[data-step="country"] [title*="was right already"]').length === 4,
      )
      await sees('4 of 4 answer')
    })

    it("takes an answer back when the brief is changed, and trusts a new certificate on a person's word", async () => {
      const { page, go, press, sees, text, hand } = shared
      await go('muster')
      await sees('of 4 answer')
      if (!(await text()).includes('4 of 4 answer')) await page.keyboard.press('r')
      await sees('4 of 4 answer')
      await page.locator('a[data-stage="brief"]').click()
      await page.waitForSelector('[aria-label="Hidden or shown"]')
      await page.select('[aria-label="Hidden or shown"]', 'yes')
      await page.waitForFunction(() =>
        document.querySelector('a[data-stage="muster"]')?.textContent?.includes('0 of 4 answer, 4 changed'),
      )
      await page.locator('a[data-stage="muster"]').click()
      await sees('changed since: muster it again')
      await page.locator('tr[data-unit="hall-02"]').click()
      for (const stage of ['kit', 'plan', 'muster']) {
        await page.locator(`a[data-stage="${stage}"]`).click()
        await page.waitForFunction((path) => location.pathname.endsWith(path), {}, stage)
        await sees('Network "Ellery Crew": hidden is off, to be on.')
        // Without a floor the plan is a list.
        if (stage === 'plan')
          await expect
            .poll(() => page.$eval('tr[data-unit="booth-01"]', (row) => row.innerText))
            .toMatch(/10\.44\.8\.23.*channel 149, 40 MHz/s)
      }
      await press('Call this unit again')
      await sees('1 of 4 answer')
      await page.locator('a[data-stage="handover"]').click()
      await sees(
        'hall-01 was changed since it was mustered. Network "Ellery Crew": hidden is off, to be on. Muster it again.',
      )

      await page.locator('a[data-stage="muster"]').click()
      await hand({ do: 'press-reset', mac: '02:4f:52:10:6a:2c', seconds: 10, certificate: 'new' })
      await press('Call the roll again')
      await sees('3 of 4 answer')
      await page.locator('tr[data-unit="hall-01"]').click()
      await sees('Its certificate is not the one it showed first.')
      expect(await text()).toContain('compare its label with 02:4f:52:10:6a:2c')
      await press('I reset it: trust its new certificate')
      await sees('4 of 4 answer')
      await sees('the pages: it was reset, its next certificate is pinned')
    })
  })
}
