/**
 * What stands in the fields of a page while it is saved, and is right already: nobody puts it in, and it is as good as
 * put in. It counts only where label and value leave no doubt which setting it is.
 */
import type { Spoken } from '../config/outcomes'
import { findFirst } from '../input/pattern'
import type { ElementFacts } from '../kit/page-element'
import type { Act, ActValue } from './act'
import { type Meaning, meaningOfChoice, meaningOfText } from './meaning'
import type { Puts } from './noted'
import { bandByWords, isReversed, securityByWords, settingByWords, ticksMethod } from './trade-words'

export interface StandingHints {
  readonly spoken: readonly Spoken[]
  /** The network that is being set, by its id. */
  readonly network: string | undefined
  /** What was shown so far: words that were chosen for a value mean it again. */
  readonly acts: readonly Act[]
}

/** @returns undefined where it may be anything */
export function standingValue(field: Puts, own: ElementFacts, hints: StandingHints): ActValue | undefined {
  const { spoken, network } = hints
  if (field.kind === 'ticked') return tickedValue(field, own, hints)
  const id = settingByWords(own.label) ?? settingByWords(own.hint)
  if (id === undefined) return undefined
  const ofId = spoken.filter((each) => each.id === id)
  if (field.kind === 'typed') {
    const meaning = meaningOfText(ofId, field.text, own, { network })
    return meaning && { kind: 'setting', ...meaning }
  }
  const meaning = meaningOfChoice(ofId, field.value, own, { network })
  const value = ofId.find(({ of }) => of === meaning?.of)?.value
  if (!meaning) return undefined
  const isSure = saysValue(meaning, field.value, value, hints) || twinOf(meaning, own, hints) !== undefined
  return isSure ? { kind: 'setting', ...meaning } : undefined
}

/** The same field of another radio, in which hands have chosen: whatever number stands here is of the same setting. */
export function twinOf({ id, of, how }: Meaning, { label }: ElementFacts, { acts }: StandingHints): Act | undefined {
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
  const band = bandByWords(own.label)
  if (band !== undefined && network !== undefined && own.label.length <= 12) {
    const bands = desiredOf('network.bands', network)
    const isMeant = ticked && Array.isArray(bands) && bands.includes(band)
    return isMeant ? { kind: 'tick-of', id: 'network.bands', of: network, tick: band } : undefined
  }
  const method = isOneOfSeveral ? ticksMethod(own.label) : undefined
  if (method !== undefined)
    return ticked && desiredOf('management.method', '') === method
      ? { kind: 'tick-of', id: 'management.method', of: '', tick: method }
      : undefined
  // Which way round it is meant is not told by a value that stands there.
  if (isReversed(own.label)) return undefined
  const meaning = meaningOfChoice(spoken, ticked, own, { network })
  return meaning && Object.keys(meaning.how).length === 0 ? { kind: 'setting', ...meaning } : undefined
}
