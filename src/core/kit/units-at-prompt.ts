/**
 * Access points as a controller's commands show them. How one is found in what is printed, taken in, read and set, and
 * what its states are called.
 */

import { z } from 'zod'
import { patternSchema as pattern } from '../input/pattern'
import { messageText } from '../message/message'
import { shownStateSchema } from './joining'
import { commandSchema, readingSchema, writeSchema } from './prompt-parts'
import { ofUnitsAlone, placesNamed, templateFaults } from './prompt-template'
import { valuePattern } from './value-words'

export const unitsAtPromptSchema = z
  .strictObject({
    /** Prints all of them. */
    run: z.string().min(1),
    /** First line of each unit's part, with a group `of`: its MAC or its serial number. */
    starts: pattern.refine((text) => text.includes('(?<of>'), messageText('group-of-missing')),
    knownBy: z.enum(['mac', 'serial']).default('mac'),
    name: valuePattern.optional(),
    /** Where it answers; left out where no line says, and the wire is asked. */
    address: valuePattern.optional(),
    state: valuePattern,
    /** What each state that is shown stands for. */
    states: z.record(z.string(), shownStateSchema),
    /** Lets in one that waits to be; none where whoever finds it is let in. */
    takeIn: z.array(commandSchema).default([]),
    /** Of the unit and of its radios: the networks are the controller's. */
    read: z.array(readingSchema).min(1),
    write: z.array(writeSchema).min(1),
  })
  .superRefine(({ states, read, write }, context) => {
    const fault = (path: PropertyKey[], message: string): void => context.addIssue({ code: 'custom', path, message })
    if (!Object.values(states).includes('run')) fault(['states'], messageText('no-joined-state'))
    const isOfNetworks = messageText('networks-of-controller')
    const known = new Set<string>(ofUnitsAlone)
    for (const [at, { run, per }] of read.entries()) {
      if (per === 'network') fault(['read', at, 'per'], isOfNetworks)
      for (const message of templateFaults(run)) fault(['read', at, 'run'], message)
      for (const name of placesNamed(run))
        if (!known.has(name)) fault(['read', at, 'run'], messageText('place-not-known-yet', { name }))
    }
    for (const [at, { per }] of write.entries()) if (per === 'network') fault(['write', at, 'per'], isOfNetworks)
  })
export type UnitsAtPrompt = z.infer<typeof unitsAtPromptSchema>
