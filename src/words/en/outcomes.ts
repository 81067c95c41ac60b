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

/** `Ellery Crew: Security`, or `Name`. */
export function settingWords({ id, name }: Pick<SettingOutcome, 'id' | 'name'>): string {
  return name === '' ? settingOf(id).words : `${name}: ${settingOf(id).words}`
}
