/**
 * What stands in the fields of a page while it is saved, and is right already: nobody puts it in, and it is as good as
 * put in. It counts only where label and value leave no doubt which setting it is.
 */

import type { SettingId } from '../catalogue/catalogue'
import type { Spoken } from '../config/outcomes'
import { findFirst } from '../input/pattern'
import type { ElementFacts } from '../kit/page-element'
import type { Act, ActValue } from './act'
import { type Meaning, meaningOfChoice, meaningOfText } from './meaning'
import type { Puts } from './noted'
import { tickOf } from './ticks'
import { isReversed, securityByWords, settingByWords } from './trade-words'

export interface StandingHints {
  readonly spoken: readonly Spoken[]
  /** The network that is being set, by its id. */
  readonly network: string | undefined
  /** What was shown so far: words that were chosen for a value mean it again. */
  readonly acts: readonly Act[]
}

export interface Standing {
  readonly value: ActValue
  readonly offered: readonly string[]
}

/** @returns undefined where it may be anything */
export function standingIn(field: Puts, own: ElementFacts, hints: StandingHints): Standing | undefined {
  if (field.kind === 'chosen') return chosenIn(field, own, hints)
  const value = field.kind === 'ticked' ? tickedValue(field, own, hints) : typedValue(field, own, hints)
  return value && { value, offered: [] }
}

const settingAt = ({ label, hint }: ElementFacts): SettingId | undefined =>
  settingByWords(label) ?? settingByWords(hint)

function typedValue(
  { text }: Extract<Puts, { kind: 'typed' }>,
  own: ElementFacts,
  { spoken, network }: StandingHints,
): ActValue | undefined {
  const id = settingAt(own)
  const ofId = spoken.filter((each) => each.id === id)
  const meaning = meaningOfText(ofId, text, own, { network })
  return meaning && { kind: 'setting', ...meaning }
}

function chosenIn(
  { value: shown, offered }: Extract<Puts, { kind: 'chosen' }>,
  own: ElementFacts,
  hints: StandingHints,
): Standing | undefined {
  const { spoken, network } = hints
  const id = settingAt(own)
  const ofId = spoken.filter((each) => each.id === id)
  const meaning = meaningOfChoice(ofId, shown, own, { network })
  const value = ofId.find(({ of }) => of === meaning?.of)?.value
  if (!meaning) return undefined
  const twin = twinOf(meaning, own, hints)
  if (!twin && !saysValue(meaning, shown, value, hints)) return undefined
  // A list that is drawn by the page tells nothing while it is shut, and its twin's may be like it.
  const ofTwin = twin?.does.kind === 'puts' ? twin.does.offered : []
  return { value: { kind: 'setting', ...meaning }, offered: offered.length > 0 ? offered : ofTwin }
}

/** The same field of another radio, in which hands have chosen: whatever number stands here is of the same setting. */
function twinOf({ id, of, how }: Meaning, { label }: ElementFacts, { acts }: StandingHints): Act | undefined {
  if (!id.startsWith('radio.') || how.shows === undefined) return undefined
  return acts.find(({ at, does }) => {
    if (does.kind !== 'puts' || does.value.kind !== 'setting' || does.stood) return false
    return does.value.id === id && does.value.of !== of && at.by.some((by) => by.label === label)
  })
}

/** Whether the words of a choice are those of the value, and not of another. */
function saysValue({ id, how }: Meaning, shown: string, value: unknown, { acts }: StandingHints): boolean {
  if (how.shows !== undefined) return findFirst(how.shows, shown)?.groups.value === String(value)
  if (how.words === undefined) return true
  if (id === 'network.security') return securityByWords(shown) === value
  return acts.some(({ does }) => {
    const meant = does.kind === 'puts' && does.value.kind === 'setting' ? does.value : undefined
    return meant?.id === id && meant.how.words?.[String(value)] === shown
  })
}

function tickedValue(
  { ticked, isOneOfSeveral }: Extract<Puts, { kind: 'ticked' }>,
  own: ElementFacts,
  { spoken, network }: StandingHints,
): ActValue | undefined {
  const desiredOf = (id: Spoken['id'], of: string): unknown =>
    spoken.find((each) => each.id === id && each.of === of)?.value
  const tick = tickOf(own.label, { isOneOfSeveral, network })
  if (tick) return ticked && [desiredOf(tick.id, tick.of)].flat().includes(tick.tick) ? tick : undefined
  // Which way round it is meant is not told by a value that stands there.
  if (isReversed(own.label)) return undefined
  const meaning = meaningOfChoice(spoken, ticked, own, { network })
  return meaning && Object.keys(meaning.how).length === 0 ? { kind: 'setting', ...meaning } : undefined
}
