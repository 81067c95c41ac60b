import { z } from 'zod'
import { settingIdSchema } from '../config/unit-config'

/** What a card cannot do without and was not shown, or was shown and means nothing. */
export const missingPartSchema = z.discriminatedUnion('code', [
  z.object({
    code: z.enum([
      'no-sign-in',
      'no-settings',
      'no-address',
      'no-add',
      'no-open',
      'no-remove',
      'no-row',
      'no-security',
      'no-unit-row',
      'no-unit-open',
      'no-unit-settings',
      'no-joined-state',
    ]),
  }),
  /** It was asked for at first, and stands on no page that was saved since. */
  z.object({ code: z.literal('only-at-first'), id: settingIdSchema }),
  /** A setting of radios was shown at one of them, and at another not. */
  z.object({ code: z.literal('not-at-band'), id: settingIdSchema, band: z.string() }),
  /** Words in the row of an access point that nobody has said the meaning of. */
  z.object({ code: z.literal('unknown-state'), words: z.string() }),
  z.object({ code: z.literal('unknown'), act: z.int(), label: z.string() }),
])
export type MissingPart = z.infer<typeof missingPartSchema>
