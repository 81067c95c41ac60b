/**
 * The command-line part of a kit card: how a model is spoken to by commands. What is written is a template that names
 * settings by their ids; what is read is an expression for each setting over what a command prints.
 */

import { z } from 'zod'
import { onlyReadIds, signInIds } from '../catalogue/catalogue'
import { patternSchema as pattern } from '../input/pattern'
import { messageText } from '../message/message'
import { commandSchema, type PromptCommand, type PromptWrite, readingSchema, writeSchema } from './prompt-parts'
import { ofUnitsAlone, placesNamed, templateFaults, unsafePlaces } from './prompt-template'
import { unitsAtPromptSchema } from './units-at-prompt'
import { valuePattern, valueWordsSchema } from './value-words'

/** What its radios really do. */
const airSchema = z.strictObject({
  run: z.string().min(1),
  /** First line of each radio's part, with a group `of`: the radio's name. */
  starts: pattern,
  onAir: pattern,
  listening: pattern.optional(),
  listensFor: valuePattern.optional(),
  channel: valuePattern.optional(),
  width: valuePattern.optional(),
  /** The channel that it left by itself, since it heard radar there. */
  leftForRadar: valuePattern.optional(),
  /** Within a radio's part: first line of each network's, with a group `of`. */
  networkStarts: pattern,
  ssid: valuePattern,
  security: valuePattern,
  bssid: valuePattern.optional(),
})

export type PromptAir = z.infer<typeof airSchema>

/** A session in which commands are typed, one after the other. */
const promptSchema = z.strictObject({
  /** What stands at the end of the last line when it waits for a command. */
  ends: pattern,
  /** What it asks in the middle, and what is typed then: pages, confirmations. */
  asks: z.array(z.strictObject({ sees: pattern, types: z.string() })).default([]),
  /** What ends a typed line. */
  enter: z.enum(['cr', 'lf', 'crlf']).default('cr'),
  /** `sign-by-sign` waits for the echo of each: a slow console drops what comes faster. */
  typed: z.enum(['at-once', 'sign-by-sign']).default('at-once'),
  /** Signs that do something as soon as they are typed, also within quotes, such as a question mark. */
  acts: z.string().default(''),
  /** Typed before such a sign, so that it stands for itself; without it a value with one is refused. */
  literal: z.string().min(1).optional(),
  /** What it asks where the connection itself has no sign-in. */
  signIn: z
    .strictObject({
      user: pattern,
      password: pattern,
      refused: pattern,
      /** An empty line makes it ask. */
      wakes: z.boolean().default(false),
    })
    .optional(),
})
export type AtPrompt = z.infer<typeof promptSchema>

const fields = z.strictObject({
  kind: z.literal('prompt'),
  over: z.enum(['ssh', 'telnet', 'tcp']),
  /** How commands are typed; absent where each runs by itself and tells how it ended. */
  prompt: promptSchema.optional(),
  /** How a value stands in a command: as one word of a POSIX shell, between double quotes, or bare. */
  escape: z.enum(['shell', 'quoted', 'bare']),
  /** Output that means no. */
  refused: z.array(pattern).default([]),
  /** Its MAC, so that nobody else is set in its place. */
  mac: z.strictObject({ run: z.string().min(1), value: valuePattern }),
  values: z.record(z.string(), valueWordsSchema).default({}),
  read: z.array(readingSchema).min(1),
  write: z.array(writeSchema).min(1),
  /** Takes a network away that nobody asked for, where networks are not written whole. */
  remove: z.array(commandSchema).default([]),
  password: z.array(commandSchema).min(1),
  /** Once it was reached at its new address: what would have taken the change back is called off. */
  confirm: z.array(commandSchema).default([]),
  backup: z.string().min(1),
  unsaved: z.strictObject({ run: z.string().min(1), value: pattern }).optional(),
  save: z.array(commandSchema).default([]),
  restart: z.array(commandSchema).min(1),
  /** What its radios really do; left out where it has none. */
  air: airSchema.optional(),
  /** Of a controller: the access points that are set through it. */
  units: unitsAtPromptSchema.optional(),
})

export const promptDialectSchema = fields.superRefine((dialect, context) => {
  const { over, prompt, write, remove, password, confirm, save, restart, units } = dialect
  const listed = (path: PropertyKey[], each: readonly PromptCommand[]): [PropertyKey[], PromptCommand][] =>
    each.map((one, index) => [[...path, index], one])
  const written = (path: PropertyKey[], writes: readonly PromptWrite[]): [PropertyKey[], PromptCommand][] =>
    writes.flatMap(({ commands: each }, at) => listed([...path, at, 'commands'], each))
  const own = [
    ...written(['write'], write),
    ...Object.entries({ remove, password, confirm, save, restart }).flatMap(([name, each]) => listed([name], each)),
  ]
  const ofUnits = units
    ? [...written(['units', 'write'], units.write), ...listed(['units', 'takeIn'], units.takeIn)]
    : []
  for (const [path, { run }] of own)
    if (ofUnitsAlone.some((name) => placesNamed(run).has(name)))
      context.addIssue({
        code: 'custom',
        path: [...path, 'run'],
        message: messageText('known-in-units-alone', { names: ofUnitsAlone.join(' and ') }),
      })
  for (const [path, { run, input }] of [...own, ...ofUnits]) {
    // What is no template is told of where it stands.
    for (const message of templateFaults(run).length === 0 ? unsafePlaces(run, dialect.escape) : [])
      context.addIssue({ code: 'custom', path: [...path, 'run'], message })
    if (input !== undefined && prompt)
      context.addIssue({ code: 'custom', path: [...path, 'input'], message: messageText('prompt-without-input') })
    if (run.includes('\n') && prompt)
      context.addIssue({ code: 'custom', path: [...path, 'run'], message: messageText('prompt-of-one-line') })
  }
  if (over !== 'ssh' && !prompt?.signIn)
    context.addIssue({ code: 'custom', path: ['prompt'], message: messageText('prompt-missing', { over }) })
})
export type PromptDialect = z.infer<typeof promptDialectSchema>

/**
 * What a card says that its model can, and has no command for.
 * @param can  ids of the settings that it takes, and whether it shows them
 */
export function uncovered(
  can: Readonly<Record<string, { readable: 'yes' | 'no' } | undefined>>,
  dialect: PromptDialect,
) {
  const bandsByRadio = dialect.read.some(({ starts }) => starts?.includes('(?<radio>'))
  const told = new Set(dialect.read.flatMap(({ tells, says }) => [...Object.keys(tells), ...Object.keys(says)]))
  if (bandsByRadio) told.add('network.bands')
  const sets = new Set(dialect.write.flatMap((write) => write.sets))
  return Object.entries(can).flatMap(([id, detail]): { id: string; message: string }[] => {
    if (signInIds.has(id)) return []
    const isSet = sets.has(id) || sets.has(`${id.split('.')[0]}.*`)
    if (detail?.readable !== 'no' && !told.has(id))
      return [{ id, message: messageText('no-command-reads', { setting: id }) }]
    return isSet || onlyReadIds.has(id) ? [] : [{ id, message: messageText('no-command-sets', { setting: id }) }]
  })
}
