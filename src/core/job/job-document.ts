/**
 * A whole job as one file of our own: brief, kit, floors, locks, and the secrets sealed under a passphrase, or left
 * out.
 *
 * The form is published as a JSON Schema, made from the schemas here.
 */

import { z } from 'zod'
import { ipv4Schema } from '../address/ipv4'
import { briefSchema } from '../brief/brief'
import { bandSchema } from '../catalogue/values'
import { lineSchema } from '../input/line'
import { renamed } from '../input/renamed'
import { unitIdSchema, unitSchema } from '../kit/unit'
import { fromText, type Message, message, messageText } from '../message/message'
import { emptySite, siteSchema } from '../radio/propagation/floor'
import { drawingTypeSchema, looksLike } from './drawing-type'

export const jobFormat = 'air-muster-job'
export const slugSchema = z.string().regex(/^[a-z0-9-]{1,60}$/, messageText('job-name-unfit'))
export const jobNameSchema = lineSchema(120).min(1, messageText('job-without-name'))

/** Channel by band that the user has set. */
export const locksSchema = z.partialRecord(bandSchema, z.int())

const base64 = z.string().regex(/^[A-Za-z0-9+/]*={0,2}$/, messageText('not-base64'))
/** Cards of one job, characters altogether. */
const mostCardText = 256 * 1024
/** A job file with its drawings, characters. */
export const largestJobFile = 160 * 1024 * 1024

/**
 * AES-256-GCM under a key that scrypt (RFC 7914) makes of the passphrase; inside, a JSON object of names and secrets.
 */
export const sealedSecretsSchema = z.object({
  kdf: z.object({
    name: z.literal('scrypt'),
    n: z.int().min(16384).max(262144),
    r: z.int().min(8).max(16),
    p: z.int().min(1).max(4),
    salt: base64,
  }),
  cipher: z.literal('aes-256-gcm'),
  nonce: base64,
  tag: base64,
  sealed: base64,
})
export type SealedSecrets = z.infer<typeof sealedSecretsSchema>

const documentSchema = z.object({
  format: z.literal(jobFormat, messageText('not-a-job-file', { format: jobFormat })).default(jobFormat),
  version: z.literal(1, messageText('job-file-newer')).default(1),
  slug: slugSchema,
  name: jobNameSchema,
  brief: briefSchema,
  units: z
    .array(
      z.preprocess(
        // So it was called in files of before.
        (unit) => renamed(unit, 'place', 'location'),
        unitSchema.extend({
          locks: locksSchema.default({}),
          /** What it was planned on; locked or not, it keeps it where it may. */
          address: ipv4Schema.nullable().default(null),
          addressLocked: z.boolean().default(false),
        }),
      ),
    )
    .max(20_000)
    .default([]),
  site: siteSchema.default(emptySite),
  drawings: z
    .array(z.object({ floor: unitIdSchema, type: drawingTypeSchema, data: base64 }))
    .max(100)
    .default([]),
  /** Kit cards of the installation that the job uses, as YAML. */
  cards: z
    .array(z.string())
    .max(40)
    .refine(
      (cards) => cards.reduce((sum, text) => sum + text.length, 0) <= mostCardText,
      messageText('cards-too-large', { most: mostCardText / 1024 }),
    )
    .default([]),
  secrets: sealedSecretsSchema.nullable().default(null),
})

/** First bytes of a file in base64. */
const headOf = (data: string): Uint8Array =>
  Uint8Array.from(atob(data.slice(0, 4096)), (letter) => letter.codePointAt(0) ?? 0)

/** What one row of the kit list alone cannot know. */
const unique = ['id', 'name', 'mac', 'address'] as const

export const jobDocumentSchema = documentSchema.superRefine(({ units, site, drawings }, context) => {
  for (const field of unique) {
    const seen = new Map<string, string>()
    for (const [index, unit] of units.entries()) {
      const value = unit[field]?.toLowerCase()
      const first = value === undefined ? undefined : seen.get(value)
      if (first !== undefined)
        context.addIssue({
          code: 'custom',
          path: ['units', index, field],
          message: messageText('unit-same', { name: unit.name, what: field, other: first, value: unit[field] ?? '' }),
        })
      else if (value !== undefined) seen.set(value, unit.name)
    }
  }
  const drawn = new Set<string>()
  for (const [index, { floor, type, data }] of drawings.entries()) {
    const fault = (field: 'floor' | 'data', message: string): void =>
      context.addIssue({ code: 'custom', path: ['drawings', index, field], message })
    if (drawn.has(floor)) fault('floor', messageText('floor-drawn-twice', { floor }))
    else if (!site.floors.some(({ id }) => id === floor)) fault('floor', messageText('floor-unknown', { floor }))
    drawn.add(floor)
    if (!looksLike(type, headOf(data))) fault('data', messageText('drawing-not-what-it-says', { type }))
  }
})
export type JobDocument = z.infer<typeof jobDocumentSchema>

/** What is read under a former name too is described under its name of today. */
function asCalledNow({ zodSchema, jsonSchema }: { zodSchema: z.core.$ZodTypes; jsonSchema: object }): void {
  const { def } = zodSchema._zod
  if (def.type !== 'pipe' || def.in._zod.def.type !== 'transform') return
  const { $schema: _dialect, ...form } = z.toJSONSchema(def.out, { io: 'input', unrepresentable: 'any' })
  Object.assign(jsonSchema, form)
}

/** The form of a job file as JSON Schema 2020-12, for other programs. */
export function jobJsonSchema(): unknown {
  return {
    $comment: 'A job of Air Muster: brief, kit, floors and locks in one file.',
    ...(z.toJSONSchema(documentSchema, { io: 'input', unrepresentable: 'any', override: asCalledNow }) as object),
    title: 'Air Muster job',
  }
}

/** A slug made of a name, that none of the taken ones is. */
export function slugOf(name: string, taken: ReadonlySet<string>): string {
  const base =
    name
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[\u0300-\u036f]/g, '')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 50) || 'job'
  if (!taken.has(base)) return base
  for (let number = 2; ; number += 1) if (!taken.has(`${base}-${number}`)) return `${base}-${number}`
}

/** Faults of a file that is none, each with its place: `brief.management.cidr: …`. */
export function readJobDocument(
  value: unknown,
): { readonly ok: true; readonly document: JobDocument } | { readonly ok: false; readonly faults: readonly Message[] } {
  const parsed = jobDocumentSchema.safeParse(value)
  if (parsed.success) return { ok: true, document: parsed.data }
  return {
    ok: false,
    faults: parsed.error.issues.map((issue) =>
      message('at-path', { path: issue.path.join('.'), told: fromText(issue.message) }),
    ),
  }
}
