/** Parts of a kit card that are shared by several fields. */
import { z } from 'zod'
import { radioModes } from '../catalogue/values'
import { oldCryptoSchema } from './old-crypto'
import { pagesDialectSchema } from './pages-dialect'
import { promptDialectSchema } from './prompt-dialect'

const widths = [20, 40, 80, 160, 320] as const
export const poeTypes = ['802.3af', '802.3at', '802.3bt'] as const

/** What a model does to the value of a setting that it takes; nothing where it is plain. */
export const canSchema = z.strictObject({
  /** `no`: it is written and never shown. */
  readable: z.enum(['yes', 'no']).default('yes'),
  /** Rates are set in whole steps of so many kbit/s. */
  step: z.number().positive().optional(),
  /** The values that it takes, where it does not take all. */
  values: z
    .array(z.union([z.string(), z.number(), z.boolean(), z.null()]))
    .min(1)
    .optional(),
  /** How a time zone is written. */
  as: z.enum(['iana', 'posix']).optional(),
})
export type Can = z.infer<typeof canSchema>

/** How a model goes about its settings; the steps of a muster follow from it. */
export const doesSchema = z.strictObject({
  /** Changes wait until they are applied together, or each takes effect at once. */
  applies: z.enum(['staged', 'at-once']),
  /** Whether what is in effect survives a restart by itself, or only when the unit is told to save. */
  saves: z.enum(['itself', 'on-command']),
  /** Addresses at which its management service listens. */
  reachedBy: z.enum(['link-local', 'ipv4', 'both']).default('ipv4'),
  /** `free`, or the one country that it can be set to. */
  country: z.union([z.literal('free'), z.string().regex(/^[A-Z]{2}$/)]).default('free'),
  /** Setting the country resets its channels: it gets a moment, and is read again. */
  countryResetsChannels: z.boolean().default(false),
  ignoresPing: z.boolean().default(false),
  /** How many may be signed in at once. */
  sessions: z.enum(['one', 'many']).default('many'),
  /**
   * Of a controller: frames of clients leave at the access point that they joined, or come to the controller first.
   * The switch port of that one carries their VLANs.
   */
  clientFrames: z.enum(['bridged', 'tunnelled']).default('bridged'),
  /** It answers slowly: each answer is waited for three times as long. */
  slow: z.boolean().default(false),
  /** What it speaks that is no longer safe, by name: nothing of the kind is spoken that is not named. */
  old: z.array(oldCryptoSchema).default([]),
})

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
  /** Whether a step is what all chains put out together, or each of them. */
  stepsAre: z.enum(['total', 'per-chain']).default('total'),
  /** Antenna gain, dBi. */
  gain: z.number(),
  /** By how much its pattern falls off above 30 degrees of elevation, dB; 0 for antennas alike in all directions. */
  above30Db: z.number().min(0).max(40).default(0),
  /** Lowers its power by itself where less is enough (transmit power control): some limits are lower without. */
  tpc: z.boolean().default(false),
  mostNetworks: z.int().min(1),
  /** Wireless modes that can be chosen; none where the model chooses by itself. */
  modes: z.array(z.enum(radioModes)).default([]),
})
export type CardRadio = z.infer<typeof cardRadioSchema>

export const dialectSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('restconf'), managementInterface: z.string() }),
  z.strictObject({
    kind: z.literal('netconf'),
    managementInterface: z.string(),
    /** Whether its interfaces show their MAC; where they do not, the lane alone says that it is this unit. */
    showsMac: z.enum(['yes', 'no']).default('yes'),
    /** Of a controller: what tells how far an access point has joined; `snmp` by CAPWAP-BASE-MIB (RFC 5833) as well. */
    joinsBy: z.enum(['module', 'snmp']).default('module'),
  }),
  promptDialectSchema,
  pagesDialectSchema,
  /** A command line in the words of a former release, which spoke none. */
  z.strictObject({ kind: z.literal('unspoken') }),
  /** Set through its controller, named as `maker model`. */
  z.strictObject({ kind: z.literal('managed'), by: z.array(z.string()).min(1) }),
  /** What hands alone can set: its own pages, a console, a program of its maker's. */
  z.strictObject({ kind: z.literal('by-hand') }),
  z.strictObject({ kind: z.literal('snmp'), version: z.enum(['2c', '3']) }),
])
