/** Takes the drawing of a floor, as a stream. */
import { revalidatePath } from 'next/cache'
import { withJob } from '../../../../../../../actions/with-job'
import { keepFloorDrawing } from '../../../../../../../jobs/kept-files'
import { givenFile, upload } from '../../../../../../server/uploads'

export const dynamic = 'force-dynamic'

export async function POST(
  request: Request,
  { params }: { params: Promise<{ job: string; floor: string }> },
): Promise<Response> {
  const { job: slug, floor } = await params
  return upload(request, () =>
    withJob(slug, async (store, job) => {
      const type = request.headers.get('content-type')
      const outcome = await keepFloorDrawing(store, job, floor, { ...givenFile(request), type })
      if (outcome.ok) revalidatePath(`/jobs/${slug}`, 'layout')
      return outcome
    }),
  )
}
