/** Deletes a job. Its log is kept, with its name; secrets, copies of configurations, plans and drawings are gone. */

import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import { forgetJob, lockedName } from '../store/deleted-jobs'
import { inTransaction, type Store } from '../store/open'
import { musterIsOpen } from '../store/orders'

export { deletedJobs, jobLog } from '../store/deleted-jobs'

/** It cannot be deleted; the message says why. Nothing was changed. */
export class NotDeletedError extends ToldError {
  override readonly name = 'NotDeletedError'
}

/**
 * @param typedName  the name of the job as somebody typed it: a slip of the hand deletes nothing
 * @throws NotDeletedError
 */
export async function deleteJob(store: Store, jobId: number, typedName: string, at: Date): Promise<void> {
  await inTransaction(store, async (inner) => {
    const name = await lockedName(inner, jobId)
    if (name === undefined) throw new NotDeletedError(message('job-no-longer-there'))
    if (typedName.trim() !== name) throw new NotDeletedError(message('delete-needs-name', { name }))
    if (await musterIsOpen(inner, jobId)) throw new NotDeletedError(message('delete-during-muster'))
    await forgetJob(inner, jobId, at)
  })
}
