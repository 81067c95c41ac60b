import { z } from 'zod'

/** What a card cannot do without and was not shown, or was shown and means nothing. */
export const missingPartSchema = z.discriminatedUnion('code', [
  z.object({
    code: z.enum(['no-sign-in', 'no-settings', 'no-address', 'no-add', 'no-open', 'no-remove', 'no-row']),
  }),
  z.object({ code: z.literal('unknown'), act: z.int(), label: z.string() }),
])
export type MissingPart = z.infer<typeof missingPartSchema>
