/**
 * A kit card: everything that is particular to one model, as data. In: a YAML file. Out: a card, or faults by line.
 */
import { LineCounter, type ParsedNode, parseDocument } from 'yaml'
import { z } from 'zod'
import { ipv4Schema } from '../addressing/ipv4'

const seconds = z.number().min(0).max(3600)
const band = z.enum(['2.4', '5', '6'])

export const cardRadioSchema = z.strictObject({
  name: z.string(),
  band,
  widths: z.array(z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160), z.literal(320)])).min(1),
  /** Channels that the hardware cannot use although the country would allow them. */
  leftOut: z.array(z.int()).default([]),
  /** Powers that can be set, conducted, dBm. */
  steps: z.array(z.number()).min(1),
  /** Antenna gain, dBi. */
  gain: z.number(),
  mostNetworks: z.int().min(1),
})
export type CardRadio = z.infer<typeof cardRadioSchema>

export const kitCardSchema = z.strictObject({
  maker: z.string().min(1),
  model: z.string().min(1),
  role: z.enum(['access-point', 'controller', 'managed-access-point', 'link-end', 'switch']),
  recognise: z.strictObject({ macPrefixes: z.array(z.string().regex(/^[0-9a-f]{2}(:[0-9a-f]{2}){2}$/, 'a MAC prefix is three pairs, such as 02:4f:52')), realm: z.string() }),
  factory: z.strictObject({
    address: ipv4Schema,
    prefix: z.int().min(8).max(30),
    addressing: z.enum(['static', 'dhcp-first']),
    login: z.strictObject({ user: z.string(), password: z.string() }),
    port: z.int().min(1).max(65535),
  }),
  power: z.strictObject({ poe: z.enum(['802.3af', '802.3at', '802.3bt']), watts: z.number().positive() }),
  /** How long the unit takes, seconds. */
  timing: z.strictObject({ start: seconds, apply: seconds, restart: seconds }),
  lights: z.record(z.string(), z.string()),
  reset: z.strictObject({ steps: z.array(z.string()).min(1), seconds }),
  radios: z.array(cardRadioSchema),
  limits: z.strictObject({ namePattern: z.string(), passwordShortest: z.int(), passwordLongest: z.int(), mostNetworks: z.int() }),
  quirks: z.strictObject({ countryResetsChannels: z.boolean(), appliesTogether: z.boolean(), mustSave: z.boolean(), ignoresPing: z.boolean() }),
  dialect: z.strictObject({ kind: z.literal('restconf'), managementInterface: z.string() }),
})
export type KitCard = z.infer<typeof kitCardSchema>

/** A fault of a card: where it stands and what is wrong. */
export interface CardFault {
  readonly line: number
  readonly field: string
  readonly reason: string
}

export type CardReading = { readonly ok: true; readonly card: KitCard } | { readonly ok: false; readonly faults: readonly CardFault[] }

/** `Ostrel O-40`: how a model is named on the kit list. */
export function modelName(card: Pick<KitCard, 'maker' | 'model'>): string {
  return `${card.maker} ${card.model}`
}

/** Reads a card. Each fault names the line of the field, or of the nearest part that is there. */
export function readKitCard(yamlText: string): CardReading {
  const lines = new LineCounter()
  const document = parseDocument(yamlText, { lineCounter: lines })
  if (document.errors.length > 0) {
    return { ok: false, faults: document.errors.map((error) => ({ line: error.linePos?.[0].line ?? 1, field: '', reason: error.message.split('\n')[0] ?? error.message })) }
  }
  const parsed = kitCardSchema.safeParse(document.toJS())
  if (parsed.success) return { ok: true, card: parsed.data }
  const lineOf = (path: readonly PropertyKey[]): number => {
    for (let length = path.length; length > 0; length -= 1) {
      const node = document.getIn(path.slice(0, length), true) as ParsedNode | undefined
      if (node?.range) return lines.linePos(node.range[0]).line
    }
    return 1
  }
  return { ok: false, faults: parsed.error.issues.map((issue) => ({ line: lineOf(issue.path), field: issue.path.join('.'), reason: issue.message })) }
}
