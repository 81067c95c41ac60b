/**
 * What a unit's page tells of what hands do on it, while they show how the model is set. It is never believed unread.
 */
import { z } from 'zod'
import { elementUses } from '../kit/page-element'

const words = z.string().max(200)
export const elementFactsSchema = z.object({
  seen: z.int().min(0),
  use: z.enum(elementUses),
  ...{ name: words, id: words, label: words, text: words, hint: words, role: words, heading: words, row: words },
})

/** Where something was pressed in one of several rows that are alike. */
export const notedRowSchema = z.object({
  /** Selector of all of them. */
  each: z.string().max(300),
  /** Selector of what the row is called by, within it. */
  name: z.string().max(300),
})
export type NotedRow = z.infer<typeof notedRowSchema>

const puts = [
  z.object({ kind: z.literal('typed'), seen: z.int(), text: z.string().max(2000) }),
  z.object({ kind: z.literal('ticked'), seen: z.int(), ticked: z.boolean(), isOneOfSeveral: z.boolean() }),
  /** `value`: what the page sends for what was chosen, and for all that it offers; its words where it says no more. */
  z.object({ kind: z.literal('chosen'), seen: z.int(), value: words, offered: z.array(words).max(600) }),
] as const
const putsSchema = z.discriminatedUnion('kind', puts)
/** A field, and what was put into it or stands there. */
export type Puts = z.infer<typeof putsSchema>

const handsSchema = z.discriminatedUnion('kind', [
  ...puts,
  /** `isButton`: what is made to be pressed; a link or a tab leads on. */
  z.object({
    ...{ kind: z.literal('pressed'), seen: z.int(), row: notedRowSchema.nullable(), isButton: z.boolean() },
    /** Of the row that it is in, what else is in it. */
    within: z.array(z.int()).max(200).default([]),
    /** What stands in the fields that are sent by it, passwords left out. */
    standing: z.array(putsSchema).max(200).default([]),
  }),
])

export const notedSchema = z.object({
  /** Path of the page, with what stands after `#`. */
  path: z.string().max(2000),
  /** All that is seen on it; numbers in what hands did are of these. */
  facts: z.array(elementFactsSchema).max(4000),
  /** Undefined where a page came to be as it is by itself. */
  hands: handsSchema.optional(),
  /** A field that was entered, and in which nothing was done yet. */
  entered: z.object({ seen: z.int(), isPassword: z.boolean() }).optional(),
  /** What rows of its tables may be called by, and where in them that stands; `isFirst`: what stands in one first. */
  rows: z
    .array(notedRowSchema.extend({ text: words, isFirst: z.boolean().default(true) }))
    .max(600)
    .default([]),
})
/** Ways to ask for a login by the protocol itself: RFC 7617 and RFC 7616. */
export const protocolLogins = ['basic', 'digest'] as const
export type ProtocolLogin = (typeof protocolLogins)[number]
export type Noted = z.infer<typeof notedSchema>
