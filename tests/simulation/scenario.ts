/** A scenario from a seed, and the smallest one that still fails. */
import fc from 'fast-check'
import { faults, later } from './faults'
import { play } from './play'
import { rareDays } from './rare-days'
import type { Scenario } from './scene'
import { siteTraits } from './traits'

const anyDay: fc.Arbitrary<Scenario> = fc.record({ seed: fc.integer(), site: siteTraits, faults, later })
const seedsOfRareDay = 20

/** What a seed is drawn from: six of twenty are of a rare day. */
const dayOf = (seed: number): fc.Arbitrary<Scenario> => rareDays[seed % seedsOfRareDay] ?? anyDay

export function scenarioOf(seed: number): Scenario {
  const [scenario] = fc.sample(dayOf(seed), { seed, numRuns: 1 })
  if (!scenario) throw new Error(`no scenario for the seed ${seed}`)
  return scenario
}

/** Leaves out of a scenario that fails whatever it fails without. @returns undefined where it does not fail */
export async function shrunk(seed: number): Promise<Scenario | undefined> {
  const holds = fc.asyncProperty(dayOf(seed), async (scenario) => (await play(scenario)).violations.length === 0)
  const { counterexample } = await fc.check(holds, { seed, numRuns: 1 })
  return counterexample?.[0]
}
