/** Kit cards: those that come with the program, read once and kept, and those of this installation. */

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { type CardReading, type KitCard, modelName, readKitCard } from '../core/kit/kit-card'
import { message, together } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import { dataFolder } from './data-folder'
import { outdatePlans, StaleVersionError } from './jobs'
import { inTransaction, type Store } from './open'
import { kitCards } from './schema'

export interface CardText {
  readonly model: string
  readonly yaml: string
  /** Who brought it. */
  readonly from: 'program' | 'installation'
  /** 0 for a card that comes with the program. */
  readonly version: number
}

interface ReadCard extends CardText {
  readonly card: KitCard
}

let shipped: readonly ReadCard[] | undefined

/** @throws Error naming file, line and field where a card is faulty */
function shippedCards(): readonly ReadCard[] {
  const folder = join(dataFolder(), 'kit')
  shipped ??= readdirSync(folder)
    .filter((file) => file.endsWith('.yaml'))
    .sort()
    .map((file) => {
      const yaml = readFileSync(join(folder, file), 'utf8')
      const reading = readKitCard(yaml)
      if (!reading.ok)
        throw new ToldError(
          together(
            reading.faults.map(({ line, field, reason }) =>
              message('card-file-line', { file, line, field, told: reason }),
            ),
          ),
        )
      return { model: modelName(reading.card), yaml, from: 'program', version: 0, card: reading.card }
    })
  return shipped
}

/** Kit cards that come with the program, by `maker model`. */
export function loadKitCards(): ReadonlyMap<string, KitCard> {
  return new Map(shippedCards().map(({ model, card }) => [model, card]))
}

/** What the cards of this installation say, by their text: reading one takes a while, and every page asks for all. */
let readings: ReadonlyMap<string, CardReading> = new Map()

/** All kit cards of the installation, by `maker model`: its own stand in the place of those of the same name. */
export async function kitCardsOf(store: Store): Promise<ReadonlyMap<string, KitCard>> {
  const own = await store.db.select().from(kitCards)
  readings = new Map(own.map(({ yaml }) => [yaml, readings.get(yaml) ?? readKitCard(yaml)]))
  const cards = new Map(loadKitCards())
  for (const { model, yaml } of own) {
    const reading = readings.get(yaml)
    // A card that an older program took and this one does not is left out: its units say that there is none.
    if (reading?.ok) cards.set(model, reading.card)
  }
  return new Map([...cards].sort(([a], [b]) => a.localeCompare(b)))
}

/** The texts of all cards, in order of their names. */
export async function cardTexts(store: Store): Promise<CardText[]> {
  const own = await store.db.select().from(kitCards)
  const texts = new Map<string, CardText>(
    shippedCards().map(({ model, yaml, from, version }) => [model, { model, yaml, from, version }]),
  )
  for (const { model, yaml, version } of own) texts.set(model, { model, yaml, from: 'installation', version })
  return [...texts.values()].sort((a, b) => a.model.localeCompare(b.model))
}

/**
 * Keeps a card of the installation's own.
 *
 * @param version  version that was read; 0 for a new card
 * @returns        the reading: nothing is written where it has faults
 * @throws StaleVersionError
 */
export async function saveCard(store: Store, yaml: string, version: number, at: Date): Promise<CardReading> {
  const reading = readKitCard(yaml)
  if (!reading.ok) return reading
  const model = modelName(reading.card)
  await inTransaction(store, async ({ db }) => {
    await outdatePlans(db)
    const [kept] = await db
      .select({ version: kitCards.version })
      .from(kitCards)
      .where(eq(kitCards.model, model))
      .for('update')
    if ((kept?.version ?? 0) !== version) throw new StaleVersionError(message('what-kit-card', { model }))
    const fields = { yaml, changedAt: at, version: version + 1 }
    await db
      .insert(kitCards)
      .values({ model, ...fields })
      .onDuplicateKeyUpdate({ set: fields })
  })
  return reading
}

export async function removeCard(store: Store, model: string): Promise<void> {
  await inTransaction(store, async ({ db }) => {
    await outdatePlans(db)
    await db.delete(kitCards).where(eq(kitCards.model, model))
  })
}
