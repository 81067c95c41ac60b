/**
 * Which kit card somebody means: by the full name in any letters, or by the model alone where only one maker has it.
 */
import { hasPrefixOf, type KitCard, modelName } from './kit-card'

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '')

/** The name as the card says it; what was written, where no card fits. */
export function matchModel(written: string, cards: ReadonlyMap<string, KitCard>): string {
  const wanted = plain(written)
  if (wanted === '') return ''
  const named = [...cards.values()].map((card) => ({ name: modelName(card), model: card.model }))
  const exact = named.find(({ name }) => plain(name) === wanted)
  if (exact) return exact.name
  const byModel = named.filter(({ model }) => plain(model) === wanted)
  return byModel.length === 1 && byModel[0] ? byModel[0].name : written.trim()
}

/** The model whose MACs begin like this one; undefined where none does or several do. */
export function modelOfMac(mac: string, cards: ReadonlyMap<string, KitCard>): string | undefined {
  const found = [...cards.values()].filter((card) => hasPrefixOf(card, mac))
  return found.length === 1 && found[0] ? modelName(found[0]) : undefined
}
