/** The kit list of a job, and the kit cards of the installation. */

import { z } from 'zod'
import { cardBounds } from '../core/input/bounded-text'
import { failed, failedBy, type Outcome } from '../core/job/outcome'
import { modelName, readKitCard } from '../core/kit/kit-card'
import { reviewRoster } from '../core/kit/roster'
import { type Unit, unitIdSchema, unitSchema } from '../core/kit/unit'
import { message } from '../core/message/message'
import { mergedCard } from '../core/showing/merged-card'
import { type Job, StaleVersionError } from '../store/jobs'
import { changeKit, type KeptUnit, listUnits } from '../store/kit'
import { cardTexts, removeCard as forgetCard, saveCard as keepCard, kitCardsOf } from '../store/kit-card-files'
import { inTransaction, type Store } from '../store/open'
import { makeMissingSecrets } from './make-secrets'
import { replan } from './replan'

export type { KeptUnit } from '../store/kit'
export { cardTexts, kitCardsOf } from '../store/kit-card-files'

const changesSchema = z.object({
  add: z.array(unitSchema).max(5000),
  change: z.array(unitSchema.extend({ version: z.int() })).max(5000),
  remove: z.array(unitIdSchema).max(5000),
  order: z.array(unitIdSchema).max(20_000).optional(),
})
export type KitChange = z.input<typeof changesSchema>

/** Changes the list, all of it or nothing. @returns the list as it is now, with versions */
export async function saveKit(store: Store, job: Job, input: KitChange): Promise<Outcome<KeptUnit[]>> {
  const parsed = changesSchema.safeParse(input)
  if (!parsed.success) return failedBy(parsed.error)
  const { add, change, remove, order } = parsed.data
  const before = await listUnits(store, job.id)
  // The database keeps MACs and names apart too; here the fault has a sentence.
  const roster = reviewRoster(merged(before, parsed.data), await kitCardsOf(store))
  const fault = roster.find((each) => each.weight === 'row')
  if (fault) return failed(fault, fault.field)
  const units = await inTransaction(store, async (inner) => {
    await changeKit(inner, job.id, { add, change, remove, order })
    await makeMissingSecrets(inner, job.id, job.brief, new Date())
    return listUnits(inner, job.id)
  })
  await replan(store, job.id)
  return { ok: true, value: units }
}

function merged(before: readonly Unit[], { add, change, remove }: z.infer<typeof changesSchema>): Unit[] {
  const changed = new Map(change.map((unit) => [unit.id, unit]))
  return [...before.filter((unit) => !remove.includes(unit.id)).map((unit) => changed.get(unit.id) ?? unit), ...add]
}

/** Keeps a kit card of this installation. @param version 0 for a new one @returns its name */
export async function saveCard(store: Store, yaml: string, version: number): Promise<Outcome<string>> {
  const text = z.string().max(cardBounds.size).safeParse(yaml)
  if (!text.success) return failed(message('card-too-large', { most: cardBounds.size / 1024 }))
  try {
    const reading = await keepCard(store, text.data, z.int().parse(version), new Date())
    if (reading.ok) return { ok: true, value: modelName(reading.card) }
    return failed(
      message('lines', {
        of: reading.faults.map(({ line, field, reason }) => message('card-line', { line, field, told: reason })),
      }),
    )
  } catch (error) {
    if (error instanceof StaleVersionError) return failed(error.told)
    throw error
  }
}

/**
 * Keeps a card that came of a showing. Where there is one of its model that turns pages, what was shown is added to it:
 * another firmware calls things otherwise.
 * @returns its name
 */
export async function keepShownCard(store: Store, yaml: string): Promise<Outcome<string>> {
  const text = z.string().max(cardBounds.size).safeParse(yaml)
  const reading = text.success ? readKitCard(text.data) : undefined
  const model = reading?.ok ? modelName(reading.card) : undefined
  const kept = (await cardTexts(store)).find((each) => each.model === model)
  return saveCard(store, kept ? mergedCard(kept.yaml, yaml) : yaml, kept?.version ?? 0)
}

/** Takes a card of this installation off; where the program brings one of the same name, that counts again. */
export function removeCard(store: Store, model: string): Promise<void> {
  return forgetCard(store, z.string().max(80).parse(model))
}
