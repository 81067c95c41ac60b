'use server'
/** What the Brief page does: save, set a passphrase, make one, show a secret. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import type { Outcome } from '../core/job/outcome'
import { saveBrief } from '../jobs/brief'
import { fromPages } from '../jobs/installation'
import { setPassphrase as keepPassphrase, renewSecret, revealSecret as reveal } from '../jobs/secrets'
import { removeSshKey, setSshKey } from '../jobs/ssh-key'
import { withJob } from './with-job'

const versionSchema = z.int()

/** Saves the brief; the first fault is named with its field. @returns the new version */
export async function saveBriefAction(slug: string, version: number, input: unknown): Promise<Outcome<number>> {
  return shown(slug, await withJob(slug, (store, job) => saveBrief(store, job, input, versionSchema.parse(version))))
}

export async function setPassphrase(slug: string, networkId: string, text: string): Promise<Outcome> {
  return shown(slug, await withJob(slug, (store, job) => keepPassphrase(store, job, networkId, text)))
}

export async function setSshKeyAction(slug: string, text: string): Promise<Outcome> {
  return shown(slug, await withJob(slug, (store, job) => setSshKey(store, job, z.string().parse(text))))
}

export async function removeSshKeyAction(slug: string): Promise<Outcome> {
  return shown(slug, await withJob(slug, (store, job) => removeSshKey(store, job)))
}

export async function makeSecretAction(slug: string, name: string): Promise<Outcome> {
  return shown(slug, await withJob(slug, (store, job) => renewSecret(store, job, name)))
}

export async function revealSecret(slug: string, name: string): Promise<Outcome<string>> {
  return withJob(slug, (store, job) => reveal(store, job, name, fromPages))
}

function shown<T>(slug: string, outcome: Outcome<T>): Outcome<T> {
  if (outcome.ok) revalidatePath(`/jobs/${slug}`, 'layout')
  return outcome
}
