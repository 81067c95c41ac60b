/** For actions and routes: the job of a slug that came from outside, or a sentence. */
import 'server-only'
import { slugSchema } from '../../core/job/job-document'
import { findJob, type Job, StaleVersionError } from '../../store/jobs'
import type { Store } from '../../store/open'
import { failed, type Outcome } from '../actions/outcome'
import { getStore } from './store'

export async function jobOf(slug: unknown): Promise<{ store: Store; job: Job } | undefined> {
  const parsed = slugSchema.safeParse(slug)
  const store = await getStore()
  const job = parsed.success ? await findJob(store, parsed.data) : undefined
  return job && { store, job }
}

/** Runs an action on a job. A second writer is told in words. */
export async function withJob<T>(slug: unknown, act: (store: Store, job: Job) => Promise<Outcome<T>>): Promise<Outcome<T>> {
  const found = await jobOf(slug)
  if (!found) return failed('This job is no longer there.')
  try {
    return await act(found.store, found.job)
  } catch (error) {
    if (error instanceof StaleVersionError) return failed(error.message, 'version')
    throw error
  }
}
