'use server'
/** What the Kit and Plan pages do. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { reviewRoster } from '../../core/kit/roster'
import { unitSchema } from '../../core/kit/unit'
import { findJob, type Job, StaleVersionError } from '../../store/jobs'
import { addUnits, changeUnit, listUnits, removeUnit } from '../../store/kit'
import { loadKitCards } from '../../store/kit-card-files'
import { makeMissingSecrets } from '../../store/load-job'
import type { Store } from '../../store/open'
import { replan } from '../../store/replan'
import { getStore } from '../server/store'
import { done, failed, type Outcome } from './outcome'

const keptSchema = unitSchema.extend({ version: z.int() })

/** Changes a row of the list, or adds it where `version` is 0. */
export async function saveUnitAction(slug: string, input: z.input<typeof keptSchema>): Promise<Outcome> {
  const parsed = keptSchema.safeParse(input)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    return failed(issue?.message ?? 'Something is missing.', issue?.path.join('.'))
  }
  const store = await getStore()
  const job = await findJob(store, slug)
  if (!job) return failed('This job is no longer there.')
  const { version, ...unit } = parsed.data
  const others = (await listUnits(store, job.id)).filter((each) => each.id !== unit.id)
  // The database keeps MACs and names apart too; here the fault has a sentence.
  const fault = reviewRoster([...others, unit], loadKitCards()).find((each) => each.unit === unit.id)
  if (fault) return failed(fault.sentence, fault.field)
  try {
    if (version === 0) await addUnits(store, job.id, [unit])
    else await changeUnit(store, job.id, { ...unit, version })
  } catch (error) {
    if (error instanceof StaleVersionError) return failed(error.message)
    throw error
  }
  await replanAndShow(store, job)
  return done
}

export async function removeUnitAction(slug: string, id: string): Promise<Outcome> {
  const store = await getStore()
  const job = await findJob(store, slug)
  if (!job) return failed('This job is no longer there.')
  await removeUnit(store, job.id, id)
  await replanAndShow(store, job)
  return done
}

export async function planAgain(slug: string): Promise<Outcome> {
  const store = await getStore()
  const job = await findJob(store, slug)
  if (!job) return failed('This job is no longer there.')
  return replanAndShow(store, job)
}

/** Plans anew after a change of the list, with the passwords that new units need. */
async function replanAndShow(store: Store, job: Job): Promise<Outcome> {
  const planning = await replan(store, job)
  if (!planning) return failed(`There are no radio rules for ${job.brief.country}.`)
  const units = await listUnits(store, job.id)
  await makeMissingSecrets(
    store,
    job.id,
    job.brief,
    units.map((unit) => unit.id),
    new Date(),
  )
  revalidatePath(`/jobs/${job.slug}`, 'layout')
  const [fault] = planning.faults
  return fault ? failed(fault.sentence) : done
}
