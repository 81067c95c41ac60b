/** How a unit's planned radios are kept. */

import { z } from 'zod'
import { bandSchema } from '../core/catalogue/values'
import { withEnvironment } from '../core/input/renamed'
import { messageParamsSchema } from '../core/message/message'
import { planFaultCodes } from '../core/radio/channels/plan-fault'
import type { RadioPlan } from '../core/radio/channels/radio-plan'
import { usualListenSeconds } from '../core/regulatory/radar-listening'

const width = z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160), z.literal(320)])

/** Plans of a former release knew EIRP limits and totals alone. */
const powerSchema = z
  .object({
    limit: z.number(),
    limitOf: z.enum(['eirp', 'conducted']).default('eirp'),
    off: z.number().optional(),
    gain: z.number(),
    chainsDb: z.number().default(0),
    most: z.number(),
    target: z.number(),
    set: z.number(),
  })
  .transform(({ off, ...power }) => ({ ...power, off: off ?? power.gain }))

export const radioPlansSchema: z.ZodType<RadioPlan[]> = z.array(
  withEnvironment(
    z.object({
      band: bandSchema,
      channel: z.int(),
      width,
      lowMhz: z.number(),
      radar: z.boolean(),
      listenSeconds: z.number().optional(),
      power: powerSchema,
      locked: z.boolean(),
      narrowedFrom: width.nullable().default(null),
      environment: z.enum(['indoor', 'outdoor']).default('indoor'),
      use: z.enum(['area', 'point-to-point']).default('area'),
    }),
  ).transform(({ listenSeconds, ...plan }) => ({
    ...plan,
    listenSeconds: listenSeconds ?? (plan.radar ? usualListenSeconds : 0),
  })),
)

/** What a planning found wrong. */
export const planFaultsSchema = z.array(
  z.object({ code: z.enum(planFaultCodes), params: messageParamsSchema, unit: z.string().optional() }),
)
