/** Brief, Kit and Plan in Chromium: everything that is decided before the first box is opened. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { ElementHandle, HTTPRequest, Page } from 'puppeteer-core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { clickOn } from '../support/click-on'
import { openBrowser, openSite, type PageSource, type Site } from '../support/site'

const files = mkdtempSync(join(tmpdir(), 'air-muster-files-'))
let browser: PageSource
let site: Site
let page: Page

beforeAll(async () => {
  browser = await openBrowser()
  site = await openSite(browser, { jobs: [] })
  page = site.page
})
afterAll(async () => {
  await site.close()
  await browser.close()
  rmSync(files, { recursive: true, force: true })
})
beforeEach(() => page.setViewport({ width: 1280, height: 800 }))

const sees = (words: string) => site.sees(words)
const press = (words: string) => site.press(words)
const open = (path: string) => page.goto(`${site.stack.url}${path}`, { waitUntil: 'load' })
const type = (label: string, text: string) => site.type(label, text)
const choose = (label: string, value: string) => page.select(`[aria-label="${label}"]`, value)
const saved = () => page.waitForFunction(() => document.querySelector('[role="status"]')?.textContent === 'Saved')
const file = async (label: string, name: string, content: string | Buffer): Promise<void> => {
  const path = join(files, name)
  writeFileSync(path, content)
  const input = (await page.waitForSelector(label)) as ElementHandle<HTMLInputElement>
  await input.uploadFile(path)
}
/** A place on the floor that is shown, in shares of its width and depth: where it is on the page. */
const onMap = async (x: number, y: number): Promise<[number, number]> => {
  const box = await (await page.waitForSelector('svg[data-floor] rect'))?.boundingBox()
  if (!box) throw new Error('no floor')
  return [box.x + box.width * x, box.y + box.height * y]
}
/** A click there once the floor stands still: sentences that come and go above it move it. */
const clickMap = async (x: number, y: number): Promise<void> => {
  const box = await (await page.waitForSelector('svg[data-floor] rect'))?.boundingBox()
  if (!box) throw new Error('no floor')
  await page.locator('svg[data-floor] rect').click({ offset: { x: box.width * x, y: box.height * y } })
}
/** What a column of the file is taken for; empty for nothing. */
const meaningOf = (heading: string): Promise<string> =>
  page.$$eval(
    'fieldset label',
    (labels, text) =>
      labels.flatMap((label) => (label.textContent === text ? [(label.control as HTMLSelectElement).value] : []))[0] ??
      '?',
    heading,
  )
/** A file dropped on the middle of the page, or on the field of a label. */
const drop = (name: string, type: string, content: string, label?: string): Promise<void> =>
  page.evaluate(
    (...[fileName, fileType, text, of]) => {
      const dataTransfer = new DataTransfer()
      dataTransfer.items.add(new File([text], fileName, { type: fileType }))
      const labels = [...document.querySelectorAll('label')].filter((each) => each.textContent === of)
      const under = of
        ? document.getElementById(labels[0]?.htmlFor ?? '')
        : document.elementFromPoint(innerWidth / 2, innerHeight / 2)
      for (const kind of ['dragenter', 'dragover', 'drop'])
        under?.dispatchEvent(new DragEvent(kind, { dataTransfer, bubbles: true, cancelable: true }))
    },
    name,
    type,
    content,
    label,
  )
const get = (path: string) => page.evaluate(async (asked) => (await fetch(asked)).text(), path)
/** One press of a mend beside its sentence. */
const mend = async (sentence: string, words: string): Promise<void> => {
  await sees(sentence)
  await press(words)
  await page.waitForFunction((gone) => !document.body.innerText.includes(gone), {}, sentence)
}

const messy = [
  '\uFEFFPort;Hostname;MAC Address;Where;Type;Serial No;Bought',
  '1;mill-01;02-4F-52-77-00-01;grain floor;O-40;OS4-9001;May',
  '2;mill-02;024F.5277.0002;"sack hoist, low";Ostrel O-40;OS4-9002;May',
  '3;mill-03;024f52770003;bagging;o40;OS4-9003;May',
  '4;yard-01;02:B7:1C:77:00:01;loading yard;Brackwater B7;B7-9001;June',
  '5;mill-05;02:4f:52:77:00;office;O-40;OS4-9005;June',
  '',
].join('\r\n')

