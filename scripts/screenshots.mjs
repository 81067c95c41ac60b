// npm run screenshots: one picture of each main view from the demo, into docs/screenshots.
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureDebian, ensureNodeModules } from './lib/packages.mjs'
import { root } from './lib/root.mjs'

await ensureDebian('mariadb', 'chromium')
await ensureNodeModules()
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
  await page.goto(`${stack.url}/?key=${stack.key}`)
  const view = async (
    name,
    { width = 1280, height = 800, scheme = 'light', job = 'port-ellery', stage, before } = {},
  ) => {
    await page.setViewport({ width, height })
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }])
    if (stage) await page.goto(`${stack.url}/jobs/${job}/${stage}`, { waitUntil: 'load' })
    await before?.()
    await new Promise((resolve) => setTimeout(resolve, 400))
    await page.screenshot({ path: join(out, `${name}.png`) })
  }
  const row = (unit) => page.click(`tr[data-unit="${unit}"]`)
  const whole = { job: 'port-ellery-whole' }
  const unit = async (name) => {
    await page.waitForSelector(`g[data-unit="${name}"]`)
    await page.$eval(`g[data-unit="${name}"]`, (mark) => mark.focus())
    await page.keyboard.press('Enter')
    await page.waitForFunction(() => document.body.innerText.includes('would be next'))
  }
  await view('brief', { ...whole, stage: 'brief' })
  await view('brief-phone', { ...whole, stage: 'brief', width: 390, height: 844, scheme: 'dark' })
  await view('kit', {
    ...whole,
    stage: 'kit',
    before: async () => {
      await page.waitForSelector('[data-row="hall-06"] [data-column="model"]')
      await page.click('[data-row="hall-06"] [data-column="model"]')
    },
  })
  await view('kit-card', { ...whole, stage: 'kit/cards?model=Brackwater%20B7' })
  await view('plan', { ...whole, stage: 'plan', before: () => unit('hall-08') })
  await view('plan-level', {
    ...whole,
    stage: 'plan',
    scheme: 'dark',
    before: async () => {
      await unit('hall-05')
      await page.click('label ::-p-text(received level)')
      await page.waitForSelector('[aria-label^="Received level"]')
      const box = await (await page.waitForSelector('svg[role="img"] rect')).boundingBox()
      await page.mouse.move(box.x + box.width * 0.62, box.y + box.height * 0.9)
    },
  })
  await view('plan-band', { ...whole, stage: 'plan?view=band', before: () => page.click('tr[data-unit="hall-04"]') })
  await view('plan-link', { ...whole, stage: 'plan?view=links' })
  await view('plan-rules', {
    ...whole,
    stage: 'plan?view=rules&country=GB',
    before: () => page.waitForSelector('[data-drawn="GB"]'),
  })
  await view('bench', {
    stage: 'bench',
    before: () => page.waitForFunction(() => document.body.innerText.includes('4 units on the wire')),
  })
  await page.evaluate(() =>
    [...document.querySelectorAll('button')].find((each) => each.textContent.startsWith('Muster the'))?.click(),
  )
  await page.waitForFunction(() => document.body.innerText.includes('Mustering'))
  await view('muster', {
    stage: 'muster',
    before: async () => {
      await page.waitForSelector('[data-kind="waiting"]', { timeout: 30_000 })
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
      await row('booth-01')
    },
  })
  await view('handover', { stage: 'handover' })
  if (process.argv[2]) {
    for (const stage of ['brief', 'kit', 'plan', 'bench', 'handover']) {
      await view(`${stage}-dark`, { ...whole, stage, scheme: 'dark' })
      await view(`${stage}-phone`, { ...whole, stage, width: 390, height: 844 })
    }
  }
} finally {
  await browser.close()
  await stack.stop()
  rmSync(folder, { recursive: true, force: true })
}
