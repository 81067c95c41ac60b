/**
 * Access points as a controller's pages show them: a row for each. How one is found there, taken in, opened and set,
 * and what its states are called.
 */

import { z } from 'zod'
import { isSettingId } from '../catalogue/catalogue'
import { messageText } from '../message/message'
import { shownStateSchema } from './joining'
import {
  atSchema,
  plainPlaceSchema,
  pressFields,
  saidFields,
  selectorSchema,
  valuesSchema,
  wayFields,
} from './page-places'

export const unitsInRowsSchema = z
  .strictObject({
    ...wayFields,
    /** What must be there before the rows are counted. */
    ready: z.array(atSchema).default([]),
    row: selectorSchema,
    /** What a row is known by: the unit's MAC, or its serial number. */
    mac: plainPlaceSchema.optional(),
    serial: plainPlaceSchema.optional(),
    name: plainPlaceSchema.optional(),
    /** Where it answers; left out where no row says, and the wire is asked. */
    address: plainPlaceSchema.optional(),
    state: plainPlaceSchema,
    /** What each state that is shown stands for. */
    states: z.record(z.string(), shownStateSchema),
    /** What is pressed in the row of one that waits to be taken in; left out where whoever finds it is let in. */
    takeIn: z.strictObject({ ...pressFields, ...saidFields }).optional(),
    /** What is pressed in its row to set it. */
    open: atSchema,
    /** Leaves what was opened as it is; where there is nothing of the kind, the page is come to anew. */
    close: atSchema.optional(),
    fields: valuesSchema,
    /** The fields of each radio, by its band. */
    radios: z.record(z.string(), valuesSchema).default({}),
    ...pressFields,
    ...saidFields,
  })
  .superRefine(({ mac, serial, fields, radios, states }, context) => {
    const fault = (path: PropertyKey[], message: string): void => context.addIssue({ code: 'custom', path, message })
    if (!mac && !serial) fault(['mac'], messageText('row-known-by'))
    if (!Object.values(states).includes('run')) fault(['states'], messageText('no-joined-state'))
    for (const id of Object.keys(fields))
      if (!isSettingId(id) || /^(network|radio)\./.test(id))
        fault(['fields', id], messageText('not-a-setting-of-unit', { setting: id }))
    for (const [band, own] of Object.entries(radios))
      for (const id of Object.keys(own))
        if (!isSettingId(id) || !id.startsWith('radio.'))
          fault(['radios', band, id], messageText('not-a-setting-of-radio', { setting: id }))
  })
export type UnitsInRows = z.infer<typeof unitsInRowsSchema>
