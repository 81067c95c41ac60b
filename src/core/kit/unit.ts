/** A unit on the kit list: what is in one box, and where it is to go. */
import { z } from 'zod'
import { macSchema } from './mac'

const portRule = 'a switch port is a whole number from 1 to 512'

export const unitSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]{1,40}$/),
  name: z.string().trim().min(1, 'a unit takes a name').max(63),
  place: z.string().trim().max(80),
  /** `maker model`, as its kit card says. */
  model: z.string(),
  mac: macSchema,
  serial: z.string().trim().max(40),
  /** Port of the bench switch; null where it does not matter. */
  port: z.int(portRule).min(1, portRule).max(512, portRule).nullable(),
})
export type Unit = z.infer<typeof unitSchema>
