/** Outcomes in words: the same on the slip, the sheet, in CSV and in a terminal. */

import { settingOf } from '../../core/catalogue/catalogue'
import type { Outcome, SettingOutcome } from '../../core/config/outcomes'

export const outcomeNames: Readonly<Record<Outcome['kind'], string>> = {
  proven: 'proven',
  written: 'written, not readable',
  'by-hand': 'by hand',
  'not-for-it': 'not for it',
  open: 'not set yet',
}

/** In the order in which they matter to whoever reads them. */
export const outcomeKinds = [
  'by-hand',
  'open',
  'written',
  'proven',
  'not-for-it',
] as const satisfies readonly Outcome['kind'][]

/** `Ellery Crew: Security`, or `Name`. */
export function settingWords({ id, name }: Pick<SettingOutcome, 'id' | 'name'>): string {
  return name === '' ? settingOf(id).words : `${name}: ${settingOf(id).words}`
}

/** `40 proven, 2 written, not readable, 1 by hand`: how many of each, without those that there are none of. */
export function outcomeSummary(outcomes: readonly SettingOutcome[]): string {
  return outcomeKinds
    .map((kind) => ({ kind, count: outcomes.filter(({ outcome }) => outcome.kind === kind).length }))
    .filter(({ count }) => count > 0)
    .map(({ kind, count }) => `${count} ${outcomeNames[kind]}`)
    .join('; ')
}
