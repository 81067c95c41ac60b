/** Loads a job from a file: brief, kit and locks. Secrets that it does not have yet are made here and sealed. */
import { randomInt } from 'node:crypto'
import { z } from 'zod'
import { adminSecretName, type Brief, briefSchema, secretName } from '../core/brief/brief'
import { makePlan } from '../core/config/plan'
import { unitSchema } from '../core/kit/unit'
import { generatePassword } from '../core/secrets/passphrase'
import { createJob } from './jobs'
import { addUnits, savePlans } from './kit'
import { loadKitCards } from './kit-card-files'
import type { Store } from './open'
import { locksSchema } from './plan-columns'
import { loadRegulatory } from './regulatory-file'
import { sealSecret, secretNames } from './secrets'

export const jobFileSchema = z.object({
  slug: z.string().regex(/^[a-z0-9-]{1,60}$/),
  name: z.string().trim().min(1).max(120),
  brief: briefSchema,
  units: z.array(unitSchema.extend({ locks: locksSchema.default({}) })),
})
export type JobFile = z.infer<typeof jobFileSchema>

/** @returns the number of the job */
export async function loadJob(store: Store, file: JobFile, at: Date): Promise<number> {
  const jobId = await createJob(store, { ...file, at })
  const units = file.units.map(({ locks: _locks, ...unit }) => unit)
  await addUnits(store, jobId, units)
  const country = loadRegulatory().get(file.brief.country)
  if (country) {
    const before = new Map(file.units.map(({ id, locks }) => [id, { address: undefined, locks }]))
    const { plans } = makePlan(file.brief, units, loadKitCards(), country, before)
    await savePlans(store, jobId, plans, before)
  }
  await makeMissingSecrets(
    store,
    jobId,
    file.brief,
    units.map((unit) => unit.id),
    at,
  )
  return jobId
}

/** Makes the passphrases and passwords that a brief needs and the vault does not have. */
export async function makeMissingSecrets(store: Store, jobId: number, brief: Brief, unitIds: readonly string[], at: Date): Promise<void> {
  const there = new Set(await secretNames(store, jobId))
  const needed = [...brief.networks.map((network) => secretName.passphrase(network)), ...unitIds.map((unit) => adminSecretName(brief.admin, unit))]
  for (const name of new Set(needed)) {
    if (!there.has(name))
      await sealSecret(
        store,
        jobId,
        name,
        generatePassword((below) => randomInt(below)),
        at,
      )
  }
}
