/** What a unit's commands print, read by its card's expressions: bounded, and nothing guessed. */
import type { SettingId } from '../../../core/catalogue/catalogue'
import type { ObservedConfig } from '../../../core/config/unit-config'
import { findAll, findFirst } from '../../../core/input/pattern'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { PromptDialect } from '../../../core/kit/prompt-dialect'
import type { PromptReading } from '../../../core/kit/prompt-parts'
import { mergedNetwork, neverShown, type SeenValues } from '../seen-values'
import { fromWords } from '../words'

type Words = Pick<PromptDialect, 'values'>
type Card = Pick<DirectCard, 'radios' | 'can'>

export interface Printed {
  readonly reading: PromptReading
  readonly text: string
  /** When, ms since 1970: a clock is read as how far it is off. */
  readonly at: number
}

export function observedIn(card: Card, dialect: Words, printed: readonly Printed[]): ObservedConfig {
  const unit: SeenValues = neverShown(card, 'unit')
  const networks: Record<string, SeenValues> = {}
  const radios: Record<string, SeenValues> = {}
  for (const { reading, text, at } of printed) {
    const told = (part: string): SeenValues => valuesIn(dialect, reading, part, at)
    if (reading.per === 'unit') Object.assign(unit, told(text))
    else
      for (const { of, radio, part } of partsOf(reading.starts ?? '', text)) {
        if (reading.per === 'radio') {
          const band = bandOf(card, of)
          if (band) radios[band] = { ...neverShown(card, 'radio'), ...radios[band], ...told(part) }
        } else
          networks[of] = mergedNetwork(networks[of], {
            ...neverShown(card, 'network'),
            ...told(part),
            ...onBand(card, radio),
          })
      }
  }
  return { unit, networks, radios }
}

export interface Part {
  readonly of: string
  readonly radio: string | undefined
  readonly part: string
}

/** Cuts what was printed before each line that matches. */
export function partsOf(starts: string, text: string): Part[] {
  const heads = findAll(starts, text)
  return heads.map(({ start, groups }, index) => ({
    of: groups.of ?? '',
    radio: groups.radio,
    part: text.slice(start, heads[index + 1]?.start ?? text.length),
  }))
}

export const bandOf = (card: Pick<DirectCard, 'radios'>, name: string): string | undefined =>
  card.radios.find((radio) => radio.name === name)?.band

function valuesIn({ values }: Words, { tells, says }: PromptReading, part: string, at: number): SeenValues {
  const seen: SeenValues = {}
  for (const [id, value] of Object.entries(says)) seen[id] = { kind: 'value', value }
  for (const [id, pattern] of Object.entries(tells)) {
    const how = values[id]
    const text = findFirst(pattern, part)?.groups.value
    const value = text === undefined ? how?.absent : fromWords(id as SettingId, text, how, at)
    if (value !== undefined) seen[id] = { kind: 'value', value }
  }
  return seen
}

function onBand(card: Card, radio: string | undefined): SeenValues {
  const band = radio === undefined ? undefined : bandOf(card, radio)
  return band === undefined ? {} : { 'network.bands': { kind: 'value', value: [band] } }
}
