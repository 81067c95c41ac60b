/**
 * An element of a unit's page as a person would describe it: by its label, its words, the heading above it, its row.
 * A card says one element in several ways, so that one that is found no more does not matter.
 */

import { z } from 'zod'
import { messageText } from '../message/message'

/** What hands do with an element; `show`: they read it. */
export const elementUses = ['type', 'choose', 'tick', 'press', 'give', 'show'] as const
export type ElementUse = (typeof elementUses)[number]

const words = z.string().min(1).max(200)
/** What one way of describing an element may go by; all that is said has to fit. */
const tellingFields = {
  name: words.optional(),
  id: words.optional(),
  /** Words that belong to it: its label, the cell or the term before it. */
  label: words.optional(),
  /** Words on it. */
  text: words.optional(),
  /** Words in it while it is empty. */
  hint: words.optional(),
  /** ARIA role (WAI-ARIA 1.2). */
  role: words.optional(),
  /** The nearest heading, legend or title of a dialog above it. */
  heading: words.optional(),
  /** Words of the first cell of its row. */
  row: words.optional(),
}
export const tellings = ['name', 'id', 'label', 'text', 'hint', 'role', 'heading', 'row'] as const
export type Telling = (typeof tellings)[number]

const descriptionSchema = z
  .strictObject({
    ...tellingFields,
    /** Words that stand in those on it, where the others are of one unit or site. */
    part: words.optional(),
    /** Which of those that fit, counted from 1 in the order of the page. */
    nth: z.int().min(1).max(500).optional(),
  })
  .refine(
    (each) => each.part !== undefined || tellings.some((telling) => each[telling] !== undefined),
    messageText('element-not-described'),
  )
export type Description = z.infer<typeof descriptionSchema>

/** Ways of describing one element that a card holds at the most. */
export const mostDescriptions = 16

export const describedSchema = z.strictObject({
  use: z.enum(elementUses),
  /** Ways of describing it, the steadiest first: those that fit one element have to agree. */
  by: z.array(descriptionSchema).min(1).max(mostDescriptions),
})
export type Described = z.infer<typeof describedSchema>

/** What is known of an element that is seen on a page. Empty where there is nothing of the kind. */
export interface ElementFacts extends Readonly<Record<Telling, string>> {
  /** Its number among those that are seen. */
  readonly seen: number
  readonly use: ElementUse
}
