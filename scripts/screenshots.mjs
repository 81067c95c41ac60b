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
const { demoSizes, loadDemoJob, musterCommand } = await import('./lib/demo-job.mjs')
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
  const everything = { job: 'port-ellery-whole' }
  const unit = async (name) => {
    await page.waitForSelector(`g[data-unit="${name}"]`)
    await page.$eval(`g[data-unit="${name}"]`, (mark) => mark.focus())
    await page.keyboard.press('Enter')
    await page.waitForFunction(() => document.body.innerText.includes('Next would be'))
  }
  await view('brief', { ...everything, stage: 'brief' })
  await view('brief-phone', { ...everything, stage: 'brief', width: 390, height: 844, scheme: 'dark' })
  await view('kit', {
    ...everything,
    stage: 'kit',
    before: async () => {
      await page.waitForSelector('[data-row="hall-06"] [data-column="model"]')
      await page.click('[data-row="hall-06"] [data-column="model"]')
    },
  })
  await view('kit-card', { ...everything, stage: 'kit/cards?model=Brackwater%20B7' })
  await view('plan', { ...everything, stage: 'plan', before: () => unit('hall-08') })
  await view('plan-level', {
    ...everything,
    stage: 'plan',
    scheme: 'dark',
    before: async () => {
      await unit('hall-05')
      await page.click('label ::-p-text(received level)')
      await page.waitForSelector('[aria-label^="received level"]')
      const box = await (await page.waitForSelector('svg[data-floor] rect')).boundingBox()
      await page.mouse.move(box.x + box.width * 0.62, box.y + box.height * 0.9)
    },
  })
  await view('plan-band', {
    ...everything,
    stage: 'plan?view=band',
    before: () => page.click('tr[data-unit="hall-04"]'),
  })
  await view('plan-link', { ...everything, stage: 'plan?view=links' })
  await view('plan-rules', {
    ...everything,
    stage: 'plan?view=rules&country=GB',
    before: () => page.waitForSelector('[data-drawn="GB"]'),
  })
  await view('bench', {
    stage: 'bench',
    before: async () => {
      await page.waitForFunction(() => document.body.innerText.includes('4 units on the wire'))
      await page.click('tr[data-mac]')
    },
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
      await view(`${stage}-dark`, { ...everything, stage, scheme: 'dark' })
      await view(`${stage}-phone`, { ...everything, stage, width: 390, height: 844 })
    }
  }
} finally {
  await stack.stop()
  rmSync(folder, { recursive: true, force: true })
}

/** The window on a unit with pages, somebody at its sign-in; closed afterwards, since a muster would wait for it. */
async function window(page, address) {
  await page.goto(address, { waitUntil: 'load' })
  await page.waitForFunction(() => document.querySelector('input[name="address"]')?.value.startsWith('http'))
  const { x, y, width } = await (await page.$('[role="application"]')).boundingBox()
  await page.mouse.click(x + (150 * width) / 1024, y + (26 * width) / 1024)
  const press = (words) => page.locator(`::-p-xpath(//button[normalize-space(.)="${words}"])`).click()
  await press('Put in the name')
  await page.keyboard.press('Tab')
  await page.click('[data-setting="network.passphrase"] button')
  await new Promise((resolve) => setTimeout(resolve, 1000))
  await page.screenshot({ path: join(out, 'window.png') })
  await press('Close the window')
  await page.waitForFunction(() => document.body.innerText.includes('The window is closed.'))
}

// All of Port Ellery: a controller with its units, and units that are turned page by page.
const second = mkdtempSync(join(tmpdir(), 'air-muster-'))
const whole = await startStack({ folder: second, pace: 60, shelf: demoSizes.whole.shelf })
try {
  const { jobs } = demoSizes.whole
  const [job] = jobs
  await loadDemoJob(whole.env, jobs)
  await new Promise((resolve) => setTimeout(resolve, 10_000))
  const page = await browser.newPage()
  await page.setViewport({ width: 1280, height: 800 })
  await page.goto(`${whole.url}/jobs/${job}/muster?key=${whole.key}`, { waitUntil: 'load' })
  await window(page, `${whole.url}/jobs/${job}/bench/desk-01`)
  await page.goto(`${whole.url}/jobs/${job}/muster`, { waitUntil: 'load' })
  const over = musterCommand(whole.env, ['run', job, '--wait'], 'back')
  await page.waitForSelector('tr[data-unit="office-02"]')
  await page.click('tr[data-unit="office-02"]')
  await page.waitForFunction(() => document.body.innerText.includes('control-01 comes first'))
  await new Promise((resolve) => setTimeout(resolve, 5000))
  // So many units at sixty times the pace of life are much for a small machine: the picture is of a page that keeps up.
  await page.waitForFunction(() => !document.body.innerText.includes('No news from Air Muster'))
  await page.screenshot({ path: join(out, 'muster-whole.png') })
  await over
} finally {
  await whole.stop()
  rmSync(second, { recursive: true, force: true })
}

/** The first of four boxes that nobody has described, while somebody shows how it is set. */
async function showing(page, address) {
  await page.goto(address, { waitUntil: 'load' })
  const press = (words) => page.locator(`::-p-xpath(//button[normalize-space(.)="${words}"])`).click()
  // Whoever has heard it knows where it answers; else its label says.
  const asked = 'main input[name="at"]'
  await page.waitForFunction(
    (at) => document.querySelector(at) || document.querySelector('input[name="address"]')?.value.startsWith('http'),
    {},
    asked,
  )
  if (await page.$(asked)) {
    await page.type(asked, '192.168.18.1')
    await press('Open it there')
  }
  await page.waitForFunction(() => document.querySelector('input[name="address"]')?.value.startsWith('http'))
  await press('Showing')
  await press('Show how this model is set')
  await page.waitForFunction(() => document.body.innerText.includes('Nothing was done yet.'))
  const { x, y, width } = await (await page.$('[role="application"]')).boundingBox()
  // Country and time zone from their lists, then on to who looks after it.
  for (const [left, top] of [
    [109, 128],
    [915, 96],
    [128, 173],
    [924, 58],
    [40, 259],
    [200, 128],
  ]) {
    await page.mouse.click(x + (left * width) / 1024, y + (top * width) / 1024)
    await new Promise((resolve) => setTimeout(resolve, 1000))
  }
  await page.keyboard.type('somebody', { delay: 50 })
  await page.keyboard.press('Tab')
  await page.waitForSelector('li[data-kind="unknown"]')
  await page.screenshot({ path: join(out, 'showing.png') })
}

const third = mkdtempSync(join(tmpdir(), 'air-muster-'))
const boxes = await startStack({ folder: third, pace: 10, shelf: demoSizes.boxes.shelf })
try {
  const [job] = demoSizes.boxes.jobs
  await loadDemoJob(boxes.env, demoSizes.boxes.jobs)
  // They start, as long as they take.
  await new Promise((resolve) => setTimeout(resolve, 12_000))
  const page = await browser.newPage()
  await page.setViewport({ width: 1280, height: 800 })
  await page.goto(`${boxes.url}/jobs/${job}/bench?key=${boxes.key}`, { waitUntil: 'load' })
  await showing(page, `${boxes.url}/jobs/${job}/bench/pilot-01`)
} finally {
  await browser.close()
  await boxes.stop()
  rmSync(third, { recursive: true, force: true })
}
