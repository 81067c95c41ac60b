'use server'
/** What the Jobs page does: begin a job, delete one. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { done, failed, type Outcome } from '../core/job/outcome'
import { deleteJob, NotDeletedError } from '../jobs/delete-job'
import { beginJob, type NewJob } from '../jobs/new-job'
import { action } from './action'
import { getStore } from './store'

/** @returns the slug of the new job */
export const createJobAction = action(z.tuple([z.custom<NewJob>()]), async (input) => {
  const begun = await beginJob(await getStore(), input)
  if (begun.ok) revalidatePath('/')
  return begun
})

/** Deletes a job of which somebody typed the name. Its log is kept. */
export const deleteJobAction = action(
  z.tuple([z.int(), z.string().max(200)]),
  async (id, typedName): Promise<Outcome> => {
    const store = await getStore()
    try {
      await deleteJob(store, id, typedName, new Date())
    } catch (error) {
      if (error instanceof NotDeletedError) return failed(error.told, 'name')
      throw error
    }
    revalidatePath('/')
    return done
  },
)
