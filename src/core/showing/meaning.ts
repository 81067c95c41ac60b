/** What a value that hands have put into a page means: one of the unit's own settings, or words that are always so. */
import { formatIpv4, maskOf } from '../address/ipv4'
import type { SettingId } from '../catalogue/catalogue'
import type { Spoken } from '../config/outcomes'
import type { SettingKey } from '../config/unit-config'
import type { ElementFacts } from '../kit/page-element'
import type { ValueWords } from '../kit/value-words'
import { bandByWords, settingByWords } from './trade-words'

export interface Meaning extends SettingKey {
  /** How the page words it. */
  readonly how: Partial<ValueWords> & { readonly shows?: string }
}

/** A value as pages write it, each with how that is told. */
function* writings(id: SettingId, value: unknown): Generator<{ text: string; how: Meaning['how'] }> {
  if (id === 'management.prefix' && typeof value === 'number')
    yield { text: formatIpv4(maskOf(value)), how: { as: 'mask' } }
  if (typeof value === 'string' || typeof value === 'number') yield { text: String(value), how: {} }
  if (Array.isArray(value) && value.every((each) => typeof each === 'string'))
    for (const separator of [', ', ',', ' ', ';', '\n'])
      yield { text: value.join(separator), how: { as: 'list', separator: separator.trim() || separator } }
}

/**
 * How a page writes the value of a setting, by what was typed; undefined where it writes it in no way that is known.
 */
export function howItIsWritten({ id, value }: Pick<Spoken, 'id' | 'value'>, text: string): Meaning['how'] | undefined {
  return [...writings(id, value)].find((each) => each.text === text)?.how
}

export interface MeaningHints {
  /** What was put in from the list beside the window, the last at the end. */
  readonly putIn?: readonly SettingKey[] | undefined
  /** The network that is being set, by its id. */
  readonly network?: string | undefined
}

/** @returns undefined where it is none of the unit's settings, or several could be meant */
export function meaningOfText(
  spoken: readonly Spoken[],
  text: string,
  facts: Pick<ElementFacts, 'label' | 'heading' | 'row' | 'hint'>,
  { putIn, network }: MeaningHints,
): Meaning | undefined {
  const fits = spoken.flatMap(({ id, of, value }): Meaning[] => {
    const writing = text === '' ? undefined : [...writings(id, value)].find((each) => each.text === text)
    return writing ? [{ id, of, how: writing.how }] : []
  })
  const put = putIn
    ?.toReversed()
    .flatMap(({ id, of }) => fits.find((each) => each.id === id && each.of === of) ?? [])[0]
  if (put) return put
  const byWords = settingByWords(facts.label) ?? settingByWords(facts.hint)
  const likely = byWords === undefined ? fits : fits.filter(({ id }) => id === byWords)
  const ids = new Set((likely.length > 0 ? likely : fits).map(({ id }) => id))
  const [only] = ids
  if (only === undefined || ids.size > 1) return undefined
  const own = fits.filter(({ id }) => id === only)
  return inScope(own, only, facts, network)
}

/** What a tick or a choice is likely to be of: its label says it, as far as this unit is to have a value of it. */
export function meaningOfChoice(
  spoken: readonly Spoken[],
  shown: string | boolean,
  facts: Pick<ElementFacts, 'label' | 'heading' | 'row' | 'hint'>,
  { network }: MeaningHints,
): Meaning | undefined {
  const id = settingByWords(facts.label)
  if (id === undefined) return undefined
  const all = spoken.filter((each) => each.id === id)
  const meant = inScope(
    all.map(({ of }) => ({ id, of, how: {} })),
    id,
    facts,
    network,
  )
  const value = all.find(({ of }) => of === meant?.of)?.value
  if (!meant || value === undefined) return undefined
  if (typeof shown === 'boolean') {
    if (typeof value !== 'boolean') return undefined
    return { ...meant, how: shown === value ? {} : { words: { true: 'off', false: 'on' } } }
  }
  return { ...meant, how: howShown(value, shown) }
}

/** Words that are worth a guess while somebody looks on, and too little to decide by. */
const guesses: readonly (readonly [RegExp, SettingId])[] = [
  [/\bvlan\b/i, 'network.vlan'],
  [/\b(admin\w*|user|login)\b/i, 'admin.user'],
  [/\bname\b/i, 'network.ssid'],
]

/**
 * Which setting somebody is likely to put into a field.
 *
 * @param network  the network that is being set, or the only one
 */
export function likelySetting(
  spoken: readonly Spoken[],
  own: Pick<ElementFacts, 'label' | 'heading' | 'row'>,
  { words, isPassword, network }: { words: string; isPassword: boolean; network: string | undefined },
): SettingKey | undefined {
  const id =
    settingByWords(words) ?? (isPassword ? 'admin.password' : guesses.find(([guessed]) => guessed.test(words))?.[1])
  if (id === undefined) return undefined
  const all = spoken.filter((each) => each.id === id).map(({ of }): Meaning => ({ id, of, how: {} }))
  const found = inScope(all, id, own, network)
  return found && { id, of: found.of }
}

/** How a value is found in the words that are shown for it. */
function howShown(value: unknown, shown: string): Meaning['how'] {
  if (shown === String(value)) return {}
  if (typeof value === 'number') {
    // Whatever number was chosen, the page words the planned one likewise.
    const [, before = '', after = ''] = /^(\D*)\d+(?![\d.])(.*)$/.exec(shown) ?? []
    return { shows: `^${inPattern(before)}(?<value>[0-9]+)${inPattern(after)}$` }
  }
  return { words: { [String(value)]: shown } }
}

/** Words as an expression that fits them with any other numbers. */
const inPattern = (words: string): string =>
  words.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&').replace(/\d+(\\\.\d+)?/g, '[0-9.]+')

/** Of settings with one id, the one that the words around the field are of. */
function inScope(
  own: readonly Meaning[],
  id: SettingId,
  { heading, row, label }: Pick<ElementFacts, 'label' | 'heading' | 'row'>,
  network: string | undefined,
): Meaning | undefined {
  if (id.startsWith('radio.')) {
    const band = bandByWords(heading) ?? bandByWords(row) ?? bandByWords(label)
    return own.find(({ of }) => of === band) ?? (own.length === 1 ? own[0] : undefined)
  }
  if (id.startsWith('network.')) return own.find(({ of }) => of === network) ?? (own.length === 1 ? own[0] : undefined)
  return own[0]
}
