/** Words of the client's sheet that are put together alike in every language. */
import type { Outcome, SettingOutcome } from '../core/config/outcomes'
import type { AsBuiltRow, Remark } from '../core/handover/as-built'
import type { PortLine } from '../core/handover/site-sheet'
import type { Check } from '../core/muster/check'
import type { PaperWords } from './paper-words'

/** What a row's remarks say, in one line; empty where there are none. */
export function remarkWords(words: PaperWords, { remarks }: Pick<AsBuiltRow, 'remarks'>): string {
  const failed = remarks.flatMap((remark) => (remark.kind === 'failed' ? [words.checkNames[remark.check.code]] : []))
  const others = remarks.filter(({ kind }) => kind !== 'failed').map((remark) => wordsOf(words, remark))
  return [failed.join(', '), ...others].filter(Boolean).join(' ')
}

function wordsOf(words: PaperWords, remark: Remark): string {
  switch (remark.kind) {
    case 'held':
      return `${words.stepTitles[remark.step]}: ${words.whyHeld(remark.held)}`
    case 'failed':
      return words.checkNames[remark.check.code]
    case 'not-as-asked':
      return notAsAsked(words, remark.check)
    case 'came-open':
      return words.cameOpen(remark.ssid, remark.seconds)
    case 'old':
      return words.itOffers(remark.old)
    case 'changed':
      return words.sentence(remark.told)
  }
}

/** `SSH is open, and was not asked for.` */
function notAsAsked(words: PaperWords, { code, observed }: Check): string {
  const say = code === 'service' ? words.serviceFound : words.notAsked
  return say(words.checkNames[code], words.sentence(observed))
}

/** In the order in which they matter to whoever reads them. */
export const outcomeKinds = [
  'by-hand',
  'open',
  'written',
  'proven',
  'not-for-it',
] as const satisfies readonly Outcome['kind'][]

/** `40 proven; 2 written, not readable; 1 by hand`: how many of each, without those that there are none of. */
export function outcomeSummary({ outcomeNames }: PaperWords, outcomes: readonly SettingOutcome[]): string {
  return outcomeKinds
    .map((kind) => ({ kind, count: outcomes.filter(({ outcome }) => outcome.kind === kind).length }))
    .filter(({ count }) => count > 0)
    .map(({ kind, count }) => `${count} ${outcomeNames[kind]}`)
    .join('; ')
}

/** `Ellery Crew: Security`, or `Name`. */
export function settingWords(
  { settingName }: Pick<PaperWords, 'settingName'>,
  { id, name }: Pick<SettingOutcome, 'id' | 'name'>,
): string {
  return name === '' ? settingName(id) : `${name}: ${settingName(id)}`
}

/** What a port carries without a tag. */
export function nativeWords({ none, site }: PaperWords, native: PortLine['native']): string {
  return native === 'nothing' ? none : native === 'management' ? site.managementOnPort : `VLAN ${native}`
}
