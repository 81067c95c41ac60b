'use server'
/** What the Brief page does: save, set a passphrase, make one, show a secret. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { briefSchema, neededSecrets, secretName } from '../core/brief/brief'
import { passphraseFault } from '../core/secrets/passphrase'
import { passphraseWeakness } from '../core/secrets/strength'
import { appendEvents } from '../store/events'
import { saveBrief } from '../store/jobs'
import { listUnits } from '../store/kit'
import { makeMissingSecrets, makeSecret } from '../store/make-secrets'
import { replan } from '../store/replan'
import { openSecret, sealSecret } from '../store/secrets'
import { done, failed, failedBy, type Outcome } from './outcome'
import { withJob } from './with-job'

const versionSchema = z.int()
const secretSchema = z.string().max(120)

/** Saves the brief; the first fault is named with its field. @returns the new version */
export async function saveBriefAction(slug: string, version: number, input: unknown): Promise<Outcome<number>> {
  return withJob(slug, async (store, job) => {
    const parsed = briefSchema.safeParse(input)
    if (!parsed.success) return failedBy(parsed.error)
    const saved = await saveBrief(store, job.id, parsed.data, versionSchema.parse(version))
    await makeMissingSecrets(store, job.id, parsed.data, new Date())
    if (saved.plan === 'outdated') await replan(store, job.id)
    revalidatePath(`/jobs/${slug}`, 'layout')
    return { ok: true, value: saved.version }
  })
}

/** Keeps a passphrase that was typed. One that WPA2 does not allow is refused; a weak one is kept, and said. */
export async function setPassphrase(slug: string, networkId: string, text: string): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    const network = job.brief.networks.find((each) => each.id === networkId)
    if (!network) return failed('This network is not in the saved brief yet: wait until it is saved.')
    const passphrase = z.string().max(200).parse(text)
    const fault = passphraseFault(passphrase)
    if (fault) return failed(fault, 'passphrase')
    const { site, client } = job.brief
    const weakness = passphraseWeakness(passphrase, network.ssid, [site, client, job.name])
    await sealSecret(store, job.id, secretName.passphrase(network), passphrase, new Date(), weakness)
    revalidatePath(`/jobs/${slug}`, 'layout')
    return done
  })
}

/** Makes a secret anew, strong and without look-alike characters. */
export async function makeSecretAction(slug: string, name: string): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    const units = await listUnits(store, job.id)
    const wanted = neededSecrets(
      job.brief,
      units.map((unit) => unit.id),
    )
    if (!wanted.includes(secretSchema.parse(name)))
      return failed('The saved brief has no such secret yet: wait until it is saved.')
    await sealSecret(store, job.id, name, makeSecret(), new Date())
    revalidatePath(`/jobs/${slug}`, 'layout')
    return done
  })
}

/** Shows a secret. The asking is recorded first. */
export async function revealSecret(slug: string, name: string): Promise<Outcome<string>> {
  return withJob(slug, async (store, job) => {
    const secret = secretSchema.parse(name)
    await appendEvents(store, job.id, [{ at: new Date(), event: { kind: 'reveal', secret } }])
    const clear = await openSecret(store, job.id, secret)
    return clear === undefined ? failed('It has not been made yet.') : { ok: true, value: clear }
  })
}
