/** The kit cards that come with the program, read once and kept. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { type KitCard, modelName, readKitCard } from '../core/kit/kit-card'
import { dataFolder } from './data-folder'

let cards: ReadonlyMap<string, KitCard> | undefined

/**
 * Kit cards by `maker model`.
 * @throws Error naming file, line and field where a card is faulty
 */
export function loadKitCards(): ReadonlyMap<string, KitCard> {
  const folder = join(dataFolder(), 'kit')
  cards ??= new Map(
    readdirSync(folder)
      .filter((file) => file.endsWith('.yaml'))
      .map((file) => {
        const reading = readKitCard(readFileSync(join(folder, file), 'utf8'))
        if (!reading.ok) throw new Error(reading.faults.map((fault) => `${file} line ${fault.line}: ${fault.field} ${fault.reason}`).join('\n'))
        return [modelName(reading.card), reading.card] as const
      }),
  )
  return cards
}
