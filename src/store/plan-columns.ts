/** How a unit's planned radios are kept. */
import { z } from 'zod'
import { bandSchema } from '../core/brief/brief'
import type { RadioPlan } from '../core/radio/assign-channels'

const width = z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160), z.literal(320)])

export const radioPlansSchema: z.ZodType<RadioPlan[]> = z.array(
  z.object({
    band: bandSchema,
    channel: z.int(),
    width,
    lowMhz: z.number(),
    radar: z.boolean(),
    power: z.object({ limit: z.number(), gain: z.number(), most: z.number(), target: z.number(), set: z.number() }),
    locked: z.boolean(),
  }),
)

/** Channel by band that the user has set. */
export const locksSchema = z.partialRecord(bandSchema, z.int())
