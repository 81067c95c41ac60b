/** How a unit's planned radios are kept. */
import { z } from 'zod'
import { bandSchema } from '../core/brief/wireless-network'
import { withEnvironment } from '../core/input/renamed'
import { planFaultCodes } from '../core/radio/plan-fault'
import type { RadioPlan } from '../core/radio/radio-plan'

const width = z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160), z.literal(320)])

export const radioPlansSchema: z.ZodType<RadioPlan[]> = z.array(
  withEnvironment(
    z.object({
      band: bandSchema,
      channel: z.int(),
      width,
      lowMhz: z.number(),
      radar: z.boolean(),
      power: z.object({ limit: z.number(), gain: z.number(), most: z.number(), target: z.number(), set: z.number() }),
      locked: z.boolean(),
      narrowedFrom: width.nullable().default(null),
      environment: z.enum(['indoor', 'outdoor']).default('indoor'),
    }),
  ),
)

/** What a planning found wrong. */
export const planFaultsSchema = z.array(
  z.object({ code: z.enum(planFaultCodes).default('as-told'), unit: z.string().optional(), sentence: z.string() }),
)
