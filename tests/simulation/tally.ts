/** What many simulations came to, added up. */
import type { Result } from './play'

export interface Failure {
  readonly seed: number
  readonly rule: string
  readonly detail: string
}

export interface Tally {
  runs: number
  musters: number
  /** Seconds of the wire that were leapt over. */
  leapt: number
  events: number
  /** By name: `applies staged`, `fault kill`, `end answers`, `rule ...`. */
  readonly counts: Record<string, number>
  readonly failures: Failure[]
}

export const emptyTally = (): Tally => ({ runs: 0, musters: 0, leapt: 0, events: 0, counts: {}, failures: [] })

const mostFailures = 50

export function addResult(tally: Tally, seed: number, result: Result): void {
  const count = (what: string, by = 1): void => {
    tally.counts[what] = (tally.counts[what] ?? 0) + by
  }
  tally.runs += 1
  tally.musters += result.musters
  tally.leapt += result.leapt
  tally.events += result.events
  for (const traits of result.scenario.site.units)
    for (const [trait, value] of Object.entries(traits)) count(`${trait} ${value}`)
  const { units, ...site } = result.scenario.site
  count(`units ${units.length + site.managed}`)
  for (const [trait, value] of Object.entries(site))
    for (const each of Array.isArray(value) ? value : [value]) count(`${trait} ${each}`)
  for (const [what, times] of result.counts) count(what, times)
  for (const end of result.ends) count(`end ${end}`)
  for (const { rule, detail } of result.violations.slice(0, 1))
    if (tally.failures.length < mostFailures) tally.failures.push({ seed, rule, detail })
}
