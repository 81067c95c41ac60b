/**
 * Transmit power as a sum that the installer can check.
 */

export type Dbm = number
export type Dbi = number

export interface PowerSum {
  /** EIRP limit of the channel block, dBm. */
  readonly limit: Dbm
  /** Antenna gain, dBi. */
  readonly gain: Dbi
  /** The radio's own greatest step, conducted, dBm. */
  readonly most: Dbm
  /** What the policy asks for, conducted, dBm. */
  readonly target: Dbm
  /** What is set: a step of the model, conducted, dBm. */
  readonly set: Dbm
}

/**
 * Highest conducted power a radio may be set to.
 *
 * @param limit   EIRP limit of the channel block, dBm (from the regulatory database)
 * @param gain    antenna gain, dBi
 * @param steps   powers the model offers, dBm, any order
 * @returns       the largest step at or below both limits, dBm; undefined where even the lowest step is too loud
 */
export function highestLegalStep(limit: Dbm, gain: Dbi, steps: readonly Dbm[]): Dbm | undefined {
  return steps.filter((step) => step + gain <= limit).sort((a, b) => b - a)[0]
}

/**
 * Power that a radio is planned with: the step at or below the policy's target, never above the legal one.
 * Where every legal step is above the target, the lowest of them.
 */
export function planPower(limit: Dbm, gain: Dbi, steps: readonly Dbm[], target: Dbm): PowerSum | undefined {
  const legal = highestLegalStep(limit, gain, steps)
  if (legal === undefined) return undefined
  const allowed = steps.filter((step) => step <= legal).sort((a, b) => b - a)
  const set = allowed.find((step) => step <= target) ?? allowed.at(-1) ?? legal
  return { limit, gain, most: Math.max(...steps), target, set }
}
