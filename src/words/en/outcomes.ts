/** Outcomes in words: the same on the slip, the sheet, in CSV and in a terminal. */

import type { Outcome, SettingOutcome } from '../../core/config/outcomes'
import { settingWords as inLanguage } from '../sheet-words'
import { settingName } from './parts'

export const outcomeNames: Readonly<Record<Outcome['kind'], string>> = {
  proven: 'proven',
  written: 'written, not readable',
  'by-hand': 'by hand',
  'not-for-it': 'not for it',
  open: 'not set yet',
}

/** `Ellery Crew: Security`, or `Name`. */
export const settingWords = (each: Pick<SettingOutcome, 'id' | 'name'>): string => inLanguage({ settingName }, each)
