'use server'
/** What the Jobs page does: begin a job, delete one. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { done, failed, type Outcome } from '../core/job/outcome'
import { deleteJob, NotDeletedError } from '../jobs/delete-job'
import { beginJob, type NewJob } from '../jobs/new-job'
import { getStore } from './store'

/** @returns the slug of the new job */
export async function createJobAction(input: NewJob): Promise<Outcome<string>> {
  const begun = await beginJob(await getStore(), input)
  if (begun.ok) revalidatePath('/')
  return begun
}

/** Deletes a job of which somebody typed the name. Its log is kept. */
export async function deleteJobAction(id: number, typedName: string): Promise<Outcome> {
  const store = await getStore()
  try {
    await deleteJob(store, z.int().parse(id), z.string().max(200).parse(typedName), new Date())
  } catch (error) {
    if (error instanceof NotDeletedError) return failed(error.message, 'name')
    throw error
  }
  revalidatePath('/')
  return done
}
