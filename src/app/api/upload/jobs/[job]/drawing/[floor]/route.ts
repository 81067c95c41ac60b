/** Takes the drawing of a floor, as a stream. */
import { revalidatePath } from 'next/cache'
import { withJob } from '../../../../../../../actions/with-job'
import { drawingTypeSchema, looksLike } from '../../../../../../../core/job/drawing-type'
import { done, failed } from '../../../../../../../core/job/outcome'
import {
  FilesFullError,
  FileTooLargeError,
  keepDrawing,
  keepFile,
  largestDrawing,
  loadSite,
} from '../../../../../../../jobs/drawings'
import { bodyParts, textHeader, upload } from '../../../../../../server/uploads'

export const dynamic = 'force-dynamic'

export async function POST(
  request: Request,
  { params }: { params: Promise<{ job: string; floor: string }> },
): Promise<Response> {
  const { job: slug, floor } = await params
  return upload(request, () =>
    withJob(slug, async (store, job) => {
      const name = textHeader(request, 'x-file-name').slice(0, 120) || 'The file'
      const type = drawingTypeSchema.safeParse(request.headers.get('content-type'))
      const { site } = await loadSite(store, job.id)
      if (!site.floors.some(({ id }) => id === floor))
        return failed('This floor is not kept yet: save the plan, then give it its drawing.')
      if (!type.success) return failed(`${name} is not a drawing that can be shown: take SVG, PNG, JPEG or PDF.`)
      try {
        const { hash, head } = await keepFile(store, bodyParts(request), largestDrawing, new Date())
        // A file that no floor shows is swept away in time.
        if (!looksLike(type.data, head))
          return failed(`${name} says that it is ${type.data}, and its content is something else.`)
        await keepDrawing(store, job.id, floor, { type: type.data, file: hash }, new Date())
      } catch (error) {
        if (error instanceof FileTooLargeError)
          return failed(`${name} is too large: ${error.message}. Save it smaller.`)
        if (error instanceof FilesFullError) return failed(`${name} was not kept: ${error.message}.`)
        throw error
      }
      revalidatePath(`/jobs/${slug}`, 'layout')
      return done
    }),
  )
}
