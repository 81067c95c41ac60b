/** Whole musters in one process, by seed: docs/simulation.md says how to play one again. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
// @ts-expect-error the scripts are plain JavaScript: they run before anything is installed
import { planted } from '../../scripts/lib/planted.mjs'
// @ts-expect-error the same
import { playAll, simulate } from '../../scripts/lib/simulation.mjs'
import { often } from '../support/long'
import type { Fault } from './faults'
import { scenarioOf } from './scenario'
import type { Scenario } from './scene'

/** Seeds that are played; each is a site with two or three musters. */
const runs = Number(process.env.AIR_MUSTER_SIMULATIONS ?? often(2000, 330_000))
/** Seconds after which it ends early. */
const seconds = Number(process.env.AIR_MUSTER_SIMULATED_SECONDS ?? Number.POSITIVE_INFINITY)
/**
 * Of musters, at the least, for each seed: 10,000 in `npm test`, a million in `npm run test:long`. A few have fewer.
 */
const mustersForEach = (played: number): number => (played < 3000 ? 2.5 : 3.01)

it(`${runs} sites come to their end, whatever goes wrong meanwhile`, async () => {
  const result = await simulate({ first: often(1, 1_000_001), runs, seconds })
  const told = result.failures.map(
    ({ seed, rule, detail }: Record<string, unknown>) => `npm run simulate -- --seed ${seed}: ${rule}: ${detail}`,
  )
  expect(told).toEqual([])
  if (seconds === Number.POSITIVE_INFINITY) expect(result.runs).toBe(runs)
  expect(result.musters).toBeGreaterThan(result.runs * mustersForEach(result.runs))
  const { runs: played, musters, seconds: took } = result
  console.log(`${played} sites with ${musters} musters were simulated in ${took.toFixed(0)} s`)
})

const kept = join(import.meta.dirname, 'kept')
const files = readdirSync(kept).filter((name) => name.endsWith('.json'))
const found = files.map((file) => JSON.parse(readFileSync(join(kept, file), 'utf8')) as Kept)
interface Kept {
  /** What was wrong when it was found. */
  readonly found: string
  readonly scenario: Scenario
}
interface Played {
  readonly story: readonly string[]
  readonly violations: readonly string[]
  /** How each unit stands. */
  readonly ends: readonly string[]
}

describe('what simulations have found stays mended', () => {
  let played: readonly Played[]
  beforeAll(async () => {
    played = await playAll(found.map(({ scenario }) => scenario))
  })
  for (const [index, each] of found.entries())
    it(each.found, () => {
      expect(played[index]?.violations).toEqual([])
    })
})

it('one seed is one story, however often it is told', async () => {
  const [first, second] = (await playAll([7, 7])) as Played[]
  expect(first?.story.length).toBeGreaterThan(50)
  expect(second?.story).toEqual(first?.story)
})

it('a wall clock that is set, forwards or back, costs nobody a second muster', async () => {
  const scenarios = [84, 85, 86, 87, 88].flatMap((seed) =>
    [10, 20, 40, 80, 160].flatMap((second) =>
      [-86_400, 86_400].map((seconds): Scenario => {
        const what = { kind: 'wall-clock' as const, seconds }
        return { ...scenarioOf(seed), faults: [{ when: { second }, what, moment: 'after' }], later: [] }
      }),
    ),
  )
  const played = (await playAll(scenarios)) as Played[]
  expect(new Set(played.flatMap(({ ends }) => ends))).toEqual(new Set(['answers']))
  expect(played.flatMap(({ violations }) => violations)).toEqual([])
})

it("a wire that goes in the last of a unit's tries is no fault of the unit", async () => {
  const fails = (nth: number): Fault => ({ when: { call: 'backup', nth }, what: { kind: 'fails' }, moment: 'before' })
  // It is back before anybody asks by it: that the session broke is all that is seen.
  const away: Fault = { when: { call: 'backup', nth: 3 }, moment: 'after', what: { kind: 'wire-away', seconds: 0 } }
  const breaks = { session: 'connection', reachedBy: 'ipv4', restarts: 'never' } as const
  const scenarios = Array.from({ length: 60 }, (_, seed) => scenarioOf(20 * seed + 19)).flatMap((each): Scenario[] => {
    const [unit] = each.site.units
    if (!unit || each.site.managed > 0) return []
    const site = { ...each.site, units: [{ ...unit, ...breaks }] }
    return [{ ...each, site, faults: [fails(1), fails(2), away], later: [] }]
  })
  const all = (await playAll(scenarios)) as Played[]
  const held = all.flatMap(({ story }) => story.filter((line) => line.includes('"went-away"')))
  expect(held).toEqual([])
})

it('every fault that the script plants still finds its place in the program', () => {
  const root = join(import.meta.dirname, '../..')
  const misplaced = (planted as { what: string; file: string; find: string | RegExp }[]).filter(
    ({ file, find }) => readFileSync(join(root, file), 'utf8').split(find).length !== 2,
  )
  expect(misplaced.map(({ what }) => what)).toEqual([])
})
