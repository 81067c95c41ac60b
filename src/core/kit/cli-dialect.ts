/**
 * The command-line part of a kit card: how a model is spoken to by commands. What is written is a template that names
 * settings by their ids; what is read is an expression for each setting over what a command prints.
 */
import { z } from 'zod'
import { isSettingId, onlyReadIds, signInIds } from '../config/setting-ids'
import { patternSchema as pattern } from '../input/pattern'
import { templateFaults, unsafePlaces } from './cli-template'
import { valuePattern, valueWordsSchema } from './value-words'

/** What a card calls each piece of a template: checked against the table of settings when the card is read. */
const template = z
  .string()
  .min(1)
  .superRefine((text, context) => {
    for (const message of templateFaults(text)) context.addIssue({ code: 'custom', message })
  })
const scopes = z.enum(['unit', 'network', 'radio'])

/** What one command prints, and where each setting stands in it. */
const readingSchema = z
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
      context.addIssue({ code: 'custom', path: ['starts'], message: `per ${per} takes "starts" with a group (?<of>…)` })
    for (const id of [...Object.keys(tells), ...Object.keys(says)]) {
      if (!isSettingId(id))
        context.addIssue({ code: 'custom', path: ['tells', id], message: `"${id}" is not in the table of settings` })
      else if ((per === 'unit') !== !(id.startsWith('network.') || id.startsWith('radio.')))
        context.addIssue({ code: 'custom', path: ['tells', id], message: `"${id}" is not a setting of a ${per}` })
    }
  })
export type CliReading = z.infer<typeof readingSchema>

const commandSchema = z.strictObject({
  run: template,
  /** Goes to the command's input, a value a place: values that would be more than one line are refused. */
  input: template.optional(),
  /** Seconds that it may take. */
  within: z.number().positive().max(300).default(20),
})
export type CliCommand = z.infer<typeof commandSchema>

const writeSchema = z.strictObject({
  /** Settings that it writes, whichever of them differs: ids, or a whole group such as `network.*`. */
  sets: z
    .array(
      z.string().refine((id) => isSettingId(id) || /^(network|radio)\.\*$/.test(id), {
        error: (issue) => `"${issue.input}" is not in the table of settings`,
      }),
    )
    .min(1),
  /** Once for the unit, or for each network or radio that it concerns. */
  per: scopes.default('unit'),
  commands: z.array(commandSchema).min(1),
})
export type CliWrite = z.infer<typeof writeSchema>

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
export type CliPrompt = z.infer<typeof promptSchema>

const fields = z.strictObject({
  kind: z.literal('cli'),
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
  air: airSchema,
})

export const cliDialectSchema = fields.superRefine((dialect, context) => {
  const { over, prompt, write, remove, password, confirm, save, restart } = dialect
  const commands: [path: PropertyKey[], command: CliCommand][] = [
    ...write.flatMap(({ commands: each }, at) =>
      each.map((one, index): [PropertyKey[], CliCommand] => [['write', at, 'commands', index], one]),
    ),
    ...Object.entries({ remove, password, confirm, save, restart }).flatMap(([name, each]) =>
      each.map((one, index): [PropertyKey[], CliCommand] => [[name, index], one]),
    ),
  ]
  for (const [path, { run, input }] of commands) {
    // What is no template is told of where it stands.
    for (const message of templateFaults(run).length === 0 ? unsafePlaces(run, dialect.escape) : [])
      context.addIssue({ code: 'custom', path: [...path, 'run'], message })
    if (input !== undefined && prompt)
      context.addIssue({ code: 'custom', path: [...path, 'input'], message: 'a command at a prompt has no input' })
    if (run.includes('\n') && prompt)
      context.addIssue({ code: 'custom', path: [...path, 'run'], message: 'a command at a prompt is one line' })
  }
  if (over !== 'ssh' && !prompt?.signIn)
    context.addIssue({ code: 'custom', path: ['prompt'], message: `over ${over} it takes "prompt" with its "signIn"` })
})
export type CliDialect = z.infer<typeof cliDialectSchema>

/**
 * What a card says that its model can, and has no command for.
 * @param can  ids of the settings that it takes, and whether it shows them
 */
export function uncovered(can: Readonly<Record<string, { readable: 'yes' | 'no' } | undefined>>, dialect: CliDialect) {
  const bandsByRadio = dialect.read.some(({ starts }) => starts?.includes('(?<radio>'))
  const told = new Set(dialect.read.flatMap(({ tells, says }) => [...Object.keys(tells), ...Object.keys(says)]))
  if (bandsByRadio) told.add('network.bands')
  const sets = new Set(dialect.write.flatMap((write) => write.sets))
  return Object.entries(can).flatMap(([id, detail]): { id: string; message: string }[] => {
    if (signInIds.has(id)) return []
    const isSet = sets.has(id) || sets.has(`${id.split('.')[0]}.*`)
    if (detail?.readable !== 'no' && !told.has(id)) return [{ id, message: `no command reads "${id}"` }]
    return isSet || onlyReadIds.has(id) ? [] : [{ id, message: `no command sets "${id}"` }]
  })
}
