/** A new job: its brief as one begins, and the secrets that it needs. */

import { z } from 'zod'
import { newBrief } from '../core/brief/brief'
import { timeZoneFor } from '../core/brief/country-time-zone'
import { lineSchema } from '../core/input/line'
import { jobNameSchema, slugOf } from '../core/job/job-document'
import { failed, failedBy, type Outcome } from '../core/job/outcome'
import { message, messageText } from '../core/message/message'
import { createJob, jobSlugs } from '../store/jobs'
import { inTransaction, type Store } from '../store/open'
import { radioRules } from '../store/regulatory-file'
import { makeMissingSecrets } from './make-secrets'

const newJobSchema = z.object({
  name: jobNameSchema,
  site: lineSchema(120).min(1, messageText('site-without-name')),
  country: z.string(),
  timeZone: z.string(),
})
export type NewJob = z.input<typeof newJobSchema>

/** @returns the slug of the new job */
export async function beginJob(store: Store, input: NewJob): Promise<Outcome<string>> {
  const parsed = newJobSchema.safeParse(input)
  if (!parsed.success) return failedBy(parsed.error)
  const { name, site, country, timeZone } = parsed.data
  if (!(await radioRules(store)).database.has(country)) return failed(message('country-not-chosen'), 'country')
  const at = new Date()
  const brief = newBrief(site, country, timeZoneFor(country, timeZone, at))
  const slug = await inTransaction(store, async (inner) => {
    const free = slugOf(name, new Set(await jobSlugs(inner)))
    const id = await createJob(inner, { slug: free, name, brief, at })
    await makeMissingSecrets(inner, id, brief, at)
    return free
  })
  return { ok: true, value: slug }
}
