/** The drawing of a floor. It is shown as a picture only: nothing in it may run. */
import { findDrawing } from '../../../../../../store/sites'
import { jobOf } from '../../../../../server/with-job'

export const dynamic = 'force-dynamic'

export async function GET(_request: Request, { params }: { params: Promise<{ job: string; floor: string }> }): Promise<Response> {
  const { job: slug, floor } = await params
  const found = await jobOf(slug)
  const drawing = found && (await findDrawing(found.store, found.job.id, floor))
  if (!drawing) return new Response('There is no such drawing.', { status: 404 })
  return new Response(new Uint8Array(drawing.bytes), {
    headers: {
      'content-type': drawing.type,
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
      'cache-control': 'private, no-cache',
    },
  })
}
