// npm run screenshots: one picture of each main view from the demo, into docs/screenshots.
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureDebian, ensureNodeModules } from './lib/packages.mjs'
import { root } from './lib/root.mjs'

ensureDebian('mariadb', 'chromium')
ensureNodeModules()
await import('./build.mjs')
const { launchBrowser } = await import('./lib/browser.mjs')
const { loadDemoJob } = await import('./lib/demo-job.mjs')
const { startStack } = await import('./lib/stack.mjs')

const out = process.argv[2] ?? join(root, 'docs/screenshots')
mkdirSync(out, { recursive: true })
const folder = mkdtempSync(join(tmpdir(), 'air-muster-'))
const stack = await startStack({ folder, pace: 30 })
const browser = await launchBrowser()
try {
  await loadDemoJob(stack.env)
  const page = await browser.newPage()
  const view = async (name, { width = 1280, height = 800, scheme = 'light', stage, before } = {}) => {
    await page.setViewport({ width, height })
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }])
    if (stage) await page.goto(`${stack.url}/jobs/port-ellery/${stage}`, { waitUntil: 'load' })
    await before?.()
    await new Promise((resolve) => setTimeout(resolve, 400))
    await page.screenshot({ path: join(out, `${name}.png`) })
  }
  const row = (unit) => page.click(`tr[data-unit="${unit}"]`)
  await view('brief', { stage: 'brief' })
  await view('kit', { stage: 'kit', before: () => row('hall-02') })
  await view('plan', { stage: 'plan', before: () => row('hall-03') })
  await view('bench', { stage: 'bench', before: () => page.waitForFunction(() => document.body.innerText.includes('4 units share')) })
  await page.evaluate(() => [...document.querySelectorAll('button')].find((each) => each.textContent.startsWith('Muster the'))?.click())
  await page.waitForFunction(() => document.body.innerText.includes('Mustering'))
  await view('muster', {
    stage: 'muster',
    before: async () => {
      await page.waitForSelector('[data-is="waiting"]', { timeout: 30_000 })
      await row('hall-03')
    },
  })
  await view('muster-phone', { stage: 'muster', width: 390, height: 844 })
  await page.waitForFunction(() => document.body.innerText.includes('4 of 4 answer'), { timeout: 60_000 })
  await view('muster-dark', {
    stage: 'muster',
    scheme: 'dark',
    before: async () => {
      await page.setViewport({ width: 1280, height: 800 })
      await row('hall-01')
    },
  })
  await view('handover', { stage: 'handover' })
  if (process.argv[2]) {
    for (const stage of ['brief', 'kit', 'plan', 'bench', 'handover']) {
      await view(`${stage}-dark`, { stage, scheme: 'dark' })
      await view(`${stage}-phone`, { stage, width: 390, height: 844 })
    }
  }
} finally {
  await browser.close()
  await stack.stop()
  rmSync(folder, { recursive: true, force: true })
}
