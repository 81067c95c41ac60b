/** The window on a unit's own pages: a stream of pictures, hands, and its end. */
import { jobOf } from '../../../../../actions/with-job'
import { fromPages } from '../../../../../jobs/installation'
import { askWindow } from '../../../../server/window-socket'

export const dynamic = 'force-dynamic'

type Context = { params: Promise<{ job: string; unit: string }> }

const mostBytes = 256 * 1024

async function ask(method: 'GET' | 'POST' | 'DELETE', request: Request, { params }: Context): Promise<Response> {
  const { job: slug, unit } = await params
  const found = await jobOf(slug)
  if (!found) return new Response('There is no such job.', { status: 404 })
  const body = method === 'POST' ? await request.text() : undefined
  if (body !== undefined && body.length > mostBytes) return new Response('Too much at once.', { status: 413 })
  const { signal } = request
  const at = new URL(request.url).searchParams.get('at') ?? ''
  return askWindow({ method, jobId: found.job.id, unit, by: fromPages.name, at, signal, ...(body ? { body } : {}) })
}

export const GET = (request: Request, context: Context) => ask('GET', request, context)
export const POST = (request: Request, context: Context) => ask('POST', request, context)
export const DELETE = (request: Request, context: Context) => ask('DELETE', request, context)
