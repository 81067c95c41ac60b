// Twenty musters, in each of which one part of the installation is killed at a random moment.
import { mkdtempSync, rmSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { launchBrowser } from './browser.mjs'
import { bundleIfStale } from './bundle.mjs'
import { killDuringMuster, rest, seeded } from './chaos.mjs'
import { loadDemoJob } from './demo-job.mjs'
import { buildSiteIfStale } from './site.mjs'
import { startStack } from './stack.mjs'

const rounds = 20
/** A muster of four takes about this long at pace 60. */
const longestMs = 4200
const parts = ['runner', 'pages', 'lab', 'database']
const seed = Number(process.env.AIR_MUSTER_SEED ?? Date.now() % 100_000)

await bundleIfStale()
buildSiteIfStale()
const folder = mkdtempSync(join(tmpdir(), 'air-muster-faults-'))
const stack = await startStack({ folder, pace: 60, wantedPort: 0 })
const browser = await launchBrowser()
const random = seeded(seed)
process.stdout.write(`${cpus().length} cores, lab at pace 60, seed ${seed}\n`)
try {
  await loadDemoJob(stack.env, ['port-ellery'])
  const page = await browser.newPage()
  page.setDefaultTimeout(300_000)
  await page.goto(`${stack.url}/jobs/port-ellery/muster?key=${stack.key}`)
  const longest = { said: 0, answered: 0 }
  for (let round = 0; round < rounds; round += 1) {
    const part = parts[round % parts.length]
    const afterMs = Math.round(random() * longestMs)
    const { saidAfterMs, answeredAfterMs } = await killDuringMuster({ stack, page, part, moment: () => rest(afterMs) })
    longest.said = Math.max(longest.said, saidAfterMs)
    longest.answered = Math.max(longest.answered, answeredAfterMs)
    process.stdout.write(
      `${String(round + 1).padStart(2)}  ${part.padEnd(9)} killed after ${(afterMs / 1000).toFixed(1)} s: ` +
        `said after ${(saidAfterMs / 1000).toFixed(1)} s, all answer after ` +
        `${(answeredAfterMs / 1000).toFixed(1)} s\n`,
    )
  }
  process.stdout.write(
    `${rounds} of ${rounds}: every unit answers. Said after ${(longest.said / 1000).toFixed(1)} s at the ` +
      `latest, answered after ${(longest.answered / 1000).toFixed(1)} s.\n`,
  )
} finally {
  await browser.close()
  await stack.stop()
  rmSync(folder, { recursive: true, force: true })
}
