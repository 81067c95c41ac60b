/**
 * What a unit's own pages gave, as it is kept among its copies: a file that they offered, a picture of one that failed.
 */
import { z } from 'zod'

export const fileFromPagesSchema = z.object({ name: z.string(), base64: z.string() })
export type FileFromPages = z.infer<typeof fileFromPagesSchema>

/** A page as it stood when its unit was held: what can be read in it, and a picture (JPEG), both without secrets. */
export const pageWhenHeldSchema = z.object({ base64: z.string(), words: z.array(z.string()).readonly() })
export type PageWhenHeld = z.infer<typeof pageWhenHeldSchema>
