/** A runner is killed in the middle, without a word; the next one goes on, and nobody is stranded. */
import { type ChildProcess, spawn } from 'node:child_process'
import { join } from 'node:path'
import { afterEach, beforeAll, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
import type { StepState } from '../../src/core/muster/events'
import type { Step } from '../../src/core/muster/procedure'
import { answers, type Roll } from '../../src/core/muster/roll'
import { type Bench, openBench } from '../support/bench'

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
  const runner = spawn(process.execPath, [join(root, 'dist/runner.mjs')], { cwd: root, env: { ...process.env, ...bench.env }, stdio: 'ignore' })
  runners.push(runner)
  return runner
}

const at = (roll: Roll, step: Step, is: StepState['is']): boolean => [...roll.rows.values()].some((row) => row.steps[step]?.is === is)

const moments: readonly { name: string; reached: (roll: Roll) => boolean }[] = [
  { name: 'while the networks are written', reached: (roll) => at(roll, 'networks', 'working') || at(roll, 'networks', 'done') },
  { name: 'when the door of the password is open', reached: (roll) => [...roll.rows.values()].some((row) => row.passwordDoor === 'opened') || at(roll, 'password', 'done') },
  { name: 'while the units apply their new addresses', reached: (roll) => at(roll, 'address', 'waiting') },
  { name: 'while the units restart', reached: (roll) => at(roll, 'return', 'waiting') },
  { name: 'while a radio listens for radar', reached: (roll) => at(roll, 'on-air', 'waiting') },
]

it.each(moments)('killed $name, it is started again and all four answer', async ({ reached }) => {
  bench = await openBench({ pace: 90 })
  const first = startRunner()
  await bench.order()
  await expect.poll(async () => reached(await bench.roll()), { timeout: 30_000, interval: 10 }).toBe(true)
  const gone = new Promise((resolve) => first.once('exit', resolve))
  first.kill('SIGKILL')
  await gone
  const broken = await bench.roll()
  expect(bench.job.units.every((unit) => answers(broken.rows.get(unit.id)))).toBe(false)
  startRunner()
  const roll = await bench.settled()
  expect(bench.job.units.filter((unit) => answers(roll.rows.get(unit.id))).map((unit) => unit.id)).toEqual(bench.job.units.map((unit) => unit.id))
  expect(bench.lab.air.everOpen).toEqual([])
})
