/**
 * How much is searched for a plan of channels: bounded by work, not by time, so that a plan is the same on any machine.
 */

/** Radios up to which the whole field is searched at once. */
export const smallField = 320

/** `thorough` for a plan, `quick` for one that follows a unit under the pointer, `greedy` for no search at all. */
export type Effort = 'thorough' | 'quick' | 'greedy'

/** @param count of radios @returns cells looked at; some hundred million are a second */
export function workFor(count: number, effort: Effort): number {
  if (effort === 'greedy') return 0
  if (count <= smallField)
    return effort === 'thorough'
      ? Math.min(36_000_000, 2_000_000 + 500_000 * count)
      : Math.min(4_000_000, 100_000 + 25_000 * count)
  return effort === 'thorough' ? Math.min(70_000 * count, 1_000_000_000) : 12_000_000
}
