'use server'
/** What the Jobs page does: begin a job, delete one. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { newBrief } from '../core/brief/brief'
import { lineSchema } from '../core/input/line'
import { jobNameSchema, slugOf } from '../core/job/job-document'
import { deleteJob, NotDeletedError } from '../store/delete-job'
import { createJob, jobSlugs } from '../store/jobs'
import { makeMissingSecrets } from '../store/make-secrets'
import { radioRules } from '../store/regulatory-file'
import { done, failed, failedBy, type Outcome } from './outcome'
import { getStore } from './store'

const newJobSchema = z.object({
  name: jobNameSchema,
  site: lineSchema(120).min(1, 'name the site'),
  country: z.string(),
  timeZone: z.string(),
})

/** @returns the slug of the new job */
export async function createJobAction(input: z.input<typeof newJobSchema>): Promise<Outcome<string>> {
  const parsed = newJobSchema.safeParse(input)
  if (!parsed.success) return failedBy(parsed.error)
  const { name, site, country, timeZone } = parsed.data
  const store = await getStore()
  if (!(await radioRules(store)).database.has(country))
    return failed('Choose the country from the list: it decides everything about radios.', 'country')
  const slug = slugOf(name, new Set(await jobSlugs(store)))
  const at = new Date()
  const brief = newBrief(site, country, timeZone)
  const id = await createJob(store, { slug, name, brief, at })
  await makeMissingSecrets(store, id, brief, at)
  revalidatePath('/')
  return { ok: true, value: slug }
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
