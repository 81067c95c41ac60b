/** For actions and routes: the job of a slug that came from outside, or a sentence. */
import 'server-only'
import { slugSchema } from '../core/job/job-document'
import { failed, type Outcome } from '../core/job/outcome'
import { type Message, message } from '../core/message/message'
import { BrokenRowError, findJob, type Job, StaleVersionError, type Store, StoreError } from '../jobs/installation'
import { MusterOpenError } from '../jobs/order'
import { getStore } from './store'

export async function jobOf(slug: unknown): Promise<{ store: Store; job: Job } | undefined> {
  const parsed = slugSchema.safeParse(slug)
  const store = await getStore()
  const job = parsed.success ? await findJob(store, parsed.data) : undefined
  return job && { store, job }
}

/** Runs an action on a job. A second writer is told in words. */
export async function withJob<T>(
  slug: unknown,
  act: (store: Store, job: Job) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  try {
    const found = await jobOf(slug)
    return found ? await act(found.store, found.job) : failed(message('job-no-longer-there'))
  } catch (error) {
    if (error instanceof StaleVersionError) return failed(error.told, 'version')
    if (error instanceof MusterOpenError) return failed(error.told)
    if (error instanceof StoreError || error instanceof BrokenRowError) return failed(toldOf(error))
    throw error
  }
}

function toldOf(error: StoreError | BrokenRowError): Message {
  if (error instanceof BrokenRowError) return message('other-jobs-untouched', { told: error.told })
  if (error.kind === 'away') return message('database-away-unchanged')
  if (error.kind === 'full') return message('database-full-unchanged')
  console.error(error.message)
  return message('database-refuses-unchanged')
}
