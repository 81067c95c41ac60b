/** What the brief and the floor offer beyond the first walk, on the demo's jobs. */
import { createHash } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Site } from '../support/site'

/** @param open  a page on a site with both jobs of the demo */
export function optionsWalk(open: () => Promise<Site>): void {
  let site: Site
  let page: Page
  beforeAll(async () => {
    site = await open()
    page = site.page
    await page.setViewport({ width: 1280, height: 800 })
  })
  afterAll(() => site.close())

  const sees = (words: string) => site.sees(words)
  const press = (words: string) => site.press(words)
  const type = (label: string, text: string) => site.type(label, text)
  const saved = () => page.waitForFunction(() => document.querySelector('[role="status"]')?.textContent === 'Saved')
  const go = (path: string) => page.goto(`${site.stack.url}/jobs/${path}`, { waitUntil: 'load' })

  describe('the brief', () => {
    it('limits, hours and steering stand in sentences, and say which models are not given them', async () => {
      await go('port-ellery/brief')
      await page.locator('details summary').click()
      await type('Most for one client, kbit/s', '9000')
      await type('Most for all clients together, kbit/s', '4000')
      await sees('One client of "Ellery Crew" may take 9000 kbit/s, more than the 4000 that all of them share.')
      await press('Give one client 4000')
      await sees(
        '"Ellery Crew": set Rate shared by its clients to 4000 kbit/s by hand on Ostrel O-20: a muster cannot.',
      )
      await page.select('[aria-label="Hours on air"]', 'hours')
      await type('On air to', '25:00')
      await sees('a time of day is written 07:30, from 00:00 to 23:59')
      await type('On air to', '20:30')
      await saved()
      await press('None of these')
      await page.waitForFunction(() => !document.body.innerText.includes('Rate shared by its clients'))
      await saved()
    })

    it('asks RADIUS servers, and makes their shared secret', async () => {
      await page.select('[aria-label="Security"]', 'wpa2-enterprise')
      await sees('"Ellery Crew" asks a RADIUS server who may join, and none is named.')
      await press('Add a server')
      await type('RADIUS server 1', '10.44.8.9')
      await saved()
      await page.waitForFunction(() => /Shared secret\s+•+/.test(document.body.innerText))
      await press('Tell the same servers')
      await sees('port')
      await page.select('[aria-label="Security"]', 'wpa3-personal')
      await sees('"Ellery Crew" is WPA3-Personal, which Ostrel O-20 cannot do.')
      await press('Use WPA2-Personal')
      await saved()
    })

    it('keeps subnets apart unless they are ticked, and guests from management even then', async () => {
      await go('port-ellery-whole/brief')
      await page.locator('[aria-label="Travellers may reach Management"]').click()
      await sees('Travellers may reach Management: guests on "Ellery Travellers" could open every unit\'s sign-in.')
      await press('Keep them apart')
      await page.waitForFunction(() => !document.body.innerText.includes('Travellers may reach Management: guests'))
      expect(
        await page.$eval('[aria-label="Crew may reach Management"]', (box) => (box as HTMLInputElement).checked),
      ).toBe(true)
      await saved()
    })

    it('takes an image of a firmware in, with its digest to compare, and says what does not fit', async () => {
      const file = join(site.folder, 'tarnhelm-c1_7.3.0.bin')
      const bytes = Buffer.alloc(600_000, 'image')
      writeFileSync(file, bytes)
      await sees('No unit is given another firmware.')
      const [chooser] = await Promise.all([page.waitForFileChooser(), press('Give an image')])
      await chooser.accept([file])
      await sees(createHash('sha256').update(bytes).digest('hex'))
      await page.select('[aria-label="Model of image 1"]', 'Tarnhelm C1')
      const version = '[aria-label="Version of image 1"]'
      expect(await page.$eval(version, (field) => (field as HTMLInputElement).value)).toBe('7.3.0')
      await sees('tarnhelm-c1_7.3.0.bin (586 kB)')
      await type('Oldest firmware', '8.0')
      await sees('The image for Tarnhelm C1 brings 7.3.0, and every unit is to run 8.0 at least.')
      await type('Oldest firmware', '')
      await saved()
      await page.locator('[aria-label="Take the image for Tarnhelm C1 off"]').click()
      await sees('No unit is given another firmware.')
      await saved()
    })

    it('names users beside the admin, makes their passwords, and says which models have none', async () => {
      await sees('Nobody else signs in to them.')
      await press('Add a user')
      await type('Name of user 1', 'Night Watch')
      await sees('a user is named in small letters, digits and dashes, beginning with a letter, such as night-watch')
      await type('Name of user 1', 'night-watch')
      await saved()
      await page.waitForFunction(() => /Password of night-watch\s+•+/.test(document.body.innerText))
      await sees('Set Further users to night-watch (reads) by hand on Brackwater B7, Pellworth P6: a muster cannot.')
      await page.locator('[aria-label="Take user 1 off"]').click()
      await saved()
    })

    it('makes the keys of SNMPv3 when somebody is to watch', async () => {
      await page.select('[aria-label="SNMP"]', 'none')
      await saved()
      await page.select('[aria-label="SNMP"]', 'v3')
      await saved()
      await page.waitForFunction(() => /Authentication key\s+•+[\s\S]*Privacy key\s+•+/.test(document.body.innerText))
    })
  })

  describe('the floor', () => {
    const at = (unit: string) => page.$eval(`g[data-unit="${unit}"]`, (mark) => mark.getAttribute('transform'))

    it('moves a unit by the arrow keys and by figures, and takes both back', async () => {
      await go('port-ellery-whole/plan')
      await page.waitForSelector('g[data-unit="hall-05"]')
      const before = await at('hall-05')
      await page.$eval('g[data-unit="hall-05"]', (mark) => (mark as SVGGElement).focus())
      await page.keyboard.press('Enter')
      await page.keyboard.press('ArrowRight')
      await page.waitForFunction(
        () =>
          (document.querySelector('[aria-label="Metres from the left"]') as HTMLInputElement | null)?.value === '12.5',
      )
      await type('Metres from the top', '18,5')
      await page.keyboard.press('Tab')
      await page.waitForFunction(
        () =>
          (document.querySelector('[aria-label="Metres from the top"]') as HTMLInputElement | null)?.value === '18.5',
      )
      expect(await at('hall-05')).not.toBe(before)
      await press('Undo')
      await press('Undo')
      await expect.poll(() => at('hall-05')).toBe(before)
    })

    it('locks a channel from its slip, refuses one that is not legal, and lets it go', async () => {
      await page.waitForFunction(() => /5 GHz: channel \d+/.test(document.body.innerText))
      await type('Another channel at 5 GHz', '177')
      await page.keyboard.press('Enter')
      await sees(
        'It has no plan. Ostrel O-40 finds channel 177 at 5 GHz neither legal in NZ nor within its own ' +
          'powers. Channel 177 at 20 MHz is not legal in NZ: no rule covers 5875 to 5895 MHz.',
      )
      await press('Let 177 go at 5 GHz')
      await page.waitForFunction(() => /5 GHz: channel \d+/.test(document.body.innerText))
      await type('Another channel at 5 GHz', '44')
      await page.keyboard.press('Enter')
      await sees('5 GHz: channel 44, 40 MHz')
      await press('Let 44 go')
      await page.waitForFunction(
        () => document.body.innerText.includes('Lock 44') || /5 GHz: channel (?!44)\d+/.test(document.body.innerText),
      )
    })

    it('erases a wall, and has it back', async () => {
      const walls = () => page.$$eval('svg line[data-material]', (lines) => lines.length)
      const before = await walls()
      await press('Erase')
      await sees('click a wall to take it away')
      const wall = await (await page.waitForSelector('line[data-material="glass"]'))?.boundingBox()
      await page.mouse.click((wall?.x ?? 0) + (wall?.width ?? 0) / 2, (wall?.y ?? 0) + (wall?.height ?? 0) / 2)
      await expect.poll(walls).toBe(before - 1)
      await press('Undo')
      await expect.poll(walls).toBe(before)
    })

    it('sums up a link, and says when its way is not clear', async () => {
      await press('Links')
      await sees('Both ends: channel')
      await type('Highest thing on the way, m', '12.5')
      await page.keyboard.press('Tab')
      await sees('The way is not clear:')
      await press('Undo')
      await page.waitForFunction(() => !document.body.innerText.includes('The way is not clear:'))
    })
  })

  describe('addresses that others ask', () => {
    const status = (path: string, init?: object) =>
      page.evaluate(async (asked, how) => (await fetch(asked, how)).status, `/api/${path}`, init)

    it('answer with what there is, and with 404 for what there is not', async () => {
      expect(await status('jobs/port-ellery/addresses/kea')).toBe(200)
      expect(await status('jobs/port-ellery/addresses/kea?interface=a%22b')).toBe(400)
      for (const path of [
        'jobs/port-ellery/addresses/other',
        'jobs/nothing/addresses/kea',
        'jobs/port-ellery/drawing/none',
        'jobs/Port%20Ellery/as-built.csv',
      ])
        expect(await status(path), path).toBe(404)
      const schema = await page.evaluate(async () => (await fetch('/api/job-schema')).json())
      expect(schema).toMatchObject({ title: 'Air Muster job', properties: { brief: {}, units: {}, site: {} } })
    })

    it('seal no secrets under a passphrase that is too short', async () => {
      const reply = await page.evaluate(async () => {
        const body = new FormData()
        body.set('passphrase', 'short')
        const answer = await fetch('/api/jobs/port-ellery/job-file', { method: 'POST', body })
        return [answer.status, await answer.text()]
      })
      expect(reply).toEqual([400, expect.stringContaining('The passphrase has 5 characters; 10 are needed')])
    })
  })

  describe('the muster of a job with models that no muster sets', () => {
    it('says so of each, offers no press that would set them, and keeps its tables within their sheets', async () => {
      await go('port-ellery-whole/muster')
      const move = 'tr[data-unit="link-quay"] td'
      await page.waitForSelector(move)
      expect(await page.$eval(move, (cell) => cell.textContent)).toBe('by hand: its slip has every value')
      await page.locator('tr[data-unit="link-quay"]').click()
      await sees('Set by hand: links are planned and not set by this release.')
      const presses = await page.$$eval('#slip button', (all) => all.map((each) => each.textContent))
      expect(presses.filter((words) => words?.includes('this unit'))).toEqual([])
      // By hand it is the same list: who has seen to what stands on the sheet.
      await go('port-ellery-whole/bench/link-quay')
      await sees('Plug it in, ')
      const name = '[data-setting="unit.name"]'
      await page.locator(`${name} button`).click()
      await page.locator(`${name} [aria-label="Your name"]`).fill('Kea')
      await page.locator(`${name} ::-p-xpath(.//button[.="Done"])`).click()
      await sees('seen to by Kea')
      await page.locator(`${name} ::-p-xpath(.//button[contains(., "Not done")])`).click()
      await page.waitForFunction(() => !document.body.innerText.includes('seen to by Kea'))
      // Every column is seen at 1280 px, and what is hidden from the eye makes no page longer.
      for (const stage of ['muster', 'kit']) {
        await go(`port-ellery-whole/${stage}`)
        await page.waitForSelector('main tr[data-unit], main [data-row]')
        expect(await page.$eval('main', (main) => main.scrollHeight - main.clientHeight), stage).toBe(0)
      }
      await go('port-ellery-whole/muster')
      await page.waitForSelector(move)
      const beyond = await page.$eval(
        'main table',
        (table) => table.scrollWidth - (table.parentElement?.clientWidth ?? 0),
      )
      expect(beyond).toBeLessThanOrEqual(0)
    })
  })
}
