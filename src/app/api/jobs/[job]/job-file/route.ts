/** The whole job as one file. A passphrase comes in the body, never in the address. */

import { jobOf } from '../../../../../actions/with-job'
import { exportJob } from '../../../../../jobs/export-job'

export const dynamic = 'force-dynamic'

const shortest = 10

export async function POST(request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const found = await jobOf((await params).job)
  if (!found) return new Response('There is no such job.', { status: 404 })
  const typed = (await request.formData()).get('passphrase')
  const passphrase = typeof typed === 'string' && typed !== '' ? typed : undefined
  if (passphrase !== undefined && passphrase.length < shortest)
    return new Response(
      `The passphrase has ${passphrase.length} characters; ${shortest} are needed to seal the secrets. Go ` +
        'back and type a longer one, or none.',
      { status: 400 },
    )
  const document = await exportJob(found.store, found.job, passphrase)
  return new Response(`${JSON.stringify(document, null, 2)}\n`, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="${found.job.slug}.air-muster.json"`,
      'cache-control': 'no-store',
    },
  })
}
