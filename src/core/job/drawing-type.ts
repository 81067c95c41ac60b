/** Which files can be shown as the drawing of a floor. A name may say anything; the first bytes do not. */
import { z } from 'zod'

export const drawingTypes = ['image/svg+xml', 'image/png', 'image/jpeg'] as const
export const drawingTypeSchema = z.enum(drawingTypes)
export type DrawingType = z.infer<typeof drawingTypeSchema>

const beginsWith = (head: Uint8Array, bytes: readonly number[]): boolean => bytes.every((byte, at) => head[at] === byte)

/** @param head  first bytes of a file, some thousands where it has them */
export function looksLike(type: DrawingType, head: Uint8Array): boolean {
  switch (type) {
    case 'image/png':
      // ISO/IEC 15948:2004, 5.2.
      return beginsWith(head, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
    case 'image/jpeg':
      return beginsWith(head, [0xff, 0xd8, 0xff])
    case 'image/svg+xml':
      return /<svg[\s>]/i.test(new TextDecoder().decode(head))
  }
}
