/** Plays simulations in a thread of its own, seed after seed, and tells what they came to. */
import { parentPort, workerData } from 'node:worker_threads'
import { play } from './play'
import { scenarioOf, shrunk } from './scenario'
import type { Scenario } from './scene'
import { addResult, emptyTally } from './tally'

interface Work {
  readonly first: number
  readonly runs: number
  /** Every so many seeds is this thread's. */
  readonly step: number
  readonly stopAt: 'first-failure' | 'end'
}

/** Errors are part of what is simulated: nobody reads where they came from. */
Error.stackTraceLimit = 0
const perReport = 100

async function work({ first, runs, step, stopAt }: Work): Promise<void> {
  let tally = emptyTally()
  for (let index = 0; index < runs; index += 1) {
    const seed = first + index * step
    addResult(tally, seed, await play(scenarioOf(seed)))
    const failed = tally.failures.length > 0
    if (tally.runs < perReport && !(failed && stopAt === 'first-failure')) continue
    parentPort?.postMessage(tally)
    tally = emptyTally()
    if (failed && stopAt === 'first-failure') return
  }
  parentPort?.postMessage(tally)
}

/** The story of a seed: of the smallest scenario that still fails, or of all of it where nothing does. */
async function tell(seed: number): Promise<void> {
  const scenario = (await shrunk(seed)) ?? scenarioOf(seed)
  const { story, violations } = await play(scenario, 'told')
  parentPort?.postMessage({ scenario, story, violations: violations.map(({ rule, detail }) => ({ rule, detail })) })
}

/** Plays scenarios with their stories, one after the other. */
async function playAll(scenarios: readonly Scenario[]): Promise<void> {
  const played = []
  for (const scenario of scenarios) {
    const { story, violations, ends } = await play(scenario, 'told')
    played.push({ story, ends, violations: violations.map(({ message }) => message) })
  }
  parentPort?.postMessage(played)
}

const asked = workerData as Work | { readonly tell: number } | { readonly play: readonly (Scenario | number)[] }
if ('tell' in asked) await tell(asked.tell)
else if ('play' in asked) await playAll(asked.play.map((each) => (typeof each === 'number' ? scenarioOf(each) : each)))
else await work(asked)
