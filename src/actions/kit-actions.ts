'use server'
/** What the Kit page does: the list, and the kit cards of this installation. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { cardBounds } from '../core/input/bounded-text'
import { modelName } from '../core/kit/kit-card'
import { reviewRoster } from '../core/kit/roster'
import { type Unit, unitIdSchema, unitSchema } from '../core/kit/unit'
import { StaleVersionError } from '../store/jobs'
import { changeKit, type KeptUnit, listUnits } from '../store/kit'
import { kitCardsOf, removeCard, saveCard } from '../store/kit-card-files'
import { makeMissingSecrets } from '../store/make-secrets'
import { replan } from '../store/replan'
import { done, failed, failedBy, type Outcome } from './outcome'
import { getStore } from './store'
import { withJob } from './with-job'

const changesSchema = z.object({
  add: z.array(unitSchema).max(5000),
  change: z.array(unitSchema.extend({ version: z.int() })).max(5000),
  remove: z.array(unitIdSchema).max(5000),
  order: z.array(unitIdSchema).max(20_000).optional(),
})

/** Changes the list, all of it or nothing. @returns the list as it is now, with versions */
export async function saveKitAction(slug: string, input: z.input<typeof changesSchema>): Promise<Outcome<KeptUnit[]>> {
  return withJob(slug, async (store, job) => {
    const parsed = changesSchema.safeParse(input)
    if (!parsed.success) return failedBy(parsed.error)
    const { add, change, remove, order } = parsed.data
    const before = await listUnits(store, job.id)
    // The database keeps MACs and names apart too; here the fault has a sentence.
    const fault = reviewRoster(merged(before, parsed.data), await kitCardsOf(store)).find(
      (each) => each.weight === 'row',
    )
    if (fault) return failed(fault.sentence, fault.field)
    await changeKit(store, job.id, { add, change, remove, order })
    const units = await listUnits(store, job.id)
    await makeMissingSecrets(store, job.id, job.brief, new Date())
    await replan(store, job.id)
    revalidatePath(`/jobs/${slug}`, 'layout')
    return { ok: true, value: units }
  })
}

function merged(before: readonly Unit[], { add, change, remove }: z.infer<typeof changesSchema>): Unit[] {
  const changed = new Map(change.map((unit) => [unit.id, unit]))
  return [...before.filter((unit) => !remove.includes(unit.id)).map((unit) => changed.get(unit.id) ?? unit), ...add]
}

/** Keeps a kit card of this installation. @param version 0 for a new one @returns its name */
export async function saveCardAction(yaml: string, version: number): Promise<Outcome<string>> {
  const text = z.string().max(cardBounds.size).safeParse(yaml)
  if (!text.success) return failed(`A kit card has ${cardBounds.size / 1024} kB at the most.`)
  try {
    const reading = await saveCard(await getStore(), text.data, z.int().parse(version), new Date())
    if (!reading.ok)
      return failed(reading.faults.map((fault) => `Line ${fault.line}: ${fault.field} ${fault.reason}`).join('\n'))
    revalidatePath('/jobs/[job]', 'layout')
    return { ok: true, value: modelName(reading.card) }
  } catch (error) {
    if (error instanceof StaleVersionError) return failed(error.message)
    throw error
  }
}

/** Takes a card of this installation off; where the program brings one of the same name, that counts again. */
export async function removeCardAction(model: string): Promise<Outcome> {
  await removeCard(await getStore(), z.string().max(80).parse(model))
  revalidatePath('/jobs/[job]', 'layout')
  return done
}
