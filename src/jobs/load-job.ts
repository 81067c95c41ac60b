/** Loads a job from a file: brief, kit, floors and locks. Secrets that it does not bring are made here and sealed. */

import { Readable } from 'node:stream'
import { type Brief, neededSecrets } from '../core/brief/brief'
import type { JobDocument } from '../core/job/job-document'
import { readKitCard } from '../core/kit/kit-card'
import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import { keepFile } from '../store/files'
import { createJob, jobSlugs } from '../store/jobs'
import { addUnits } from '../store/kit'
import { loadKitCards, saveCard } from '../store/kit-card-files'
import { inTransaction, type Store } from '../store/open'
import { saveLocks } from '../store/plans'
import { sealSecret } from '../store/secrets'
import { keepDrawing, largestDrawing, saveSite } from '../store/sites'
import { makeMissingSecrets } from './make-secrets'
import { replan } from './replan'

/** A job of this name is there already; nothing was written. */
export class JobExistsError extends ToldError {
  override readonly name = 'JobExistsError'
}

/**
 * Loads all of a job or nothing.
 *
 * @param secrets  clear text by name, where the file brought some
 * @returns        the number of the job
 * @throws JobExistsError
 */
export async function loadJob(
  store: Store,
  document: JobDocument,
  at: Date,
  secrets: ReadonlyMap<string, string> = new Map(),
): Promise<number> {
  // The drawings first: a file that no floor shows does no harm.
  const drawings = await Promise.all(
    document.drawings.map(async ({ floor, type, data }) => ({
      floor,
      type,
      file: (await keepFile(store, Readable.from([Buffer.from(data, 'base64')]), largestDrawing, at)).hash,
    })),
  )
  const jobId = await inTransaction(store, (inner) => putJob(inner, document, drawings, at, secrets))
  await replan(store, jobId, { effort: 'thorough' })
  return jobId
}

type Drawings = readonly { readonly floor: string; readonly type: string; readonly file: string }[]

async function putJob(
  store: Store,
  document: JobDocument,
  drawings: Drawings,
  at: Date,
  secrets: ReadonlyMap<string, string>,
): Promise<number> {
  const { slug, name, brief, site } = document
  if ((await jobSlugs(store)).includes(slug)) throw new JobExistsError(message('job-exists', { slug }))
  const jobId = await createJob(store, { slug, name, brief, at })
  const units = document.units.map(
    ({ locks: _locks, address: _address, addressLocked: _addressLocked, ...unit }) => unit,
  )
  if (units.length > 0) await addUnits(store, jobId, units)
  for (const { id, locks, address, addressLocked } of document.units)
    if (Object.keys(locks).length > 0 || addressLocked)
      await saveLocks(store, jobId, id, { channels: locks, address: addressLocked ? address : null })
  await keepCards(store, document.cards, at)
  await saveSite(store, jobId, site, 0)
  for (const { floor, ...drawing } of drawings) await keepDrawing(store, jobId, floor, drawing, at)
  await sealBrought(
    store,
    jobId,
    brief,
    units.map((unit) => unit.id),
    secrets,
    at,
  )
  return jobId
}

/** Only what the brief asks for is taken from a file. */
async function sealBrought(
  store: Store,
  jobId: number,
  brief: Brief,
  unitIds: readonly string[],
  secrets: ReadonlyMap<string, string>,
  at: Date,
): Promise<void> {
  for (const name of neededSecrets(brief, unitIds)) {
    const clear = secrets.get(name)
    if (clear !== undefined) await sealSecret(store, jobId, name, clear, at)
  }
  await makeMissingSecrets(store, jobId, brief, at)
}

/** Cards that the installation does not have; one that it has of its own stays as it is. */
async function keepCards(store: Store, texts: readonly string[], at: Date): Promise<void> {
  for (const yaml of texts) {
    const reading = readKitCard(yaml)
    if (!reading.ok || loadKitCards().has(`${reading.card.maker} ${reading.card.model}`)) continue
    await saveCard(store, yaml, 0, at).catch(() => undefined)
  }
}
