// A kit list of 500 rows in Chromium: how long a frame lasts while it is scrolled, and how long an edit keeps the hand
// waiting.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { parse, stringify } from 'yaml'
import { launchBrowser } from './browser.mjs'
import { bundleIfStale } from './bundle.mjs'
import { musterCommand } from './demo-job.mjs'
import { root } from './root.mjs'
import { buildSiteIfStale } from './site.mjs'
import { startStack } from './stack.mjs'

const rows = 500

/** The demo's first job with 500 units in a larger network. */
function job() {
  const document = parse(readFileSync(join(root, 'data/demo/port-ellery.yaml'), 'utf8'))
  const { brief, units } = document
  const hex = (byte) => byte.toString(16).padStart(2, '0')
  return stringify({
    ...document,
    brief: {
      ...brief,
      management: {
        ...brief.management,
        cidr: '10.44.0.0/20',
        gateway: '10.44.0.1',
        dnsServers: ['10.44.0.1'],
        dhcpPool: null,
      },
    },
    units: Array.from({ length: rows }, (_, index) => ({
      id: `unit-${index}`,
      name: `unit-${String(index + 1).padStart(3, '0')}`,
      place: `place ${index + 1}`,
      model: units[0].model,
      mac: `02:4f:52:aa:${hex(index >> 8)}:${hex(index & 255)}`,
      serial: `S-${index + 1}`,
      port: null,
    })),
  })
}

/** In the page: what the browser itself says of its tasks and events. */
function watch() {
  window.watched = { tasks: [], events: [] }
  new PerformanceObserver((list) =>
    window.watched.tasks.push(...list.getEntries().map((entry) => entry.duration)),
  ).observe({ entryTypes: ['longtask'] })
  new PerformanceObserver((list) =>
    window.watched.events.push(...list.getEntries().map((entry) => entry.duration)),
  ).observe({ type: 'event', durationThreshold: 16 })
}

/** In the page: scrolls the list from top to bottom, a step each frame; the length of each frame, ms. */
async function scrollThrough() {
  const list = [...document.querySelectorAll('*')].find(
    (element) => element.scrollHeight > 5000 && getComputedStyle(element).overflowY !== 'visible',
  )
  const frames = []
  let before = performance.now()
  while (list.scrollTop + list.clientHeight < list.scrollHeight - 1) {
    list.scrollTop += 130
    await new Promise((resolve) => requestAnimationFrame(resolve))
    frames.push(performance.now() - before)
    before = performance.now()
  }
  list.scrollTop = 0
  return frames
}

const folder = mkdtempSync(join(tmpdir(), 'air-muster-bench-'))
await bundleIfStale()
buildSiteIfStale()
const stack = await startStack({ folder, pace: 60 })
const browser = await launchBrowser()
try {
  const file = join(folder, 'job.yaml')
  writeFileSync(file, job())
  await musterCommand(stack.env, ['load', file], 'back')
  const page = await browser.newPage()
  await page.setViewport({ width: 1280, height: 800 })
  await page.evaluateOnNewDocument(watch)
  await page.goto(`${stack.url}/?key=${stack.key}`)
  await page.goto(`${stack.url}/jobs/port-ellery/kit`, { waitUntil: 'load' })
  await page.waitForSelector('[role="row"][aria-rowindex="3"]')
  await new Promise((resolve) => setTimeout(resolve, 1000))
  const saved = () => page.waitForFunction(() => document.querySelector('[role="status"]')?.textContent === 'Saved')
  const cell = async (row) => {
    const [name, place] = await page.$$(`[role="row"][aria-rowindex="${row}"] [role="gridcell"]`)
    return place ?? name
  }
  /** Does something, and gives the longest event and the longest task that the browser has seen meanwhile, ms. */
  const during = async (act) => {
    await page.evaluate(() => Object.assign(window.watched, { tasks: [], events: [] }))
    await act()
    // Event entries are told at the end of a frame, some time later.
    await new Promise((resolve) => setTimeout(resolve, 500))
    return page.evaluate(() => ({
      event: Math.max(0, ...window.watched.events),
      task: Math.max(0, ...window.watched.tasks),
    }))
  }
  const frames = (await page.evaluate(scrollThrough)).toSorted((a, b) => a - b)
  const at = (share) => frames[Math.min(frames.length - 1, Math.floor(frames.length * share))]
  const typed = await during(async () => {
    await (await cell(3)).click()
    await page.keyboard.type('gate nine', { delay: 40 })
    await page.keyboard.press('Enter')
    await saved()
  })
  const filled = await during(async () => {
    await (await cell(3)).click()
    await page.keyboard.down('Shift')
    for (let row = 0; row < 100; row += 1) await page.keyboard.press('ArrowDown')
    await page.keyboard.up('Shift')
    await page.keyboard.down('Control')
    await page.keyboard.press('KeyD')
    await page.keyboard.up('Control')
    await page.waitForFunction(() =>
      document.querySelector('[role="row"][aria-rowindex="100"]')?.textContent.includes('gate nine'),
    )
    await saved()
  })
  const line = (name, words) => process.stdout.write(`${name.padEnd(46)} ${words}\n`)
  const lag = ({ event, task }) =>
    `longest event ${event.toFixed(0)} ms, longest task ${task === 0 ? 'under 50' : task.toFixed(0)} ms`
  line(`${cpus().length} cores, a kit list of ${rows} rows`, '')
  line(
    'scrolled from top to bottom',
    `${frames.length} frames, median ${at(0.5).toFixed(1)} ms, 95 of 100 within ${at(0.95).toFixed(1)} ms`,
  )
  line('a cell typed, and saved', lag(typed))
  line('100 cells chosen by keys, filled down and saved', lag(filled))
} finally {
  await browser.close()
  await stack.stop()
  rmSync(folder, { recursive: true, force: true })
}
