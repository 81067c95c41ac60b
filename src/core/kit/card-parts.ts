/** Parts of a kit card that are shared by several fields. */
import { z } from 'zod'
import { patternSchema as pattern } from '../input/pattern'

const widths = [20, 40, 80, 160, 320] as const
export const poeTypes = ['802.3af', '802.3at', '802.3bt'] as const

export const cardRadioSchema = z.strictObject({
  name: z.string(),
  band: z.enum(['2.4', '5', '6']),
  widths: z.array(z.union(widths.map((width) => z.literal(width)))).min(1),
  /** Transmit and receive chains. */
  chains: z.int().min(1).max(16).default(2),
  /** Channels that the hardware cannot use although the country would allow them. */
  leftOut: z.array(z.int()).default([]),
  /** Powers that can be set, conducted, dBm. */
  steps: z.array(z.number()).min(1),
  /** Antenna gain, dBi. */
  gain: z.number(),
  mostNetworks: z.int().min(1),
})
export type CardRadio = z.infer<typeof cardRadioSchema>

/** What a model can do for a network beside carrying it; what is missing here is not set by a muster. */
export const networkFeatures = [
  'rate-limits',
  'most-clients',
  'hours',
  'steering',
  'least-signal',
  'fast-roaming',
  'mac-list',
] as const
export type NetworkFeature = (typeof networkFeatures)[number]

/** How a value is read back: a command, and an expression whose named group `value` holds it. */
const readingSchema = z.strictObject({
  command: z.string().min(1),
  value: pattern.refine((text) => text.includes('(?<value>'), 'the expression names a group: (?<value>…)'),
})

/** Dialogues of a command line: what to wait for, what to type. `{…}` is filled in. */
export const dialoguesSchema = z.strictObject({
  prompt: pattern,
  /** What the unit asks for on the way in, and what is answered. */
  signIn: z.array(z.strictObject({ sees: pattern, types: z.string() })),
  /** Commands by setting. */
  set: z.record(z.string(), z.array(z.string().min(1)).min(1)),
  read: z.record(z.string(), readingSchema),
  /** Output that means no. */
  refused: z.array(pattern).min(1),
  apply: z.array(z.string()),
  save: z.array(z.string()),
  restart: z.array(z.string()).min(1),
})

export const dialectSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('restconf'), managementInterface: z.string() }),
  z.strictObject({ kind: z.literal('netconf'), managementInterface: z.string(), port: z.int().default(830) }),
  z.strictObject({ kind: z.literal('cli'), over: z.enum(['ssh', 'telnet', 'tcp']), dialogues: dialoguesSchema }),
  /** Set through its controller, named as `maker model`. */
  z.strictObject({ kind: z.literal('managed'), by: z.array(z.string()).min(1) }),
  z.strictObject({ kind: z.literal('snmp'), version: z.enum(['2c', '3']) }),
])
