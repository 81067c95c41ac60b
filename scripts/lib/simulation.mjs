// Plays simulated musters in worker threads, from one bundle: a thread that would read TypeScript itself is slower.
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { bundling, root } from './bundle.mjs'

/** A small change to one file, as a plugin of the bundler. */
const planting = ({ file, find, put }) => ({
  name: 'planted',
  setup({ onLoad }) {
    let planted = false
    onLoad({ filter: new RegExp(`${file.replaceAll('.', '\\.')}$`) }, ({ path }) => {
      const text = readFileSync(path, 'utf8')
      if (text.split(find).length !== 2) throw new Error(`${file} does not hold this once: ${find}`)
      planted = true
      return { contents: text.replace(find, () => put), loader: 'ts' }
    })
    return () => planted
  },
})

/** @returns the bundle, and the way to be rid of it */
async function bundled(planted) {
  const { build } = await import('esbuild')
  // Below the project, where it finds the modules that are not bundled.
  mkdirSync(join(root, 'dist'), { recursive: true })
  const folder = mkdtempSync(join(root, 'dist/simulation-'))
  const file = join(folder, 'worker.mjs')
  await build({
    ...bundling,
    entryPoints: ['tests/simulation/worker.ts'],
    outfile: file,
    plugins: planted ? [...bundling.plugins, planting(planted)] : bundling.plugins,
  })
  return { file, remove: () => rmSync(folder, { recursive: true, force: true }) }
}

const env = { ...process.env, AIR_MUSTER_ROOT: root }

function inThread(file, workerData, told) {
  return new Promise((resolve, reject) => {
    const worker = new Worker(file, { workerData, env, resourceLimits: { maxYoungGenerationSizeMb: 16 } })
    worker.on('message', (message) => told(message, worker))
    worker.on('error', reject)
    worker.on('exit', resolve)
  })
}

const added = (sum, tally) => {
  for (const name of ['runs', 'musters', 'leapt', 'events']) sum[name] += tally[name]
  for (const [what, times] of Object.entries(tally.counts)) sum.counts[what] = (sum.counts[what] ?? 0) + times
  sum.failures.push(...tally.failures)
}

/**
 * Plays the seeds from `first` on.
 *
 * @param stopAt    `first-failure` or `end`
 * @param seconds   ends early after so long
 * @param progress  told the sum so far
 * @returns what they came to, with the seconds that it took
 */
export async function simulate({
  first = 1,
  runs,
  threads = availableParallelism(),
  stopAt = 'end',
  seconds = Number.POSITIVE_INFINITY,
  planted,
  progress = () => {},
}) {
  const { file, remove } = await bundled(planted)
  const began = performance.now()
  const sum = { runs: 0, musters: 0, leapt: 0, events: 0, counts: {}, failures: [] }
  const workers = new Set()
  let over = false
  const told = (tally, worker) => {
    workers.add(worker)
    // One that tells for the first time after that is ended too.
    if (over) return void worker.terminate()
    added(sum, tally)
    progress(sum)
    const late = (performance.now() - began) / 1000 > seconds
    if (!late && !(stopAt === 'first-failure' && sum.failures.length > 0)) return
    over = true
    for (const each of workers) void each.terminate()
  }
  try {
    await Promise.all(
      Array.from({ length: threads }, (_, index) =>
        inThread(
          file,
          { first: first + index, runs: Math.ceil((runs - index) / threads), step: threads, stopAt },
          told,
        ),
      ),
    )
  } finally {
    remove()
  }
  return { ...sum, seconds: (performance.now() - began) / 1000 }
}

/** @param scenarios  as they are kept, or seeds. @returns of each its story, and what it broke */
export const playAll = (scenarios, planted) => answerOf({ play: scenarios }, planted)

/** The smallest scenario of a seed that still fails, and its story. */
export const storyOf = (seed, planted) => answerOf({ tell: seed }, planted)

/** What one thread says to what it is asked. */
async function answerOf(asked, planted) {
  const { file, remove } = await bundled(planted)
  let answer
  try {
    await inThread(file, asked, (message) => {
      answer = message
    })
  } finally {
    remove()
  }
  return answer
}
