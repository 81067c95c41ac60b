/** A runner is killed in the middle, without a word; the next one goes on, and nobody is stranded. */
import { type ChildProcess, spawn } from 'node:child_process'
import { join } from 'node:path'
import { afterEach, beforeAll, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
import type { PlacedEvent, StepState } from '../../src/core/muster/events'
import type { Step } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import { type Bench, openBench } from '../support/bench'
import { someOf } from '../support/long'

const root = join(import.meta.dirname, '../..')
let bench: Bench
const runners: ChildProcess[] = []

beforeAll(() => bundleIfStale())
afterEach(async () => {
  for (const runner of runners.splice(0)) {
    if (runner.exitCode !== null || runner.signalCode !== null) continue
    const gone = new Promise((resolve) => runner.once('exit', resolve))
    runner.kill('SIGTERM')
    await gone
  }
  await bench.close()
})

function startRunner(): ChildProcess {
  const runner = spawn(process.execPath, [join(root, 'dist/runner.mjs')], {
    cwd: root,
    env: { ...process.env, ...bench.env },
    stdio: 'ignore',
  })
  runners.push(runner)
  return runner
}

/** Was a step ever told to be so? What is over between two looks counts too. */
const at = (events: readonly PlacedEvent[], step: Step, kind: StepState['kind']): boolean =>
  events.some(({ event }) => event.kind === 'step' && event.step === step && event.state.kind === kind)

const moments: readonly { name: string; pace?: number; reached: (events: readonly PlacedEvent[]) => boolean }[] = [
  { name: 'while the networks are written', reached: (events) => at(events, 'networks', 'working') },
  {
    name: 'when the door of the password is open',
    reached: (events) => events.some(({ event }) => event.kind === 'door' && event.door === 'password'),
  },
  { name: 'while the units apply their new addresses', reached: (events) => at(events, 'apply', 'waiting') },
  { name: 'while the units restart', reached: (events) => at(events, 'return', 'waiting') },
  // It listens for a minute from its restart on, also while the laptop hesitates.
  { name: 'while a radio listens for radar', pace: 30, reached: (events) => at(events, 'on-air', 'waiting') },
]

it.each(someOf(moments))('killed $name, it is started again and all four answer', async ({ reached, pace = 90 }) => {
  bench = await openBench({ pace })
  const first = startRunner()
  await bench.order()
  await expect.poll(async () => reached(await bench.events()), { interval: 10 }).toBe(true)
  const gone = new Promise((resolve) => first.once('exit', resolve))
  first.kill('SIGKILL')
  await gone
  const broken = await bench.roll()
  expect(bench.job.units.every((unit) => answers(broken.rows.get(unit.id)))).toBe(false)
  startRunner()
  const roll = await bench.settled()
  expect(bench.job.units.filter((unit) => answers(roll.rows.get(unit.id))).map((unit) => unit.id)).toEqual(
    bench.job.units.map((unit) => unit.id),
  )
  expect(bench.lab.air.everOpen).toEqual([])
})
