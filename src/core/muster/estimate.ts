/**
 * How long the muster will still take: units go side by side, so the slowest decides.
 */
import { type SteppedCard, stepsFor, usualSeconds } from './procedure'
import type { RollRow } from './roll'

export interface Estimated {
  readonly row: RollRow | undefined
  readonly card: SteppedCard
  /** For radar, before it is on air. */
  readonly listenSeconds: number
}

/**
 * @param now   ms since 1970
 * @param pace  how many times faster than life the wire runs
 * @returns     seconds as the wire counts them; 0 where nothing is left to do
 */
export function secondsLeft(units: readonly Estimated[], now: number, pace: number): number {
  const each = units.map(({ row, card, listenSeconds }) =>
    stepsFor(card).reduce((sum, step) => {
      const state = row?.steps[step]
      if (state?.kind === 'done') return sum
      if (state?.kind === 'held') return sum
      if (state?.kind === 'waiting') return sum + Math.max(0, ((state.until - now) / 1000) * pace)
      return sum + usualSeconds(step, card, listenSeconds)
    }, 0),
  )
  return Math.round(Math.max(0, ...each))
}
