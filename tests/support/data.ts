/** What comes with the program, as tests need it. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from 'yaml'
import { type Brief, briefSchema } from '../../src/core/brief/brief'
import type { KitCard } from '../../src/core/kit/kit-card'
import type { CountryRules } from '../../src/core/regulatory/database'
import { loadKitCards } from '../../src/store/kit-card-files'
import { loadRegulatory } from '../../src/store/regulatory-file'

const data = join(import.meta.dirname, '../../data')
export const cards = loadKitCards()
export const regulatory = loadRegulatory()
export const demoBrief: Brief = briefSchema.parse(
  parse(readFileSync(join(data, 'demo/port-ellery.yaml'), 'utf8')).brief,
)

export function cardOf(model: string) {
  const card = cards.get(model)
  if (!card) throw new Error(`no card ${model}`)
  return card
}

/** The same model as if it were reached through a network of its own out of its box. */
export function setUpOverTheAir<C extends KitCard>(card: C): C {
  return { ...card, factory: { ...card.factory, setupSsid: 'Some-setup' } }
}

export function countryOf(code: string): CountryRules {
  const found = regulatory.get(code)
  if (!found) throw new Error(`no ${code}`)
  return found
}

/** A kit card of ours as it is written. @param name  of its file */
export function cardText(name: string): string {
  return readFileSync(join(data, `kit/${name}.yaml`), 'utf8')
}
