/** How a unit's planned radios are kept. */
import { z } from 'zod'
import { bandSchema } from '../core/brief/wireless-network'
import type { RadioPlan } from '../core/radio/radio-plan'

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
    narrowedFrom: width.nullable().default(null),
    place: z.enum(['indoor', 'outdoor']).default('indoor'),
  }),
)

/** What a planning found wrong. */
export const planFaultsSchema = z.array(z.object({ unit: z.string().optional(), sentence: z.string() }))
