/** The drawing of a floor. It is shown as a picture only: nothing in it may run. */
import { Readable } from 'node:stream'
import { jobOf } from '../../../../../../actions/with-job'
import { floorDrawing } from '../../../../../../jobs/kept-files'

export const dynamic = 'force-dynamic'

export async function GET(
  request: Request,
  { params }: { params: Promise<{ job: string; floor: string }> },
): Promise<Response> {
  const { job: slug, floor } = await params
  const found = await jobOf(slug)
  const drawing = found && (await floorDrawing(found.store, found.job, floor))
  if (!drawing) return new Response('There is no such drawing.', { status: 404 })
  const headers = {
    'content-type': drawing.type,
    'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
    // Its name is made of what it holds: the same name is the same picture.
    etag: `"${drawing.file}"`,
    'cache-control': 'private, no-cache',
  }
  if (request.headers.get('if-none-match') === headers.etag) return new Response(null, { status: 304, headers })
  return new Response(Readable.toWeb(Readable.from(drawing.parts())) as ReadableStream, { headers })
}
