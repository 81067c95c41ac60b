/**
 * The record of a showing as it is kept with the job: a window that is opened later, by another runner, goes on from
 * it.
 */
import { z } from 'zod'
import { settingIdSchema } from '../config/unit-config'
import { jsonIn } from '../input/json'
import { describedSchema } from '../kit/page-element'
import { valueWordsFields } from '../kit/value-words'
import { actsFor, pressRoles } from './act'
import { saidStateSchema } from './join-states'
import { joinedRowSchema } from './joined-row'
import { elementFactsSchema, notedRowSchema, protocolLogins } from './noted'
import { nothingShown, type ShownRecord } from './record'

const words = z.string().max(4000)
const number = z.int().min(0)
const key = { id: settingIdSchema, of: z.string().max(64) }
const how = z.object({ ...valueWordsFields, separator: z.string().optional(), shows: z.string() }).partial()

const valueSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('setting'), ...key, how }),
  z.object({ kind: z.literal('tick-of'), ...key, tick: words }),
  z.object({ kind: z.literal('factory'), part: z.enum(['user', 'password']) }),
  z.object({ kind: z.literal('always'), text: words }),
  z.object({ kind: z.literal('ticked'), ticked: z.boolean() }),
  z.object({ kind: z.literal('left-out') }),
  z.object({ kind: z.literal('unknown') }),
])

const actSchema = z.object({
  number,
  for: z.enum(actsFor).default('itself'),
  path: words,
  at: describedSchema,
  label: words,
  does: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('puts'), value: valueSchema, stood: z.boolean(), offered: z.array(words) }),
    z.object({ kind: z.literal('press'), role: z.enum(pressRoles), row: notedRowSchema.optional() }),
  ]),
  after: number,
  appeared: z.array(describedSchema),
})

const recordSchema = z.object({
  from: z.object({ address: words, scheme: z.enum(['http', 'https']), port: number }).optional(),
  login: z.enum(protocolLogins).optional(),
  acts: z.array(actSchema),
  mac: z.object({ path: words, at: describedSchema }).optional(),
  rows: z.record(z.string(), notedRowSchema),
  before: z.array(elementFactsSchema),
  came: z.object({ path: words, since: number, by: z.record(z.string(), number) }),
  named: z.record(z.string(), words),
  texts: z.record(z.string(), words),
  joined: joinedRowSchema.optional(),
  states: z.record(z.string(), saidStateSchema).default({}),
})

export const keptRecord = (record: ShownRecord): string => JSON.stringify(record)

/** @returns undefined where nothing is kept, or what is kept is of a release that wrote it otherwise */
export function recordIn(text: string | undefined): ShownRecord | undefined {
  const read = recordSchema.safeParse(jsonIn(text ?? '')).data
  // JSON holds nothing that is undefined: what may be left out is left out.
  return read && ({ ...nothingShown, ...read } as unknown as ShownRecord)
}
