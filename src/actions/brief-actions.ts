'use server'
/** What the Brief page does: save, set a passphrase, make one, show a secret. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import type { Outcome } from '../core/job/outcome'
import { saveBrief } from '../jobs/brief'
import { fromPages } from '../jobs/installation'
import { forgetLoginToday, keepLoginToday } from '../jobs/login-today'
import { setPassphrase as keepPassphrase, renewSecret, revealSecret as reveal } from '../jobs/secrets'
import { removeSshKey, setSshKey } from '../jobs/ssh-key'
import { action } from './action'
import { withJob } from './with-job'

const text = z.string()

/** Saves the brief; the first fault is named with its field. @returns the new version */
export const saveBriefAction = action(z.tuple([text, z.int(), z.unknown()]), async (slug, version, input) =>
  shown(slug, await withJob(slug, (store, job) => saveBrief(store, job, input, version))),
)

export const setPassphrase = action(z.tuple([text, text, text]), async (slug, networkId, passphrase) =>
  shown(slug, await withJob(slug, (store, job) => keepPassphrase(store, job, networkId, passphrase))),
)

export const setSshKeyAction = action(z.tuple([text, text]), async (slug, key) =>
  shown(slug, await withJob(slug, (store, job) => setSshKey(store, job, key))),
)

export const removeSshKeyAction = action(z.tuple([text]), async (slug) =>
  shown(slug, await withJob(slug, (store, job) => removeSshKey(store, job))),
)

const loginOf = z.union([z.literal('job'), z.object({ mac: text })])

export const keepLoginTodayAction = action(z.tuple([text, loginOf, z.unknown()]), async (slug, of, login) =>
  shown(slug, await withJob(slug, (store, job) => keepLoginToday(store, job, of, login))),
)

export const forgetLoginTodayAction = action(z.tuple([text, loginOf]), async (slug, of) =>
  shown(slug, await withJob(slug, (store, job) => forgetLoginToday(store, job, of))),
)

export const makeSecretAction = action(z.tuple([text, text]), async (slug, name) =>
  shown(slug, await withJob(slug, (store, job) => renewSecret(store, job, name))),
)

export const revealSecret = action(z.tuple([text, text]), (slug, name) =>
  withJob(slug, (store, job) => reveal(store, job, name, fromPages)),
)

function shown<T>(slug: string, outcome: Outcome<T>): Outcome<T> {
  if (outcome.ok) revalidatePath(`/jobs/${slug}`, 'layout')
  return outcome
}
