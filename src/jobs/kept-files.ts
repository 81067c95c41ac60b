/** Files that people hand over: drawings of floors and images of firmware, kept whole by what they hold. */

import { drawingTypeSchema, looksLike } from '../core/job/drawing-type'
import { done, failed, type Outcome } from '../core/job/outcome'
import { message } from '../core/message/message'
import { FilesFullError, FileTooLargeError, keepFile, readFileParts } from '../store/files'
import type { Job } from '../store/jobs'
import type { Store } from '../store/open'
import { findDrawing, keepDrawing, largestDrawing, loadSite } from '../store/sites'

/** A file as it comes from outside. */
export interface GivenFile {
  /** For people. */
  readonly name: string
  readonly parts: Parameters<typeof keepFile>[1]
}
type Kept = Awaited<ReturnType<typeof keepFile>>

/** Bytes. */
const largestImage = 256 * 1024 * 1024

/** The drawing of a floor with its bytes; undefined where there is none. `file` is a name of what it holds. */
export async function floorDrawing(store: Store, job: Job, floor: string) {
  const drawing = await findDrawing(store, job.id, floor)
  return drawing && { ...drawing, parts: () => readFileParts(store, drawing.file) }
}

export async function keepFloorDrawing(
  store: Store,
  job: Job,
  floor: string,
  { type: said, ...given }: GivenFile & { readonly type: string | null },
): Promise<Outcome> {
  const type = drawingTypeSchema.safeParse(said)
  const { site } = await loadSite(store, job.id)
  if (!site.floors.some(({ id }) => id === floor)) return failed(message('floor-not-kept-yet'))
  if (!type.success) return failed(message('not-a-drawing', { name: given.name }))
  return kept(store, given, largestDrawing, async ({ hash, head }) => {
    // A file that no floor shows is swept away in time.
    if (!looksLike(type.data, head))
      return failed(message('file-not-what-it-says', { name: given.name, type: type.data }))
    await keepDrawing(store, job.id, floor, { type: type.data, file: hash }, new Date())
    return done
  })
}

/** Keeps an image of a firmware. What no brief names within the hour is swept away. */
export function keepImage(
  store: Store,
  given: GivenFile,
): Promise<Outcome<{ readonly sha256: string; readonly bytes: number }>> {
  return kept(store, given, largestImage, async ({ hash, size }) =>
    size === 0
      ? failed(message('file-is-empty', { name: given.name }))
      : { ok: true, value: { sha256: hash, bytes: size } },
  )
}

async function kept<T>(
  store: Store,
  { name, parts }: GivenFile,
  largest: number,
  use: (file: Kept) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  try {
    return await use(await keepFile(store, parts, largest, new Date()))
  } catch (error) {
    if (error instanceof FileTooLargeError) return failed(message('file-too-large-named', { name, told: error.told }))
    if (error instanceof FilesFullError) return failed(message('file-not-kept', { name, told: error.told }))
    throw error
  }
}
