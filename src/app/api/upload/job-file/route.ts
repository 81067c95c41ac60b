/** Takes a job from a file of ours. The passphrase of its secrets comes in a header: never in the address. */

import { revalidatePath } from 'next/cache'
import { getStore } from '../../../../actions/store'
import { parseJson } from '../../../../core/input/bounded-text'
import { largestJobFile, readJobDocument, slugOf } from '../../../../core/job/job-document'
import { failed, type Outcome } from '../../../../core/job/outcome'
import { message } from '../../../../core/message/message'
import { jobSlugs } from '../../../../jobs/installation'
import { loadJob } from '../../../../jobs/load-job'
import { openSecretsUnder } from '../../../../jobs/sealed-secrets'
import { bodyParts, textHeader, upload } from '../../../server/uploads'

export const dynamic = 'force-dynamic'

/** @returns the slug of the job */
export function POST(request: Request): Promise<Response> {
  return upload(request, () => take(request, textHeader(request, 'x-passphrase')))
}

const mostFaults = 12

async function take(request: Request, passphrase: string): Promise<Outcome<string>> {
  const text = await wholeText(request)
  if (text === undefined) return failed(message('job-file-too-large', { most: largestJobFile / 1024 / 1024 }))
  const json = parseJson(text, largestJobFile)
  if (!json.ok) return failed(message('job-file-not-json', { told: json.reason }))
  const reading = readJobDocument(json.value)
  if (!reading.ok) return failed(message('job-file-faulty', { faults: reading.faults.slice(0, mostFaults) }))
  const { document } = reading
  const secrets = document.secrets ? await openSecretsUnder(passphrase, document.secrets) : new Map<string, string>()
  if (!secrets) return failed(message('job-file-passphrase'), 'passphrase')
  const store = await getStore()
  const slug = slugOf(document.slug, new Set(await jobSlugs(store)))
  await loadJob(store, { ...document, slug }, new Date(), secrets)
  revalidatePath('/')
  return { ok: true, value: slug }
}

/** @returns undefined where it is too large; the rest of it is not read then */
async function wholeText(request: Request): Promise<string | undefined> {
  const parts: Uint8Array[] = []
  let size = 0
  for await (const part of bodyParts(request)) {
    size += part.length
    if (size > largestJobFile) return undefined
    parts.push(part)
  }
  return Buffer.concat(parts).toString('utf8')
}
