/** What became of each setting of each unit, as CSV. */

import { getStore } from '../../../../../actions/store'
import { sheetOf, viewJob } from '../../../../../jobs/job-view'
import { outcomesCsv } from '../../../../../words/en/outcomes-csv'

export const dynamic = 'force-dynamic'

export async function GET(_request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const { job: slug } = await params
  const view = await viewJob(await getStore(), slug)
  if (!view) return new Response('There is no such job.', { status: 404 })
  const sheet = outcomesCsv(sheetOf(view))
  // A byte order mark, so that spreadsheets take it for UTF-8.
  return new Response(`\ufeff${sheet}`, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${view.job.slug}-settings.csv"`,
      'cache-control': 'no-store',
    },
  })
}
