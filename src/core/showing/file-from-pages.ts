/** A file that a unit's own pages offered to hands, as it is kept among its copies. */
import { z } from 'zod'

export const fileFromPagesSchema = z.object({ name: z.string(), base64: z.string() })
export type FileFromPages = z.infer<typeof fileFromPagesSchema>