describe("a job of one's own", () => {
  it('is begun with its country', async () => {
    await open('/')
    await sees('There are none yet. Begin one, or take one in from a file.')
    await press('Begin a job')
    const named = async (label: string, text: string) =>
      (await page.waitForSelector(`::-p-aria([name="${label}"][role="textbox"])`))?.type(text)
    await named('Name of the job', 'Thornby mill')
    await named('The site', 'Mill and loading yard')
    await page.select('[role="dialog"] select', 'GB')
    await press('Write the brief')
    await sees('What the site is to have')
    await sees('United Kingdom follows the ETSI radar rules.')
    await sees('No wireless network yet: units would be silent.')
  })

  it('has a brief that is saved by itself, can be undone, and names each fault where it stands', async () => {
    await type('Time zone', 'Europe/Lundon')
    await sees('this is not a time zone of the IANA list, such as Pacific/Auckland')
    await sees('Not saved yet: 1 field to mend')
    // What the rest of the brief means is still told.
    await sees('United Kingdom follows the ETSI radar rules.')
    // What is not whole is not lost by a reload.
    await page.reload()
    await sees('Not saved yet: 1 field to mend')
    expect(await page.$eval('[aria-label="Time zone"]', (input) => (input as HTMLInputElement).value)).toBe(
      'Europe/Lundon',
    )
    await type('Time zone', 'Europe/London')
    await saved()
    await type('Gateway', '10.20.9.1')
    await mend('The gateway 10.20.9.1 is outside 10.20.0.0/24', 'Use 10.20.0.1')
    await press('Add a network')
    await type('Name of the network (SSID)', 'Thornby Crew')
    await type('VLAN of the network', '30')
    await saved()
    await clickOn(page, 'article[aria-label="Network Thornby Crew"] button')
    await sees('No wireless network yet')
    await press('Undo')
    await sees('"Thornby Crew": WPA2-Personal, AES-CCMP, 2.4 and 5 GHz')
    await saved()
    await page.reload()
    await sees('clients land in VLAN 30')
  })

  it('refuses a passphrase that is too short or not ASCII, and says of one that it can be guessed', async () => {
    const keep = async (text: string): Promise<void> => {
      await type('Passphrase to keep', text)
      await press('Keep it')
    }
    await press('Type one')
    await keep('short')
    await sees('The passphrase has 5 characters; WPA2 needs 8 at least.')
    await keep('grüne Mühle')
    await sees('The passphrase has a character that is not plain ASCII: some clients could not type it.')
    await keep('Thornby Crew')
    await sees('The passphrase of "Thornby Crew" is its own name: it is the first that anybody tries.')
    await press('Make a strong one')
    await page.waitForFunction(() => !document.body.innerText.includes('is its own name'))
    await press('Type one')
    await keep('Password2024')
    await sees('The passphrase of "Thornby Crew" can be guessed')
    await press('Make another')
    await sees('A new one is made: 92 bits, without look-alike characters.')
    await press('Show')
    await page.waitForFunction(() =>
      /[A-Za-z2-9]{4}-[A-Za-z2-9]{4}-[A-Za-z2-9]{4}-[A-Za-z2-9]{4}/.test(document.body.innerText),
    )
    await sees('The asking is recorded.')
  })

  it('puts no open network on air until its name is typed twice', async () => {
    await choose('Security', 'open')
    await sees(
      '"Thornby Crew" would be open: anyone nearby could read what its clients send. It is not put on air ' +
        'until its name is typed a second time.',
    )
    await type('The name of the open network, again', 'Thornby Crew')
    await sees('"Thornby Crew" is open, as you confirmed')
    await press('Use WPA2-Personal')
    await saved()
  })

  it('tells the second writer, and writes nothing over', async () => {
    const other = await browser.newPage()
    await other.goto(`${site.stack.url}/jobs/thornby-mill/brief`, { waitUntil: 'load' })
    const client = (await other.waitForSelector('[aria-label="Client"]')) as ElementHandle
    await client.type('Thornby Grain')
    await other.waitForFunction(
      () =>
        document.querySelector('[role="status"]')?.textContent === 'Saved' && document.body.innerText.includes('Undo'),
    )
    await other.waitForFunction(async () => (await (await fetch(location.href)).text()).includes('Thornby Grain'))
    await other.close()
    await type('Site', 'Mill alone')
    await sees('Somebody else has changed the brief in the meantime.')
    await press('Load what is saved')
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Client"]') as HTMLInputElement | null)?.value === 'Thornby Grain',
    )
    expect(await page.$eval('[aria-label="Site"]', (input) => (input as HTMLInputElement).value)).toBe(
      'Mill and loading yard',
    )
  })

  it('takes a second network for guests, and keeps them from the units', async () => {
    await press('Add a network')
    await page.waitForSelector('article[aria-label="Network Network 2"]')
    const second = (label: string) => `article[aria-label="Network Network 2"] [aria-label="${label}"]`
    await page.select(second('What the network is for'), 'guests')
    await sees('Guests on "Network 2" could reach each other\'s devices.')
    await press('Keep them from each other')
    await mend('"Network 2" is untagged like management: its clients could reach every unit.', 'Use VLAN 10')
    await page.locator(second('Name of the network (SSID)')).fill('Thornby Visitors')
    await press('Add a subnet')
    await sees('hands out 231 addresses and leaves 23 for static use.')
    await saved()
  })

  it('gets its kit from a messy file, seen before it is taken', async () => {
    await clickOn(page, 'a[data-stage="kit"]')
    await sees('0 units on the list')
    await drop('kit.pdf', 'application/pdf', messy)
    await sees('kit.pdf is not a list as CSV: nothing was taken from it.')
    await drop('kit.csv', 'text/csv', messy)
    await sees('4 to add, 0 to change, 0 as they are, 1 with faults.')
    expect(await meaningOf('Bought')).toBe('')
    await sees('MAC: "02:4f:52:77:00" is not a MAC address')
    await press('Take 4 lines')
    await sees('4 units on the list')
    await saved()
    await page.reload()
    await sees('4 units on the list')
    // The rows come after the count: how many fit is known once the page is laid out.
    await page.waitForFunction(() => document.querySelectorAll('[role="row"] [data-column="mac"]').length === 5)
    expect(
      await page.$$eval('[role="row"] [data-column="mac"]', (cells) => cells.map((cell) => cell.textContent)),
    ).toEqual(['02:4f:52:77:00:01', '02:4f:52:77:00:02', '02:4f:52:77:00:03', '02:b7:1c:77:00:01', ''])
  })

  it('is edited as a sheet: keys, fill, paste, sort, undo; a fault keeps only its row from being saved', async () => {
    const cell = (row: string, column: string) =>
      page.$eval(`[data-row="${row}"] [data-column="${column}"]`, (found) => found.textContent)
    await clickOn(page, '[data-row="mill-02"] [data-column="location"]')
    await page.keyboard.type('sack hoist')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Enter')
    await page.keyboard.type(', rear')
    await page.keyboard.press('Tab')
    expect([await cell('mill-02', 'location'), await cell('mill-03', 'location')]).toEqual([
      'sack hoist',
      'bagging, rear',
    ])
    await saved()

    await clickOn(page, '[data-row="mill-01"] [data-column="port"]')
    await page.keyboard.type('11')
    await page.keyboard.press('Enter')
    await clickOn(page, '[data-row="mill-01"] [data-column="port"]')
    await page.keyboard.down('Shift')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.up('Shift')
    await page.keyboard.down('Control')
    await page.keyboard.press('d')
    await page.keyboard.up('Control')
    expect([await cell('mill-01', 'port'), await cell('mill-02', 'port'), await cell('mill-03', 'port')]).toEqual([
      '11',
      '12',
      '13',
    ])

    await clickOn(page, '[data-row="new"] [data-column="name"]')
    await page.evaluate(() => {
      const clipboardData = new DataTransfer()
      clipboardData.setData(
        'text/plain',
        'mill-06\tattic\to-40\t024f.5277.0006\tOS4-9006\t6\nmill-07\tcellar\to-40\t024f.5277.0001\t\t7',
      )
      document
        .querySelector('[role="grid"]')
        ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
    })
    await sees('6 units on the list')
    await sees('Saved, but for 1 row to mend')
    await clickOn(page, '[data-row="mill-07"] [data-column="mac"]')
    await sees('mill-07 has the same MAC as mill-01: 02:4f:52:77:00:01. This row is not saved until then.')
    await page.reload()
    await sees('6 units on the list')
    await clickOn(page, '[data-row="mill-07"] [data-column="mac"]')
    await press('Take it off the list')
    await saved()

    await clickOn(page, '[role="columnheader"] button')
    await clickOn(page, '[role="columnheader"] button')
    const rows = () =>
      page.$$eval('[role="row"][data-row]', (all) => all.map((row) => (row as HTMLElement).dataset.row))
    await expect.poll(rows).toEqual(['yard-01', 'mill-06', 'mill-03', 'mill-02', 'mill-01', 'new'])
    await press('Undo')
    await press('Undo')
    await saved()
  })

  it('takes a label that is scanned, in the field or while nothing has the focus', async () => {
    await clickOn(page, '[data-row="new"] [data-column="name"]')
    await page.keyboard.type('mill-08')
    await page.keyboard.press('Tab')
    await page.keyboard.press('Tab')
    await page.keyboard.type('Ostrel O-40')
    await page.keyboard.press('Enter')
    await sees('6 units on the list')
    await type('Scan or type a label', '024F52770008')
    await page.keyboard.press('Enter')
    await sees('MAC landed on mill-08.')
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
    // As fast as only a scanner types: within one frame, and ended by Enter.
    await page.evaluate(() => {
      for (const key of [...'OS4-9008', 'Enter'])
        window.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
    })
    await sees('serial landed on mill-08.')
    expect(page.url()).toContain('/kit')
    await saved()
  })

  it('shows the PoE load against the switch, and the faults of the list', async () => {
    await clickOn(page, '[data-row="new"] [data-column="name"]')
    await page.evaluate(() => {
      const clipboardData = new DataTransfer()
      clipboardData.setData('text/plain', 'bench-1\tbench\tLowbeam L24\t02:10:24:77:00:01')
      document
        .querySelector('[role="grid"]')
        ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
    })
    await sees('of 370 W that bench-1 gives')
    await saved()
  })

  it('keeps a kit card of its own, and says line by line what is wrong with one', async () => {
    await press('Kit cards')
    await sees('What is particular to a model.')
    await press('Ostrel O-40')
    await page.waitForFunction(() =>
      /maker: Ostrelmodel: O-40/.test(document.querySelector('.cm-content')?.textContent ?? ''),
    )
    const card = readFileSync(join(import.meta.dirname, '../../data/kit/ostrel-o-40.yaml'), 'utf8')
    const write = async (text: string) => {
      await page.focus('.cm-content[aria-label="The card as YAML"]')
      await page.keyboard.down('Control')
      await page.keyboard.press('a')
      await page.keyboard.up('Control')
      await page.evaluate((words) => {
        const clipboardData = new DataTransfer()
        clipboardData.setData('text/plain', words)
        document
          .querySelector('.cm-content')
          ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
      }, text)
    }
    await write(card.replace('prefix: 24', 'prefix: 99'))
    await page.waitForFunction(() => /Line 11\s+factory\.prefix/.test(document.body.innerText))
    // It stands in the margin too, and its line is one press away.
    await press('Line 11')
    await page.waitForSelector('.cm-lint-marker-error')
    expect(await page.$eval('.cm-activeLine', (line) => line.textContent)).toContain('prefix: 99')
    // What fits is offered while typing, and taken by the keys of the editor.
    await write(`${card.replace('model: O-40', 'model: O-41')}disc`)
    await page.keyboard.type('o')
    await page.waitForFunction(() =>
      /discovery\s*fields, optional/.test(document.querySelector('.cm-tooltip-autocomplete')?.textContent ?? ''),
    )
    await new Promise((resolve) => setTimeout(resolve, 200))
    await page.keyboard.press('Enter')
    await page.waitForFunction(() => document.querySelector('.cm-content')?.textContent?.endsWith('discovery: '))
    await write(card.replace('model: O-40', 'model: O-41'))
    await press('Keep Ostrel O-41')
    await page.waitForFunction(() => /Ostrel O-41\s+ours/.test(document.body.innerText))
    await press('Back to the list')
    await sees('units on the list')
  })

  it('is planned: addresses with locks, and files that DHCP servers take', async () => {
    await clickOn(page, 'a[data-stage="plan"]')
    await press('Addresses')
    await sees('Addresses are given in the order of the list')
    await type('Address of mill-03', '10.20.0.77')
    await press('Lock it')
    await page.waitForFunction(() => document.body.innerText.includes('locked, let it go'))
    await type('Address of mill-02', '10.20.0.150')
    await press('Lock it')
    await sees('mill-02 is locked to 10.20.0.150, which is in use')
    const kea = JSON.parse(await get('/api/jobs/thornby-mill/addresses/kea?interface=br-lan'))
    expect(kea.Dhcp4['interfaces-config']).toEqual({ interfaces: ['br-lan'] })
    expect(kea.Dhcp4.subnet4[0].reservations).toEqual(
      expect.arrayContaining([{ 'hw-address': '02:4f:52:77:00:03', 'ip-address': '10.20.0.77', hostname: 'mill-03' }]),
    )
    expect(await get('/api/jobs/thornby-mill/addresses/dnsmasq')).toContain(
      'dhcp-host=02:4f:52:77:00:01,10.20.0.20,mill-01',
    )
    expect(await get('/api/jobs/thornby-mill/addresses/hosts')).toMatch(/^10\.20\.0\.20 {2}mill-01$/m)
    await clickOn(page, '::-p-xpath(//tr[@data-unit="mill-02"]//button[contains(., "let it go")])')
    await page.waitForFunction(() => !document.body.innerText.includes('mill-02 is locked to'))
  })

  it('is planned on a floor: placed, dragged, walled, scaled, with the received level under the pointer', async () => {
    await press('Floor')
    await press('Add the first floor')
    // The row of the list was selected: its slip gives way to the floor's own.
    await page.keyboard.press('Escape')
    await sees('Not placed yet')
    const places: readonly (readonly [string, number, number])[] = [
      ['mill-01', 0.2, 0.3],
      ['mill-02', 0.5, 0.3],
      ['mill-03', 0.8, 0.3],
      ['mill-06', 0.2, 0.8],
      ['mill-08', 0.5, 0.8],
      ['yard-01', 0.8, 0.8],
    ]
    for (const [unit, x, y] of places) {
      await clickOn(page, `::-p-xpath(//aside//li/button[normalize-space(.)="${unit}"])`)
      await sees(`click where ${unit} hangs`)
      await clickMap(x, y)
      await page.waitForSelector(`g[data-unit="${unit}"]`)
      // The floor's own slip again, with those that are left.
      await page.keyboard.press('Escape')
    }
    await sees('Every unit with a radio is placed.')

    await press('Draw walls')
    await choose('Material', 'concrete')
    await clickMap(0.35, 0.02)
    await clickMap(0.35, 0.98)
    await page.waitForSelector('line[data-material="concrete"]')
    await page.keyboard.press('Escape')
    await press('Move')

    const channels = () =>
      page.$$eval('g[data-unit] text:first-of-type', (texts) => texts.map((text) => text.textContent))
    const before = await page.$eval('g[data-unit="mill-01"]', (mark) => mark.getAttribute('transform'))
    const mark = await (await page.waitForSelector('g[data-unit="mill-01"] rect'))?.boundingBox()
    if (!mark) throw new Error('no unit')
    await page.mouse.move(mark.x + 8, mark.y + 8)
    await page.mouse.down()
    await page.mouse.move(...(await onMap(0.48, 0.5)), { steps: 8 })
    await page.mouse.up()
    await sees('channels followed in 0.')
    expect(await page.$eval('g[data-unit="mill-01"]', (found) => found.getAttribute('transform'))).not.toBe(before)
    expect((await channels()).every((text) => /^\d+ \/ \d+$/.test(text ?? ''))).toBe(true)
    await sees('GHz: channel')
    await sees('Limit in United Kingdom')

    await clickOn(page, 'label ::-p-text(received level)')
    await page.mouse.move(...(await onMap(0.6, 0.55)))
    await page.waitForFunction(() => /-\d+ dBm from (mill|yard)-0\d/.test(document.body.innerText))

    const isSixtyMetres = () =>
      page.$$eval('aside input', (all) =>
        all.some((input) => Math.abs(Number((input as HTMLInputElement).value) - 60) < 0.6),
      )
    // A click that a busy page has not taken is made again, as a person would.
    await expect
      .poll(async () => {
        await press('Set the scale')
        await clickMap(0, 0.5)
        await clickMap(0.5, 0.5)
        await type('Metres between the two points', '30')
        await clickOn(page, 'form ::-p-xpath(//button[contains(., "Set the scale")][@type="submit"])')
        await page.waitForFunction(() => !document.querySelector('[aria-label="Metres between the two points"]'))
        await page.keyboard.press('Escape')
        return isSixtyMetres()
      })
      .toBe(true)
  })

  it('takes drawings of every kind, and refuses what is none', async () => {
    const drawing = 'input[aria-label="Drawing of the floor"]'
    await file(drawing, 'broken.png', 'this is no picture')
    await sees('broken.png cannot be shown. Take SVG, PNG, JPEG or PDF; save it anew if it is one of them.')
    const shown = () => page.waitForSelector('svg image[href*="/drawing/"]')
    const natural = (): Promise<string> =>
      page.evaluate(
        async () => (await fetch('/api/jobs/thornby-mill/drawing/floor-0')).headers.get('content-type') ?? '',
      )
    await file(
      drawing,
      'mill.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="300"><rect width="600" height="300" ' +
        'fill="#eee"/><script>document.title="no"</script></svg>',
    )
    await shown()
    await expect.poll(natural).toBe('image/svg+xml')
    const headers = await page.evaluate(async () =>
      (await fetch('/api/jobs/thornby-mill/drawing/floor-0')).headers.get('content-security-policy'),
    )
    expect(headers).toContain('sandbox')
    const picture = async (kind: 'png' | 'jpeg'): Promise<Buffer> =>
      Buffer.from(await page.screenshot({ type: kind, clip: { x: 0, y: 0, width: 200, height: 100 } }))
    const pdf = Buffer.from(await page.pdf({ width: '400px', height: '300px', pageRanges: '1' }))
    await file(drawing, 'mill.jpg', await picture('jpeg'))
    await expect.poll(natural).toBe('image/jpeg')
    // A PDF that is chosen while the plan is saved, and takes longer to read than that, is taken in all the same.
    await page.waitForSelector('[role="status"][data-kind="saving"]', { hidden: true })
    let goOn = (): void => {}
    const held = new Promise<void>((resolve) => {
      goOn = resolve
    })
    const hold = async (request: HTTPRequest): Promise<void> => {
      if (request.url().endsWith('/vendor/pdf.min.mjs')) await held
      await request.continue()
    }
    await page.setRequestInterception(true)
    page.on('request', hold)
    await page.select('aside[aria-label^="Slip of"] label:nth-of-type(7) select', 'all-drawn')
    await page.waitForSelector('[role="status"][data-kind="saving"]')
    await file(drawing, 'mill.pdf', pdf)
    await page.waitForSelector('[role="status"][data-kind="saving"]', { hidden: true })
    goOn()
    await expect.poll(natural).toBe('image/png')
    page.off('request', hold)
    await page.setRequestInterception(false)
  })

  it('aligns two drawings by two points that both show, and says where they do not agree', async () => {
    await press('Add a floor')
    await sees('It is not aligned with another drawing')
    /** Two points on the drawing that is shown, in shares of its width, at the same height. */
    const click = async (...shares: readonly [number, number]): Promise<void> => {
      for (const share of shares) await clickMap(share, 0.4)
    }
    await press('Align')
    await sees('click two points that Ground floor shows too')
    // 40 m wide: 20 m between the two.
    await click(0.25, 0.75)
    await sees('Now the same two on Ground floor.')
    await press('Go there')
    await sees('click the same two points as on Floor 1')
    await click(0.2, 0.9)
    await sees('These are the same two points.')
    const align = () =>
      clickOn(page, '::-p-xpath(//div[contains(., "These are the same")]/button[contains(., "Align")])')
    await align()
    await sees('m there: set the scale of one of the drawings first.')
    await press('Click them again')
    // 60 m wide: 25 m and 45 m from its corner.
    await click(25 / 60, 45 / 60)
    await sees('These are the same two points.')
    await align()
    await sees('It is aligned: its corner lies at')
    const words = await page.$eval('aside', (slip) => (slip as HTMLElement).innerText)
    const [, x = '', turned = ''] = /lies at (-?[\d.]+), -?[\d.]+ m of the site(, turned)?/.exec(words) ?? []
    expect(Number(x)).toBeGreaterThan(14)
    expect(Number(x)).toBeLessThan(16)
    expect(turned).toBe('')
    await press('Take this floor away')
    await sees('Every unit with a radio is placed.')
  })

  it('shows bands, neighbours, the laptop and the rules of any country', async () => {
    await press('Bands')
    await sees('5 GHz air, 40 MHz wide')
    await type('Name of the network', 'Next door')
    await type('Channel of the network', '37')
    await type('Level of the network, dBm', '-70')
    await press('Add it')
    await sees('There is no channel 37 of 20 MHz at 5 GHz.')
    await type('Channel of the network', '36')
    await press('Add it')
    await sees('everywhere')
    const levels = ['unit,heard,band,dbm', 'mill-01,mill-02,5,-71', 'mill-02,MILL-01,5,-73', 'mill-01,mill-99,5,-60']
    await drop('levels.csv', 'text/csv', levels.join('\n'), 'A table of levels')
    await sees('line 4: heard: no unit of the list is called "mill-99".')
    await press('Take it')
    await sees('-72 dBm')
    await page.waitForFunction(() => /At 5 GHz the site is [\d.]+ dB (quieter|louder)/.test(document.body.innerText))
    await sees('three pairs of a band are needed for that')
    await press('Laptop')
    await sees('sudo ip address add 10.20.0.250/24 dev')
    await press('Windows')
    await sees('Remove-NetIPAddress')
    await press('Radio rules')
    await page.waitForSelector('[data-drawn="GB"]')
    await choose('Country of the rules', 'JP')
    await page.waitForSelector('[data-drawn="JP"]')
    await sees('radar rules of JP')
    const newer = 'input[aria-label^="A newer regulatory.db"]'
    await file(newer, 'newer.db', 'nonsense')
    await sees('newer.db is not a regulatory database: byte 0')
    const rules = readFileSync(join(import.meta.dirname, '../../data/regulatory.db'))
    await file(newer, 'newer.db', rules)
    await sees('newer.db: 182 countries, nothing changes')
    await sees('It comes without a signature: nothing says whose it is.')
    expect(await page.evaluate(() => document.body.innerText.includes('dropped in on'))).toBe(false)
    await press('Keep the present ones')
    await file(newer, 'newer.db', rules)
    await press('Take these rules into use')
    await sees('from newer.db (')
    await press('Back to those of the program')
    await page.waitForFunction(() => !document.body.innerText.includes('dropped in on'))
  })

  it('has the pictures of its floors on the sheet that is handed over', async () => {
    await clickOn(page, 'a[data-stage="handover"]')
    await page.waitForSelector('[data-picture$=" 5"] image[href^="data:image/png"]')
    await sees('What a phone hears of the loudest unit, worked out from the plan, not measured.')
    // Paper is light: what is printed from the dark scheme must be read too.
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'dark' }])
    await page.waitForFunction(() => document.documentElement.dataset.mantineColorScheme === 'dark')
    const ink = (): Promise<string> => page.$eval('article td .soft', (cell) => getComputedStyle(cell).color)
    const onScreen = await ink()
    await page.emulateMediaType('print')
    expect(onScreen).toBe('rgb(167, 174, 184)')
    const onPaper = await ink()
    await page.emulateMediaType('screen')
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'light' }])
    expect(onPaper).toBe('rgb(86, 96, 108)')
  })

  it('prints its papers in the language that the brief says', async () => {
    await clickOn(page, 'a[data-stage="brief"]')
    await page.waitForSelector('[aria-label^="Language of"]')
    await choose('Language of the client’s papers', 'de')
    await clickOn(page, 'a[data-stage="handover"]')
    await page.waitForSelector('article[lang="de"]')
    const columns = await page.$$eval('article table:first-of-type thead th', (cells) =>
      cells.map((cell) => cell.innerText),
    )
    expect(columns.slice(0, 3)).toEqual(['Einheit', 'Standort', 'Adresse'])
    await sees('nicht in Betrieb genommen')
    await sees('Was ein Telefon von der lautesten Einheit hört')
    await sees('Für die, die Router und Switch betreiben')
  })

  it('is handed over as a file with its secrets sealed, and taken in again', async () => {
    await clickOn(page, 'a[data-stage="brief"]')
    await press('Job as a file')
    await (await page.waitForSelector('input[name="passphrase"]'))?.type('short')
    await sees('10 characters at least: 5 more.')
    const text = await page.evaluate(async () => {
      const body = new FormData()
      body.set('passphrase', 'a long enough one')
      return (await fetch('/api/jobs/thornby-mill/job-file', { method: 'POST', body })).text()
    })
    expect(JSON.parse(text)).toMatchObject({
      format: 'air-muster-job',
      slug: 'thornby-mill',
      secrets: { cipher: 'aes-256-gcm' },
      brief: { country: 'GB' },
    })
    await open('/')
    await sees('Take one in from a file')
    await drop('job.json', 'application/json', text)
    const passphrase = page.locator('[role="dialog"] input[type="password"]')
    await passphrase.fill('the wrong one')
    await press('Take it in')
    await sees('The passphrase does not open the secrets of this file.')
    await passphrase.fill('a long enough one')
    await press('Take it in')
    await page.waitForFunction(() => location.pathname === '/jobs/thornby-mill-2/brief')
    await clickOn(page, 'a[data-stage="plan"]')
    await page.waitForSelector('g[data-unit="mill-01"]')
    await open('/')
    await press('Take one in from a file')
    await file(
      '[role="dialog"] input[type="file"]',
      'bad.json',
      JSON.stringify({ ...JSON.parse(text), secrets: null, brief: { ...JSON.parse(text).brief, country: 'gb' } }),
    )
    await press('Take it in')
    await sees('brief.country: a country is two capital letters, such as NZ')
  })

  it('is deleted when its name is typed, and not before', async () => {
    await open('/')
    const text = await page.evaluate(async () =>
      (await fetch('/api/jobs/thornby-mill/job-file', { method: 'POST', body: new FormData() })).text(),
    )
    const taken = await page.evaluate(
      async (body) => (await fetch('/api/upload/job-file', { method: 'POST', body })).json(),
      JSON.stringify({ ...JSON.parse(text), name: 'To be deleted', slug: 'to-be-deleted', drawings: [] }),
    )
    expect(taken).toEqual({ ok: true, value: 'to-be-deleted' })
    await open('/')
    await clickOn(page, 'button[aria-label="Delete To be deleted"]')
    await sees('Type its name: To be deleted')
    const input = await page.waitForSelector('[role="dialog"] input')
    await input?.type('To be')
    expect(
      await page.$eval('[role="dialog"] button[type="submit"]', (button) => (button as HTMLButtonElement).disabled),
    ).toBe(true)
    await input?.type(' deleted')
    await press('Delete the job')
    await page.waitForFunction(() => !document.body.innerText.includes('To be deleted'))
  })

  it('scrolls and edits two hundred rows without drawing them all', async () => {
    await open('/jobs/thornby-mill-2/kit')
    await sees('units on the list')
    await press('Import a list')
    const hex = (byte: number): string => byte.toString(16).padStart(2, '0')
    const rows = Array.from(
      { length: 200 },
      (_, index) => `bin-${String(index).padStart(3, '0')},02:4f:52:99:00:${hex(index)},Ostrel O-40`,
    )
    await file('input[type="file"][accept*="csv"]', 'many.csv', `name,mac,model\n${rows.join('\n')}\n`)
    await sees('200 to add')
    await press('Take 200 lines')
    await sees('207 units on the list')
    expect(await page.$$eval('[role="row"]', (all) => all.length)).toBeLessThan(60)
    await page.keyboard.press('Escape')
    const drawn = await page.evaluate(async () => {
      const body = document.querySelector('[role="grid"] > div:last-child')
      if (!body) throw new Error('no sheet')
      let most = 0
      for (let step = 1; step <= 15; step += 1) {
        body.scrollTop = step * 380
        await new Promise((resolve) => requestAnimationFrame(resolve))
        most = Math.max(most, document.querySelectorAll('[role="row"]').length)
      }
      return most
    })
    // How long a step takes is in the benchmarks; here, that it never draws everything.
    expect(drawn).toBeLessThan(60)
    await page.waitForSelector('[data-row="bin-170"]')
    await clickOn(page, '[data-row="bin-170"] [data-column="location"]')
    await page.keyboard.type('top')
    await page.keyboard.press('Enter')
    await page.waitForFunction(
      () => document.querySelector('[data-row="bin-170"] [data-column="location"]')?.textContent === 'top',
    )
    await page.waitForFunction(() => document.querySelector('[role="status"]')?.textContent === 'Saved')
  })

  it('complained about nothing in the browser', () => {
    expect(site.complaints.filter((complaint) => !/favicon/.test(complaint))).toEqual([])
  })
})
