/** Places on a unit's pages, as a kit card names them, and what is put there. */

import { parse as parseSelector } from 'css-what'
import { z } from 'zod'
import { isSettingId, type SettingId } from '../catalogue/catalogue'
import { messageText } from '../message/message'
import { describedSchema } from './page-element'
import { valuePattern, valueWordsFields } from './value-words'

/** A CSS selector (Selectors Level 4, W3C). */
export const selectorSchema = z
  .string()
  .min(1)
  .max(300)
  .superRefine((text, context) => {
    try {
      parseSelector(text)
    } catch (error) {
      const reason = error instanceof Error ? error.message : messageText('not-understood')
      context.addIssue({ code: 'custom', message: messageText('selector-unfit', { text: text.slice(0, 60), reason }) })
    }
  })

/** An element by a selector, or as a person would describe it. */
export const atSchema = z.union([selectorSchema, describedSchema])
export type At = z.infer<typeof atSchema>

/** A page of the unit's own: a path, never another host. */
export const pathSchema = z
  .string()
  .regex(/^\/(?!\/)[^\s\\]*$/, messageText('page-not-a-path'))
  .superRefine((text, context) => {
    for (const [, name = ''] of text.matchAll(/\{\{([^}]*)\}\}/g))
      if (name !== 'radio.name' && name !== 'slot')
        context.addIssue({ code: 'custom', message: messageText('place-unknown-in-path', { name }) })
  })

/**
 * Where something stands on a page, and how it is read: a field's value, `on` or `off` of a tick box, the choice of
 * a group of buttons, else the words of the element.
 */
const placeFields = {
  at: atSchema,
  /** An attribute instead of what is seen. */
  attribute: z
    .string()
    .regex(/^[a-z-]{1,40}$/)
    .optional(),
  /** The value within its text. */
  shows: valuePattern.optional(),
}
export const plainPlaceSchema = z.strictObject(placeFields)
export type PagePlace = z.infer<typeof plainPlaceSchema>

/** A value that is told by what is ticked: one of several, or each that belongs to a list. */
const ticksSchema = z.strictObject({ ticks: z.record(z.string(), atSchema) })
const wordsPlaceSchema = z.strictObject({
  ...placeFields,
  ...valueWordsFields,
  /** A second field, where it is typed twice. */
  again: atSchema.optional(),
})
export type PageWords = z.infer<typeof wordsPlaceSchema>
export const valuePlaceSchema = z.union([wordsPlaceSchema, ticksSchema])
export type PageValue = z.infer<typeof valuePlaceSchema>
export const valuesSchema = z.record(z.string(), valuePlaceSchema)

/** Something put into a field before a press: what is said, or a setting of what the unit is to be. */
export const fillSchema = z.union([
  z.strictObject({ at: atSchema, types: z.string() }),
  z.strictObject({ at: atSchema, ticks: z.boolean() }),
  z.strictObject({
    at: atSchema,
    setting: z.string().refine((id): id is SettingId => isSettingId(id), {
      error: (issue) => messageText('setting-unknown', { setting: String(issue.input) }),
    }),
    ...valueWordsFields,
    shows: valuePattern.optional(),
  }),
])
export type PageFill = z.infer<typeof fillSchema>

/** How a page is come to: by its path, and by what is pressed from there on. */
export const wayFields = { path: pathSchema, reach: z.array(atSchema).max(8).default([]) }
export interface Way {
  readonly path: string
  readonly reach: readonly At[]
}
/** What has to be pressed, and how it is known to have been taken. */
export const pressFields = {
  press: atSchema,
  /** What may ask whether one is sure, and is pressed then. */
  confirms: z.array(atSchema).max(4).default([]),
}

/** How a page says that it was saved, where that is not what all its pages say: what is seen, or is gone by then. */
export const saidFields = { saved: atSchema.optional(), savedWhenGone: atSchema.optional() }
