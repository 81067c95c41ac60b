/** Takes an image of a firmware, as a stream. What no brief names within the hour is swept away. */
import { withJob } from '../../../../../../actions/with-job'
import { failed } from '../../../../../../core/job/outcome'
import { FilesFullError, FileTooLargeError, keepFile } from '../../../../../../jobs/drawings'
import { bodyParts, textHeader, upload } from '../../../../../server/uploads'

export const dynamic = 'force-dynamic'

/** Bytes. */
const largestImage = 256 * 1024 * 1024

/** @returns its SHA-256 and its size */
export async function POST(request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const { job: slug } = await params
  return upload(request, () =>
    withJob(slug, async (store) => {
      const name = textHeader(request, 'x-file-name').slice(0, 120) || 'The file'
      try {
        const { hash, size } = await keepFile(store, bodyParts(request), largestImage, new Date())
        if (size === 0) return failed(`${name} is empty.`)
        return { ok: true as const, value: { sha256: hash, bytes: size } }
      } catch (error) {
        if (error instanceof FileTooLargeError) return failed(`${name} is too large for an image: ${error.message}.`)
        if (error instanceof FilesFullError) return failed(`${name} was not kept: ${error.message}.`)
        throw error
      }
    }),
  )
}
