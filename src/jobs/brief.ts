/**
 * The brief of a job: saved with the secrets that it needs, and planned again where it changes what a plan is made of.
 */
import { type Brief, briefSchema } from '../core/brief/brief'
import { failedBy, type Outcome } from '../core/job/outcome'
import { type Job, saveBrief as keepBrief } from '../store/jobs'
import { inTransaction, type Store } from '../store/open'
import { makeMissingSecrets } from './make-secrets'
import { replan } from './replan'

/**
 * @param version  that was read
 * @returns        the new version, or the first fault with its field
 * @throws StaleVersionError where somebody else was faster
 */
export async function saveBrief(store: Store, job: Job, input: unknown, version: number): Promise<Outcome<number>> {
  const parsed = briefSchema.safeParse(input)
  if (!parsed.success) return failedBy(parsed.error)
  const brief: Brief = parsed.data
  const saved = await inTransaction(store, async (inner) => {
    const kept = await keepBrief(inner, job.id, brief, version)
    await makeMissingSecrets(inner, job.id, brief, new Date())
    return kept
  })
  if (saved.plan === 'outdated') await replan(store, job.id)
  return { ok: true, value: saved.version }
}
