/**
 * Every reason for which an access point does not come to its controller, provoked; in the long tests read on the page.
 */

import { rmSync } from 'node:fs'
import type { Page } from 'puppeteer-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
// @ts-expect-error the same
import { buildSiteIfStale } from '../../scripts/lib/site.mjs'
// @ts-expect-error the same
import { startPages } from '../../scripts/lib/stack.mjs'
import type { JobDocument } from '../../src/core/job/job-document'
import { answers } from '../../src/core/muster/roll'
import { tarnhelmC1, tarnhelmT2 } from '../../src/lab/device/sheet'
import type { StandInSheet } from '../../src/lab/device/stand-in-sheet'
import { heldWords } from '../../src/words/en/held'
import { sentence } from '../../src/words/en/sentence'
import { type Bench, openBench } from '../support/bench'
import { blankPoint } from '../support/blank-point'
import { demoBrief } from '../support/data'
import { isLong } from '../support/long'
import { passingFolder } from '../support/passing-folder'
import { letIn, openBrowser, type PageSource } from '../support/site'

const macOf = (index: number): string => `02:7a:02:10:6a:${String(index + 10)}`
const [rackMac, strangerMac] = ['02:7a:c1:10:6a:01', '02:7a:c1:99:99:01']
const dhcp = { prefix: 24, first: '10.44.8.100', last: '10.44.8.199', gateway: '10.44.8.1', dns: '10.44.8.1' }
const rackIs = 'rack turns it away: '

/** One access point for each reason, in a box that provokes it. */
const boxes: Readonly<Record<string, { sheet?: Partial<StandInSheet>; says: string; hands: string }>> = {
  'sold-elsewhere': {
    sheet: { soldFor: 'US' },
    says: `${rackIs}it is not made for this country.`,
    hands: 'Compare its model with the country of the brief.',
  },
  'no-image': {
    sheet: { firmware: '6.9.0', losesImages: true },
    says: `${rackIs}its image does not load.`,
    hands: 'a slow link takes minutes',
  },
  'slow-image': {
    sheet: { firmware: '6.9.0', timing: { ...tarnhelmT2.timing, image: 3600 } },
    says: 'It is still loading its image, leave it powered after 900 s.',
    hands: 'Leave it powered for two minutes more',
  },
  'odd-certificate': {
    sheet: { certificate: 'unknown' },
    says: `${rackIs}its certificate is by nobody that the controller trusts.`,
    hands: 'Compare its maker and model',
  },
  'set-up-before': {
    sheet: { keepsLogin: true },
    says: `${rackIs}it has another login than out of its box.`,
    hands: 'Reset it: somebody has set it up before.',
  },
  'no-way': {
    sheet: { factory: { ...tarnhelmT2.factory, address: '10.44.8.201', prefix: 28, asksDhcp: false } },
    says: 'It does not find its controller rack.',
    hands: 'DHCP tells it the address (option 138 or 43)',
  },
  'taken-off': {
    sheet: { firmware: '6.9.0', timing: { ...tarnhelmT2.timing, image: 3600 } },
    says: `${rackIs}its MAC is not on the list.`,
    hands: 'Compare the MAC on its label with the kit list.',
  },
  'taken-away': {
    says: 'It does not join rack: another controller, old-rack at 10.44.8.250, answers beside it.',
    hands: 'take that controller off this network',
  },
  // It answers at first, and no more when its controller has lost the time.
  works: {
    says: `${rackIs}by its clock the certificate is not valid.`,
    hands: 'See that the controller reaches its time server',
  },
  'last-in': {
    says: `${rackIs}no licence is left for it.`,
    hands: 'get it another licence',
  },
}
const names = Object.keys(boxes)
const indexOf = (name: string): number => names.indexOf(name)

/** They come when the others have had their turn. */
const late = ['works', 'slow-image', 'last-in', 'taken-away']

const silentTimeServers: string[] = []

let browser: PageSource | undefined
let bench: Bench
let pages: { url: string; key: string; child: { stop(): Promise<unknown> } } | undefined
let page: Page
const folder = passingFolder('air-muster-joins-')

const change = (job: JobDocument): void => {
  const [unit] = job.units
  if (!unit) return
  const one = (name: string, model: string, mac: string, port: number) => ({
    ...unit,
    id: name,
    name,
    model,
    mac,
    serial: '',
    port,
    locks: {},
  })
  job.units = [
    one('rack', 'Tarnhelm C1', rackMac, 1),
    ...names.map((name, index) => one(name, 'Tarnhelm T2', macOf(index), index + 2)),
  ]
  job.brief = { ...job.brief, networks: demoBrief.networks }
}

