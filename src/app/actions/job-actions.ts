'use server'
/** What the Jobs page does: begin a job, take one from a file. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { newBrief } from '../../core/brief/brief'
import { jobNameSchema, readJobDocument, slugOf } from '../../core/job/job-document'
import { createJob, listJobs } from '../../store/jobs'
import { loadJob } from '../../store/load-job'
import { makeMissingSecrets } from '../../store/make-secrets'
import { radioRules } from '../../store/regulatory-file'
import { openSecretsUnder } from '../../store/sealed-secrets'
import { getStore } from '../server/store'
import { failed, failedBy, type Outcome } from './outcome'

const newJobSchema = z.object({
  name: jobNameSchema,
  site: z.string().trim().min(1, 'name the site').max(120),
  country: z.string(),
  timeZone: z.string(),
})

/** @returns the slug of the new job */
export async function createJobAction(input: z.input<typeof newJobSchema>): Promise<Outcome<string>> {
  const parsed = newJobSchema.safeParse(input)
  if (!parsed.success) return failedBy(parsed.error)
  const { name, site, country, timeZone } = parsed.data
  const store = await getStore()
  if (!(await radioRules(store)).database.has(country)) return failed('Choose the country from the list: it decides everything about radios.', 'country')
  const slug = slugOf(name, new Set((await listJobs(store)).map((job) => job.slug)))
  const at = new Date()
  const brief = newBrief(site, country, timeZone)
  const id = await createJob(store, { slug, name, brief, at })
  await makeMissingSecrets(store, id, brief, [], at)
  revalidatePath('/')
  return { ok: true, value: slug }
}

/** Takes a job from a file of ours. @returns its slug */
export async function importJobAction(text: string, passphrase: string): Promise<Outcome<string>> {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (error) {
    return failed(`This is not a job file: it is not JSON (${error instanceof Error ? error.message : ''}).`)
  }
  const reading = readJobDocument(value)
  if (!reading.ok) return failed(`This job file cannot be taken:\n${reading.faults.slice(0, 12).join('\n')}`)
  const { document } = reading
  const secrets = document.secrets ? await openSecretsUnder(passphrase, document.secrets) : new Map<string, string>()
  if (!secrets) return failed('The passphrase does not open the secrets of this file. Type the one that it was sealed under.', 'passphrase')
  const store = await getStore()
  const slug = slugOf(document.slug, new Set((await listJobs(store)).map((job) => job.slug)))
  await loadJob(store, { ...document, slug }, new Date(), secrets)
  revalidatePath('/')
  return { ok: true, value: slug }
}
