/** The real interface in Chromium, driven by clicks and keys, against everything that runs in the demo. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from 'puppeteer-core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { openStore } from '../../src/store/open'
import { openSecrets } from '../../src/store/secrets'
import { macs, type Site } from '../support/site'

/** Each test leaves the units as the next one takes them. @param open  a page on a site with the demo's first job */
export function benchWalk(open: () => Promise<Site>): void {
  let site: Site
  let page: Page
  const boxed = async (): Promise<void> => {
    for (const mac of macs) await site.hand({ do: 'press-reset', mac, seconds: 12 })
  }
  beforeAll(async () => {
    site = await open()
    page = site.page
    // Whoever mustered them before leaves them to us as out of their boxes, each by the pin of its reset.
    await boxed()
  })
  afterAll(() => site.close())

  const go = (stage: string) => site.go(stage)
  const text = () => site.text()
  const sees = (words: string) => site.sees(words)
  const press = (words: string) => site.press(words)

  describe('at a desk, 1280 by 800', () => {
    beforeEach(() => page.setViewport({ width: 1280, height: 800 }))

    it('goes by keys: stages, rows, the slip, finding a unit, calling the roll', async () => {
      await go('bench')
      await sees('3 units share this factory address')
      await page.keyboard.press('5')
      await sees('Your next move')
      await page.keyboard.press('j')
      await page.keyboard.press('j')
      expect(await page.$eval('tr[data-selected="true"]', (row) => (row as HTMLElement).dataset.unit)).toBe('hall-02')
      await page.keyboard.press('k')
      expect(await page.$eval('tr[data-selected="true"]', (row) => (row as HTMLElement).dataset.unit)).toBe('hall-01')
      await page.keyboard.press('Enter')
      expect(await page.evaluate(() => document.activeElement?.id)).toBe('slip')
      await page.keyboard.press('/')
      await page.waitForSelector('input[placeholder="Name, location, MAC or serial"]', { visible: true })
      await page.keyboard.type('6a-31')
      await press('booth-01')
      await page.waitForFunction(() => document.querySelector('[aria-label="Slip of booth-01"]') !== null)
      await page.waitForFunction(() => document.querySelector('[role="dialog"]') === null)
      await page.keyboard.press('r')
      // Who mustered them before has left the same words.
      await sees('Pause after this step')
      await sees('Call the roll again')
      await sees('4 of 4 answer')
    })

    it('musters four units from the bench and hands over, without a reload', async () => {
      await boxed()
      await go('bench')
      await sees('4 units on the wire')
      await sees('3 units share this factory address')
      // Those that were just reset may be gone again for a moment.
      const onTheWire = () => page.$$eval('tr[data-mac]', (all) => all.map((row) => (row as HTMLElement).dataset.mac))
      await expect.poll(onTheWire).toEqual(macs)
      await page.evaluate(() => Object.assign(window, { neverReloaded: true }))
      await press('Muster the 4 that match')
      await page.locator('a[data-stage="muster"]').click()
      await sees('Your next move')
      await sees('Pause after this step')
      const seen = new Set<string>()
      const cells = () =>
        page.$$eval('tr[data-unit="hall-03"] td[data-step] > span', (all) =>
          all.map((each) => (each as HTMLElement).dataset.kind ?? ''),
        )
      await expect
        .poll(
          async () => {
            for (const is of await cells()) seen.add(is)
            return (await text()).includes('4 of 4 answer')
          },
          { interval: 60 },
        )
        .toBe(true)
      expect([...seen]).toEqual(expect.arrayContaining(['idle', 'waiting', 'done']))
      expect(await cells()).toEqual(Array.from({ length: 15 }, () => 'done'))
      await page.locator('tr[data-unit="hall-03"]').click()
      await sees('Factory login: refused')
      await sees('Networks on air: secured as asked')
      await sees('54 proven')
      await page.locator('a[data-stage="handover"]').click()
      await sees('Ready to hand over')
      expect(await text()).toContain('10.44.8.22')
      expect(await page.evaluate(() => 'neverReloaded' in window)).toBe(true)
      const csv = await page.evaluate(async () => (await fetch('/api/jobs/port-ellery/as-built.csv')).text())
      expect(csv).toContain('hall-02,café,Ostrel O-40,02:4f:52:10:6a:2d,OS4-7731-2D,hall rack,2,10.44.8.21,')
      expect(site.complaints).toEqual([])

      // Logs, redo log, tables: whatever was written by now holds no secret in clear.
      const store = openStore({
        url: site.stack.env.AIR_MUSTER_DB ?? '',
        vaultKeyFile: site.stack.env.AIR_MUSTER_VAULT_FILE ?? '',
      })
      const secrets = [...(await openSecrets(store, 1)).values()]
      await store.close()
      expect(secrets).toHaveLength(2)
      const files = readdirSync(site.folder, { recursive: true, encoding: 'utf8' }).filter((file) =>
        /\.(log|ibd|ibdata)$|ib_logfile0$|ibdata1$|undo/.test(file),
      )
      expect(files).toEqual(
        expect.arrayContaining(['logs/runner.log', 'logs/web.log', 'mariadb/data/air_muster/secrets.ibd']),
      )
      for (const file of files)
        for (const secret of secrets)
          expect(readFileSync(join(site.folder, file)).includes(secret), `${file} holds a secret`).toBe(false)
    })

    it('shows why a unit is held and what the hands do', async () => {
      await site.hand({ do: 'unplug', mac: '02:4f:32:10:6a:31' })
      await go('muster')
      await press('Call the roll again')
      await sees('3 of 4 answer')
      await page.locator('tr[data-unit="booth-01"]').click()
      await sees('It does not answer at 10.44.8.23 or 192.168.77.1.')
      await sees('Check the cable in port 6 and that the port gives 802.3af power.')
      await page.locator('a[data-stage="handover"]').click()
      await sees('Not complete yet')
      await sees('booth-01 is held.')
    })
  })

  describe('on a ladder, 390 by 844', () => {
    beforeEach(() => page.setViewport({ width: 390, height: 844, hasTouch: true, isMobile: true }))

    it('shows one unit at a time, large, and its steps as they are done', async () => {
      // It is mustered by itself when it is seen again: nobody presses anything.
      await site.hand({ do: 'plug-in', mac: '02:4f:32:10:6a:31' })
      await go('muster')
      await page.waitForSelector('section[aria-label="hall-01"] h2', { visible: true })
      await press('Next')
      await page.waitForSelector('section[aria-label="hall-02"] h2', { visible: true })
      expect(await page.$eval('section[aria-label="hall-02"]', (card) => card.innerText)).toContain('6a:2d')
      await sees('4 of 4 answer')
      expect(
        await page.$$eval('section[aria-label="hall-02"] li > span', (all) =>
          all.map((each) => (each as HTMLElement).dataset.kind),
        ),
      ).toEqual(Array.from({ length: 15 }, () => 'done'))
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
    })
  })
}
