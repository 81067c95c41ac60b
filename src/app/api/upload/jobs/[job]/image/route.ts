/** Takes an image of a firmware, as a stream; answers with its SHA-256 and its size. */
import { withJob } from '../../../../../../actions/with-job'
import { keepImage } from '../../../../../../jobs/kept-files'
import { givenFile, upload } from '../../../../../server/uploads'

export const dynamic = 'force-dynamic'

export async function POST(request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const { job: slug } = await params
  return upload(request, () => withJob(slug, (store) => keepImage(store, givenFile(request))))
}
