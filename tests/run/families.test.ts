/** One unit of each family in one muster, whose runner is killed whenever a step begins for the first time. */
import { type ChildProcess, spawn } from 'node:child_process'
import { join } from 'node:path'
import { afterEach, beforeAll, expect } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
import type { JobDocument } from '../../src/core/job/job-document'
import { steps } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import { musterIsOpen } from '../../src/store/orders'
import { type Bench, openBench } from '../support/bench'
import { demoBrief } from '../support/data'
import { hearthCard, hearths } from '../support/hearth'
import { longIt } from '../support/long'
import { patienceMs } from '../support/patience'
import { plainP6 } from '../support/plain-p6'

const root = join(import.meta.dirname, '../..')
const dhcp = { prefix: 24, first: '10.44.8.100', last: '10.44.8.199', gateway: '10.44.8.1', dns: '10.44.8.1' }
let bench: Bench
let runner: ChildProcess | undefined

beforeAll(() => bundleIfStale())
afterEach(async () => {
  await ended('SIGTERM')
  await bench.close()
})

function start(): void {
  runner = spawn(process.execPath, [join(root, 'dist/runner.mjs')], {
    cwd: root,
    env: { ...process.env, ...bench.env },
    stdio: 'ignore',
  })
}

async function ended(signal: NodeJS.Signals): Promise<void> {
  const child = runner
  if (!child || child.exitCode !== null || child.signalCode !== null) return
  const gone = new Promise((resolve) => child.once('exit', resolve))
  child.kill(signal)
  await gone
}

const models = [
  ['Ostrel O-40', '02:4f:52:00:00:01'],
  ['Ostrel O-20', '02:4f:32:00:00:01'],
  ['Brackwater B7', '02:b7:1c:00:00:01'],
  [plainP6.twin, '02:50:36:00:00:01'],
  ['Tarnhelm C1', '02:7a:c1:00:00:01'],
  ['Tarnhelm T2', '02:7a:02:00:00:01'],
] as const
const oneOfEach = (job: JobDocument): void => {
  const [unit] = job.units
  if (!unit) return
  job.brief = demoBrief
  job.cards = [plainP6.card]
  job.units = models.map(([model, mac], index) => ({
    ...unit,
    id: `unit-${index}`,
    name: `unit-${index}`,
    model,
    mac,
    serial: '',
    port: index + 1,
    locks: {},
  }))
}

/** Kills the runner whenever a step begins for the first time. @returns the steps that began */
async function musteredWithKills(): Promise<Set<string>> {
  start()
  await bench.order()
  const seen = new Set<string>()
  let [told, movedAt] = [0, Date.now()]
  while (await musterIsOpen(bench.store, bench.jobId)) {
    const events = await bench.events()
    if (events.length !== told) [told, movedAt] = [events.length, Date.now()]
    expect(Date.now() - movedAt, 'nothing is told any more').toBeLessThan(patienceMs)
    const begun = events.flatMap(({ event }) =>
      event.kind === 'step' && event.state.kind === 'working' ? [event.step] : [],
    )
    const fresh = begun.filter((step) => !seen.has(step))
    for (const step of fresh) seen.add(step)
    if (fresh.length > 0) {
      await ended('SIGKILL')
      start()
    }
    await new Promise((resolve) => setTimeout(resolve, 20))
  }
  return seen
}

longIt(
  'whose runner dies at the beginning of every step is brought to its end, and nobody is stranded or open',
  async () => {
    bench = await openBench({ change: oneOfEach, pace: 60, lab: { dhcp, variants: plainP6.variants } })
    const seen = await musteredWithKills()
    const { rows } = await bench.roll()
    for (const [index, [model]] of models.entries())
      expect(answers(rows.get(`unit-${index}`)), `${model} ${JSON.stringify(rows.get(`unit-${index}`))}`).toBe(true)
    expect([...seen].sort()).toEqual([...steps].sort())
    expect(bench.lab.air.everOpen).toEqual([])
  },
)

longIt(
  'with pages that were described element by element is brought to its end too, its browser killed with it',
  async () => {
    bench = await openBench({ change: hearths(1, [hearthCard]), pace: 15 })
    const seen = await musteredWithKills()
    const [row] = (await bench.roll()).rows.values()
    expect(answers(row), JSON.stringify(row?.steps)).toBe(true)
    // The admin is made before anything is set, and what is staged is put into effect at the end.
    for (const step of ['sign-in', 'country', 'networks', 'radios', 'address', 'apply', 'proof'])
      expect([...seen]).toContain(step)
    expect(bench.lab.air.everOpen).toEqual([])
  },
)
