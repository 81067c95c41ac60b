/**
 * Checks of a proof: each has a code that never changes its meaning; what it is called is made of it when it is shown (words/).
 * A newer check of a code takes the place of the older, whatever address either was made at.
 */
import { z } from 'zod'

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

const today = z.object({
  code: z.enum(codes),
  expected: z.string(),
  observed: z.string(),
  /** `remark`: not as asked, and no muster can set it on this model; it is told and holds nothing. */
  verdict: z.enum(['good', 'bad', 'remark']),
  /** ms since 1970. */
  at: z.number(),
})
export type Check = z.infer<typeof today>

const formerCodes: readonly [RegExp, CheckCode][] = [
  [/^ARP/, 'arp'],
  [/^Ping/, 'ping'],
  [/^New login/, 'new-login'],
  [/^Factory login/, 'factory-login'],
  [/^Factory address/, 'factory-address'],
  [/^Settings/, 'settings'],
  [/^Networks/, 'on-air'],
]
const former = today
  .omit({ code: true })
  .extend({ what: z.string() })
  .transform(
    ({ what, ...check }): Check => ({
      ...check,
      code: formerCodes.find(([pattern]) => pattern.test(what))?.[1] ?? 'former',
    }),
  )
export const checkSchema = z.union([today, former])
