/**
 * Checks of a proof: each has a code that never changes its meaning; what it is called is made of it when it is shown
 * (words/). A newer check of a code takes the place of the older, whatever address either was made at.
 */

import { z } from 'zod'
import { messageSchema } from '../message/message'

const codes = [
  'arp',
  'ping',
  'new-login',
  'factory-login',
  'further-logins',
  'factory-address',
  'service',
  'settings',
  'on-air',
  'clock',
  'joined',
  'joined-by-snmp',
  'carried-by-snmp',
  'http',
  'ssh',
  'telnet',
  'snmp',
  'snmp-in-clear',
  /** Kept before checks had codes. */
  'former',
] as const
export type CheckCode = (typeof codes)[number]

export const checkSchema = z.object({
  code: z.enum(codes),
  expected: messageSchema,
  observed: messageSchema,
  /** `remark`: not as asked, and no muster can set it on this model; it is told and holds nothing. */
  verdict: z.enum(['good', 'bad', 'remark']),
  /** ms since 1970. */
  at: z.number(),
})
export type Check = z.infer<typeof checkSchema>
