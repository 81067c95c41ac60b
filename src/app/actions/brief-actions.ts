'use server'
/** What the Brief page does: save, set a passphrase, show a secret. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { briefSchema, secretName } from '../../core/brief/brief'
import { passphraseFault } from '../../core/secrets/passphrase'
import { appendEvents } from '../../store/events'
import { findJob, StaleVersionError, saveBrief } from '../../store/jobs'
import { listUnits } from '../../store/kit'
import { makeMissingSecrets } from '../../store/load-job'
import { openSecret, sealSecret } from '../../store/secrets'
import { getStore } from '../server/store'
import { done, failed, type Outcome } from './outcome'

const saveSchema = z.object({ slug: z.string(), version: z.int(), brief: briefSchema, passphrases: z.record(z.string(), z.string()) })

/** Saves the brief and the passphrases that were typed; the first fault is named with its field. */
export async function saveBriefAction(input: z.input<typeof saveSchema>): Promise<Outcome> {
  const parsed = saveSchema.safeParse(input)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    return failed(issue?.message ?? 'Something is missing.', issue?.path.slice(1).join('.'))
  }
  const { slug, version, brief, passphrases } = parsed.data
  for (const [network, passphrase] of Object.entries(passphrases)) {
    const fault = passphraseFault(passphrase)
    if (fault) return failed(fault, `passphrase.${network}`)
  }
  const store = await getStore()
  const job = await findJob(store, slug)
  if (!job) return failed('This job is no longer there.')
  try {
    await saveBrief(store, job.id, brief, version)
  } catch (error) {
    if (error instanceof StaleVersionError) return failed(error.message)
    throw error
  }
  const at = new Date()
  for (const [id, passphrase] of Object.entries(passphrases)) await sealSecret(store, job.id, secretName.passphrase({ id }), passphrase, at)
  const units = await listUnits(store, job.id)
  await makeMissingSecrets(
    store,
    job.id,
    brief,
    units.map((unit) => unit.id),
    at,
  )
  revalidatePath(`/jobs/${slug}`, 'layout')
  return done
}

/** Shows a secret. The asking is recorded first. */
export async function revealSecret(slug: string, name: string): Promise<{ readonly ok: true; readonly secret: string } | { readonly ok: false; readonly sentence: string }> {
  const parsed = z.string().max(120).safeParse(name)
  const store = await getStore()
  const job = await findJob(store, slug)
  if (!job || !parsed.success) return { ok: false, sentence: 'This job is no longer there.' }
  await appendEvents(store, job.id, [{ at: new Date(), event: { kind: 'reveal', secret: parsed.data } }])
  const secret = await openSecret(store, job.id, parsed.data)
  return secret === undefined ? { ok: false, sentence: 'It has not been made yet.' } : { ok: true, secret }
}
