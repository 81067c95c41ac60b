/** A unit on the kit list: what is in one box, and where it is to go. */

import { z } from 'zod'
import { macSchema } from '../address/mac'
import { lineSchema } from '../input/line'
import { messageText } from '../message/message'

/** Names a unit or a floor within a job. */
export const unitIdSchema = z.string().regex(/^[a-z0-9-]{1,40}$/)

const portRule = messageText('switch-port-unfit')

export const unitSchema = z.object({
  id: unitIdSchema,
  name: lineSchema(63).min(1, messageText('unit-without-name')),
  /** Where it hangs, in words. */
  location: lineSchema(80),
  /** `maker model`, as its kit card says. */
  model: lineSchema(80),
  mac: macSchema,
  serial: lineSchema(40),
  /** Port of the bench switch; null where it does not matter. */
  port: z.int(portRule).min(1, portRule).max(512, portRule).nullable(),
  /** The switch that it hangs on where it is mounted, and the port there, as they are labelled; empty if not known. */
  siteSwitch: lineSchema(40).default(''),
  sitePort: lineSchema(20).default(''),
})
export type Unit = z.infer<typeof unitSchema>
