/** What the command-line part of a kit card is made of: what is printed and read, what is run, what is written. */

import { z } from 'zod'
import { isSettingId } from '../catalogue/catalogue'
import { patternSchema as pattern } from '../input/pattern'
import { messageText } from '../message/message'
import { templateFaults } from './prompt-template'
import { valuePattern } from './value-words'

/** Its places name settings: they are checked against the table of settings when the card is read. */
const template = z
  .string()
  .min(1)
  .superRefine((text, context) => {
    for (const message of templateFaults(text)) context.addIssue({ code: 'custom', message })
  })
const scopes = z.enum(['unit', 'network', 'radio'])

/** What one command prints, and where each setting stands in it. */
export const readingSchema = z
  .strictObject({
    run: z.string().min(1),
    per: scopes.default('unit'),
    /**
     * First line of each network's or radio's part, with a group `of`: the network's id or the radio's name. A
     * network's may have a group `radio`: the bands of a network are those of the radios that it was seen on.
     */
    starts: pattern.optional(),
    /** Read by an expression with a group `value`, which may run over all lines of the part. */
    tells: z.record(z.string(), valuePattern).default({}),
    /** True of every part that is there. */
    says: z.record(z.string(), z.json()).default({}),
  })
  .superRefine(({ per, starts, tells, says }, context) => {
    if (per !== 'unit' && !starts?.includes('(?<of>'))
      context.addIssue({ code: 'custom', path: ['starts'], message: messageText('starts-without-group', { per }) })
    for (const id of [...Object.keys(tells), ...Object.keys(says)]) {
      if (!isSettingId(id))
        context.addIssue({
          code: 'custom',
          path: ['tells', id],
          message: messageText('setting-unknown', { setting: id }),
        })
      else if ((per === 'unit') !== !(id.startsWith('network.') || id.startsWith('radio.')))
        context.addIssue({
          code: 'custom',
          path: ['tells', id],
          message: messageText('not-a-setting-of', { setting: id, scope: per }),
        })
    }
  })
export type PromptReading = z.infer<typeof readingSchema>

export const commandSchema = z.strictObject({
  run: template,
  /** Goes to the command's input, a value a place: values that would be more than one line are refused. */
  input: template.optional(),
  /** Seconds that it may take. */
  within: z.number().positive().max(300).default(20),
})
export type PromptCommand = z.infer<typeof commandSchema>

export const writeSchema = z.strictObject({
  /** Settings that it writes, whichever of them differs: ids, or a whole group such as `network.*`. */
  sets: z
    .array(
      z.string().refine((id) => isSettingId(id) || /^(network|radio)\.\*$/.test(id), {
        error: (issue) => messageText('setting-unknown', { setting: String(issue.input) }),
      }),
    )
    .min(1),
  /** Once for the unit, or for each network or radio that it concerns. */
  per: scopes.default('unit'),
  commands: z.array(commandSchema).min(1),
})
export type PromptWrite = z.infer<typeof writeSchema>
