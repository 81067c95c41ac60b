/** A whole job as one document. Secrets are left out, or sealed under a passphrase. */
import { type JobDocument, jobDocumentSchema, jobFormat } from '../core/job/job-document'
import { readFileParts } from '../store/files'
import type { Job } from '../store/jobs'
import { listUnits } from '../store/kit'
import { cardTexts } from '../store/kit-card-files'
import type { Store } from '../store/open'
import { loadPlans } from '../store/plans'
import { openSecrets } from '../store/secrets'
import { listDrawings, loadSite } from '../store/sites'
import { sealSecretsUnder } from './sealed-secrets'

/** @param passphrase  seals the secrets into the file; undefined leaves them out */
export async function exportJob(store: Store, job: Job, passphrase: string | undefined): Promise<JobDocument> {
  const [units, { plans, before }, { site }, drawings, texts] = await Promise.all([
    listUnits(store, job.id),
    loadPlans(store, job.id),
    loadSite(store, job.id),
    listDrawings(store, job.id),
    cardTexts(store),
  ])
  const addresses = new Map(plans.map(({ unit, address }) => [unit, address]))
  const models = new Set(units.map((unit) => unit.model))
  return jobDocumentSchema.parse({
    format: jobFormat,
    version: 1,
    slug: job.slug,
    name: job.name,
    brief: job.brief,
    units: units.map(({ version: _version, ...unit }) => ({
      ...unit,
      locks: before.get(unit.id)?.locks ?? {},
      address: before.get(unit.id)?.address ?? addresses.get(unit.id) ?? null,
      addressLocked: before.get(unit.id)?.addressLocked ?? false,
    })),
    site,
    // That of a floor which was taken away is no part of the job any more.
    drawings: await Promise.all(
      drawings
        .filter(({ floor }) => site.floors.some(({ id }) => id === floor))
        .map(async ({ floor, type, file }) => ({
          floor,
          type,
          data: (await wholeFile(store, file)).toString('base64'),
        })),
    ),
    cards: texts.filter((text) => text.from === 'installation' && models.has(text.model)).map((text) => text.yaml),
    secrets: passphrase === undefined ? null : await sealSecretsUnder(passphrase, await openSecrets(store, job.id)),
  })
}

async function wholeFile(store: Store, hash: string): Promise<Buffer> {
  const parts: Buffer[] = []
  for await (const part of readFileParts(store, hash)) parts.push(part)
  return Buffer.concat(parts)
}