beforeAll(async () => {
  const variants = new Map<string, StandInSheet>([
    ...names.map((name) => [`box of ${name}`, { ...tarnhelmT2, ...boxes[name]?.sheet }] as const),
    // Two licences: those that hold them leave none for the last.
    ['small rack', { ...tarnhelmC1, mostPoints: 2 }],
  ])
  const shelf = [
    { model: 'Tarnhelm C1', mac: strangerMac, serial: '' },
    { model: 'small rack', mac: rackMac, serial: '' },
    ...names.map((name) => ({ model: `box of ${name}`, mac: macOf(indexOf(name)), serial: '' })),
  ]
  bench = await openBench({ change, pace: 300, lab: { dhcp, variants, shelf, silentTimeServers } })
  const stranger = bench.lab.plugged(strangerMac).unit
  const wired = { method: 'static', address: '10.44.8.250', prefix: 24, vlan: null } as const
  stranger.configure({
    ...stranger.configured,
    name: 'old-rack',
    country: 'NZ',
    wired,
    points: [{ ...blankPoint, mac: macOf(indexOf('taken-away')), name: 'theirs' }],
  })
  stranger.save()
  bench.lab.unplug(strangerMac)
  if (!isLong) return
  await bundleIfStale()
  buildSiteIfStale()
  browser = await openBrowser()
  pages = await startPages({
    folder,
    env: { ...bench.env, AIR_MUSTER_FOLDER: folder, NODE_ENV: 'production' },
    wantedPort: 0,
  })
  page = await browser.newPage()
  await letIn(page, pages as never)
})
afterAll(async () => {
  await browser?.close()
  await pages?.child.stop()
  await bench?.close()
  rmSync(folder, { recursive: true, force: true })
})

it('says of each why it does not come, and what the hands do', async () => {
  bench.startRunner()
  await bench.order(['rack', ...names.filter((name) => !late.includes(name))])
  await expect
    .poll(
      async () =>
        (await bench.events()).some(
          ({ event }) =>
            event.kind === 'log' &&
            event.unit === 'taken-off' &&
            sentence(event.told) === 'rack: loading its image, leave it powered',
        ),
      { interval: 5 },
    )
    .toBe(true)
  const rack = bench.lab.plugged(rackMac).unit
  const mac = macOf(indexOf('taken-off'))
  rack.configure({ ...rack.configured, points: rack.configured.points.filter((point) => point.mac !== mac) })
  await bench.settled()
  // The licences go to two others, and one waits for nothing.
  await bench.order(['works', 'slow-image'])
  await bench.settled()
  bench.lab.plugIn(strangerMac)
  await expect.poll(() => bench.lab.plugged(strangerMac).unit.phase).toBe('up')
  bench.lab.unplug(macOf(indexOf('taken-away')))
  bench.lab.plugIn(macOf(indexOf('taken-away')))
  await bench.order(['last-in', 'taken-away'])
  await bench.settled()
  expect(answers((await bench.roll()).rows.get('works'))).toBe(true)
  silentTimeServers.push(...demoBrief.ntpServers)
  bench.lab.unplug(rackMac)
  bench.lab.plugIn(rackMac)
  await expect.poll(() => rack.phase).toBe('up')
  await bench.order(['works'])
  await bench.settled()
  if (!isLong) {
    const { rows } = await bench.roll()
    for (const [name, { says, hands }] of Object.entries(boxes)) {
      const held = Object.values(rows.get(name)?.steps ?? {}).find((step) => step.kind === 'held')
      const words = held && heldWords(held)
      expect(`${words?.why} ${words?.hands}`, name).toContain(says)
      expect(`${words?.why} ${words?.hands}`, name).toContain(hands)
    }
    return
  }
  await page.goto(`${pages?.url}/jobs/${bench.job.slug}/muster`, { waitUntil: 'load' })
  for (const [name, { says, hands }] of Object.entries(boxes)) {
    await page.locator(`tr[data-unit="${name}"]`).click()
    await page.waitForFunction((unit) => document.getElementById('slip')?.innerText.includes(unit), {}, name)
    const seen = await page.evaluate(() => document.getElementById('slip')?.innerText.replace(/\s+/g, ' ') ?? '')
    expect(seen, name).toContain(says)
    expect(seen, name).toContain(hands)
  }
})
