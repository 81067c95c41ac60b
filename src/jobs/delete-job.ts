/** Deletes a job. Its log is kept, with its name; secrets, copies of configurations, plans and drawings are gone. */
import { forgetJob, lockedName } from '../store/deleted-jobs'
import { inTransaction, type Store } from '../store/open'
import { musterIsOpen } from '../store/orders'

export { deletedJobs, jobLog } from '../store/deleted-jobs'

/** It cannot be deleted; the message says why. Nothing was changed. */
export class NotDeletedError extends Error {
  override readonly name = 'NotDeletedError'
}

/**
 * @param typedName  the name of the job as somebody typed it: a slip of the hand deletes nothing
 * @throws NotDeletedError
 */
export async function deleteJob(store: Store, jobId: number, typedName: string, at: Date): Promise<void> {
  await inTransaction(store, async (inner) => {
    const name = await lockedName(inner, jobId)
    if (name === undefined) throw new NotDeletedError('This job is no longer there.')
    if (typedName.trim() !== name) throw new NotDeletedError(`To delete it, type its name as it stands: ${name}`)
    if (await musterIsOpen(inner, jobId))
      throw new NotDeletedError(
        'A muster of this job is under way. Pause it or wait until it is over, then delete the job.',
      )
    await forgetJob(inner, jobId, at)
  })
}
