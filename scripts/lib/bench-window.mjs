// How long it takes from a press to the changed picture, while four windows are open: through pages, runner and lab.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { launchBrowser } from './browser.mjs'
import { demoSizes, loadDemoJob } from './demo-job.mjs'
import { median } from './median.mjs'
import { startStack } from './stack.mjs'

await import('../build.mjs')
const units = ['desk-01', 'desk-02', 'desk-03', 'desk-04']
const presses = 25
/** Every press waits until the one before is over, and a little more, as a hand does. */
const betweenMs = 120

const folder = mkdtempSync(join(tmpdir(), 'air-muster-bench-'))
const stack = await startStack({ folder, pace: 30, shelf: demoSizes.whole.shelf })
const browser = await launchBrowser()
try {
  await loadDemoJob(stack.env, ['port-ellery-whole'])
  const first = await browser.newPage()
  await first.goto(`${stack.url}/?key=${stack.key}`)
  const pages = await Promise.all(
    units.map(async (unit) => {
      const page = await browser.newPage()
      await page.setViewport({ width: 1280, height: 800 })
      const address = `${stack.url}/jobs/port-ellery-whole/bench/${unit}`
      for (;;) {
        await page.goto(address)
        const isOpen = () => document.querySelector('input[name="address"]')?.value.startsWith('http')
        if (await page.waitForFunction(isOpen, { timeout: 5000 }).catch(() => undefined)) return page
      }
    }),
  )
  const took = []
  for (const page of pages) {
    await page.bringToFront()
    const canvas = await page.$('[role="application"]')
    const { x, y, width } = await canvas.boundingBox()
    const scale = width / 1024
    await page.mouse.click(x + 150 * scale, y + 26 * scale)
    for (let press = 0; press < presses; press += 1) {
      await new Promise((resolve) => setTimeout(resolve, betweenMs))
      const shown = () => page.$eval('header ~ section [role="status"]', (status) => status.textContent)
      const before = await shown()
      await page.keyboard.press('abcdefghij'[press % 10])
      // What is shown anew may be the same number: the picture comes within a second, or is counted as one.
      const end = Date.now() + 1000
      while ((await shown()) === before && Date.now() < end);
      took.push(Number.parseInt(await shown(), 10))
    }
  }
  const sorted = took.toSorted((a, b) => a - b)
  console.log(
    `${units.length} windows open: from a press to the changed picture ${median(took)} ms at the median of ` +
      `${took.length}, ` +
      `${sorted[Math.floor(0.95 * sorted.length)]} ms for 95 of 100`,
  )
} finally {
  await browser.close()
  await stack.stop()
  rmSync(folder, { recursive: true, force: true })
}
