/** How a value of a setting stands in a unit's own words: on its pages, and in what its commands print. */

import { z } from 'zod'
import { patternSchema } from '../input/pattern'
import { messageText } from '../message/message'

/** An expression that finds a value: it names a group for it. */
export const valuePattern = patternSchema.refine(
  (text) => text.includes('(?<value>'),
  messageText('group-value-missing'),
)

export const valueWordsFields = {
  /** The unit's word for each of our values. */
  words: z.record(z.string(), z.string()).optional(),
  /** Its number is ours so many times. */
  times: z.number().positive().optional(),
  /**
   * `hex`: the text's bytes. `list`: entries with a separator. `epoch`: its clock, seconds since 1970. `quoted`: what
   * stood between double quotes, with backslashes before some signs. `mask`: a prefix length as a netmask.
   */
  as: z.enum(['hex', 'list', 'epoch', 'quoted', 'mask']).optional(),
  separator: z.string().default(','),
  /** The value where the unit says nothing of it. */
  absent: z.json().optional(),
}
export const valueWordsSchema = z.strictObject(valueWordsFields)
export type ValueWords = z.infer<typeof valueWordsSchema>
