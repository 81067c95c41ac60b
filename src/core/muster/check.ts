/**
 * Checks of a proof: each has a code that never changes its meaning; what it is called is made of it when it is shown.
 * A newer check of a code takes the place of the older, whatever address either was made at.
 */
import { z } from 'zod'

const names = {
  arp: 'Answers by ARP',
  ping: 'Ping',
  'new-login': 'New login',
  'factory-login': 'Factory login',
  'further-logins': 'Logins of further users',
  'factory-address': 'Factory address',
  service: 'A service to manage it by',
  settings: 'Settings read back',
  'on-air': 'Networks on air',
  clock: 'Clock',
  joined: 'Joined its controller',
  'joined-by-snmp': "Its controller's SNMP agent",
  'carried-by-snmp': 'Networks, by its SNMP agent',
  http: 'Plain HTTP',
  ssh: 'SSH',
  telnet: 'Telnet',
  snmp: 'SNMP as its user',
  'snmp-in-clear': 'SNMP without a user',
  /** Kept before checks had codes. */
  former: 'Checked before',
} as const
export type CheckCode = keyof typeof names
const codes = Object.keys(names) as [CheckCode, ...CheckCode[]]

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

/** What checks that failed say: the first of them, and all, a sentence each. */
export function failedWords(bad: readonly [Check, ...Check[]]): { first: string; all: string[] } {
  const [first] = bad
  return {
    first: `${checkWords(first)}: ${first.observed}.`,
    all: bad.map((check) => `${checkWords(check)}: ${check.observed}, expected ${check.expected}.`),
  }
}

export function checkWords({ code }: Pick<Check, 'code'>): string {
  return names[code]
}
