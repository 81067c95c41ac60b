/** The as-built sheet with every outcome, for other programs. */
import { getStore } from '../../../../../actions/store'
import { sheetOf, viewJob } from '../../../../../jobs/job-view'
import { forPrograms } from '../../../../../words/en/as-built'

export const dynamic = 'force-dynamic'

export async function GET(_request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const { job: slug } = await params
  const view = await viewJob(await getStore(), slug)
  if (!view) return new Response('There is no such job.', { status: 404 })
  const { name, brief } = view.job
  const sheet = { job: slug, name, site: brief.site, country: brief.country, units: forPrograms(sheetOf(view)) }
  return Response.json(sheet, {
    headers: {
      'content-disposition': `attachment; filename="${slug}-as-built.json"`,
      'cache-control': 'no-store',
    },
  })
}
