/** For actions and routes: the job of a slug that came from outside, or a sentence. */
import 'server-only'
import { slugSchema } from '../core/job/job-document'
import { failed, type Outcome } from '../core/job/outcome'
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
    return found ? await act(found.store, found.job) : failed('This job is no longer there.')
  } catch (error) {
    if (error instanceof StaleVersionError) return failed(error.message, 'version')
    if (error instanceof MusterOpenError) return failed(error.message)
    if (error instanceof StoreError || error instanceof BrokenRowError) return failed(storeSentence(error))
    throw error
  }
}

function storeSentence(error: StoreError | BrokenRowError): string {
  if (error instanceof BrokenRowError) return `${error.message}. The other jobs are not touched by it.`
  if (error.kind === 'away')
    return 'The database is away. Nothing was changed; it is started again, then try once more.'
  if (error.kind === 'full')
    return 'The disk of the database is full. Nothing was changed; make room, then try once more.'
  console.error(error.message)
  return 'The database does not take this. Nothing was changed.'
}
