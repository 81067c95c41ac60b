/** Takes the drawing of a floor, as a stream. */
import { revalidatePath } from 'next/cache'
import { withJob } from '../../../../../../../actions/with-job'
import { drawingTypeSchema, looksLike } from '../../../../../../../core/job/drawing-type'
import { done, failed } from '../../../../../../../core/job/outcome'
import { unitIdSchema } from '../../../../../../../core/kit/unit'
import { FileTooLargeError, keepDrawing, keepFile, largestDrawing } from '../../../../../../../jobs/drawings'
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
      if (!unitIdSchema.safeParse(floor).success) return failed('There is no such floor.')
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
        throw error
      }
      revalidatePath(`/jobs/${slug}`, 'layout')
      return done
    }),
  )
}
