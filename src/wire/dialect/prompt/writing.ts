/** Which writes of a card some differences call for, and what the places of their commands stand for each time. */
import { type Difference, stepOf } from '../../../core/config/compare'
import type { PromptWrite } from '../../../core/kit/prompt-parts'
import { networkPlaces, type Places, placesOf, radioPlaces, type Situation } from './places'

export interface Writing {
  readonly write: PromptWrite
  readonly places: Places
}

/** In the order of the card. */
export function writingsFor(
  writes: readonly PromptWrite[],
  differences: readonly Difference[],
  situation: Situation,
): Writing[] {
  const whole = placesOf(situation)
  return writes.flatMap((write) => {
    const concerned = differences.filter((difference) => concerns(write, difference))
    if (concerned.length === 0) return []
    return eachOf(write, concerned, situation).map((places) => ({ write, places: { ...whole, ...places } }))
  })
}

/** Does a difference call for this write? */
function concerns({ sets }: PromptWrite, difference: Difference): boolean {
  if (difference.kind === 'value')
    return sets.some((id) => id === difference.id || id === `${difference.id.split('.')[0]}.*`)
  return sets.some((id) => id.startsWith(`${difference.scope}.`))
}

/** The places for each time that a write is carried out. */
function eachOf({ per }: PromptWrite, concerned: readonly Difference[], situation: Situation): Places[] {
  const { desired, card } = situation
  if (per === 'unit') return [{}]
  if (per === 'network') {
    const ids = new Set(concerned.filter((each) => stepOf(each) === 'networks').map(({ of }) => of))
    return Object.entries(desired.networks)
      .filter(([id]) => ids.has(id))
      .map(([id, values], index) => networkPlaces(situation, id, values, index))
  }
  const bands = new Set(concerned.map(({ of }) => of))
  // A network may stand on any radio.
  const all = concerned.some((each) => stepOf(each) === 'networks')
  return card.radios
    .filter(({ band }) => desired.radios[band] && (all || bands.has(band)))
    .map((radio) => radioPlaces(situation, radio))
}
