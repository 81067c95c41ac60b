/**
 * What goes between a person's browser and the window on a unit's pages: what hands do one way, what the page asks and
 * where it is the other way. Pictures go beside it, as bytes.
 */
import { z } from 'zod'
import { settingIdSchema } from '../config/unit-config'
import { oldCryptoSchema } from '../kit/old-crypto'
import { actsFor, pressRoles } from './act'
import { saidStateSchema } from './join-states'
import { missingPartSchema } from './missing-part'
import { readBackSchema } from './rehearsal'

/** Width and height of every picture, CSS pixels: one pixel of a picture is one of the page. */
export const windowSize = { width: 1024, height: 720 } as const
/** Of a terminal in the place of the picture. */
export const terminalSize = { columns: 100, rows: 30 } as const
/** Of what a page offers as a file, so much is kept at the most. */
export const mostDownloadBytes = 8 * 1024 * 1024
/** A window that no hand touches is closed after this, seconds; said so many seconds before. */
export const windowIdle = { afterSeconds: 600, saidBeforeSeconds: 60 } as const

const place = { x: z.number().min(0).max(windowSize.width), y: z.number().min(0).max(windowSize.height) }
/** Alt 1, Ctrl 2, Meta 4, Shift 8, as DOM key events have them. */
const modifiers = z.int().min(0).max(15).default(0)
const question = z.int().min(1)

export const handSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('pointer'),
    phase: z.enum(['down', 'move', 'up']),
    ...place,
    button: z.enum(['none', 'left', 'middle', 'right']),
    /** Presses at this place in quick succession: 2 is a double click. */
    presses: z.int().min(0).max(3).default(1),
    modifiers,
  }),
  z.object({
    kind: z.literal('wheel'),
    ...place,
    dx: z.number().min(-5000).max(5000),
    dy: z.number().min(-5000).max(5000),
    modifiers,
  }),
  z.object({
    kind: z.literal('key'),
    phase: z.enum(['down', 'up']),
    key: z.string().min(1).max(32),
    code: z.string().max(32),
    modifiers,
  }),
  /** Typed at once into the field that has the focus. */
  z.object({ kind: z.literal('text'), text: z.string().max(10_000) }),
  /** The value of a setting is typed into the field that has the focus: a secret is never told to the browser. */
  z.object({ kind: z.literal('put-in'), id: settingIdSchema, of: z.string().max(64) }),
  /** The password on its label is typed into the field that has the focus. */
  z.object({ kind: z.literal('put-in-label') }),
  z.object({ kind: z.literal('go'), address: z.string().max(2000) }),
  /** A port of the machine that works the bench is to lead to the unit, for a browser that runs there. */
  z.object({ kind: z.literal('own-lane') }),
  z.object({ kind: z.literal('back') }),
  z.object({ kind: z.literal('reload') }),
  /** Of alert, confirm, prompt, and of a page that asks whether it may be left. */
  z.object({
    kind: z.literal('answer'),
    question,
    says: z.enum(['yes', 'no']),
    text: z.string().max(10_000).optional(),
  }),
  /** Which options of a list are to be chosen, by their place in it; none where nothing is to change. */
  z.object({ kind: z.literal('choose'), question, options: z.array(z.int().min(0).max(5000)).max(500) }),
  /** For a page that wants a file: an image of the brief, what its pages gave before, or none. */
  z.object({
    kind: z.literal('give'),
    question,
    file: z
      .discriminatedUnion('of', [
        z.object({ of: z.literal('image'), sha256: z.string().regex(/^[0-9a-f]{64}$/) }),
        z.object({ of: z.literal('from-pages') }),
      ])
      .nullable(),
  }),
  /** For HTTP Basic or Digest, and for SSH. */
  z.object({ kind: z.literal('login'), question, user: z.string().max(200), password: z.string().max(200) }),
  /** The same, with a login that the job knows: that from the factory, or the one that it is to have. */
  z.object({ kind: z.literal('login-as'), question, as: z.enum(['factory', 'to-be']) }),
  /** From now on values are those of an access point that is set through the unit; null: of the unit itself again. */
  z.object({ kind: z.literal('act-for'), unit: z.string().max(64).nullable() }),
  /** From now on what hands do is noted, to become a card; or no more. `anew`: what was noted before is forgotten. */
  z.object({ kind: z.literal('show'), on: z.boolean(), anew: z.boolean().optional() }),
  /**
   * What an act of a showing is: a press by what it is for, a value by its setting; `always`: what was typed is always
   * so.
   */
  z.object({
    kind: z.literal('means'),
    act: z.int().min(1),
    value: z.union([
      z.literal('always'),
      z.enum(pressRoles),
      z.object({ kind: z.literal('setting'), id: settingIdSchema, of: z.string().max(64), how: z.strictObject({}) }),
      z.object({ kind: z.literal('left-out') }),
    ]),
  }),
  /** What words in the row of an access point mean that joins the unit. */
  z.object({
    kind: z.literal('state-means'),
    words: z.string().max(200),
    state: saidStateSchema,
  }),
  z.object({ kind: z.literal('make-card') }),
  /** The unit is read by its card, and nothing is written. */
  z.object({ kind: z.literal('rehearse') }),
])
export type Hand = z.infer<typeof handSchema>

const words = z.string().max(4000)
export const optionSchema = z.object({ label: z.string().max(300), chosen: z.boolean(), disabled: z.boolean() })
export const toldSchema = z.discriminatedUnion('kind', [
  /** Where it is. */
  z.object({ kind: z.literal('at'), address: z.string().max(4000), title: z.string().max(300) }),
  /** It has no pages: its prompt is shown. */
  z.object({
    kind: z.literal('terminal'),
    over: z.enum(['ssh', 'telnet', 'tcp']),
    port: z.int(),
    columns: z.int(),
    rows: z.int(),
  }),
  /** What it prints there. */
  z.object({ kind: z.literal('prints'), text: z.string().max(10_000) }),
  z.object({
    kind: z.literal('asks'),
    question,
    of: z.enum(['alert', 'confirm', 'prompt', 'leave']),
    words,
    preset: words.optional(),
  }),
  /** A list of choices that a picture of the page does not show. */
  z.object({
    kind: z.literal('choices'),
    question,
    multiple: z.boolean(),
    options: z.array(optionSchema).max(5000),
    ...place,
    width: z.number().min(0),
  }),
  z.object({ kind: z.literal('wants-login'), question, realm: words }),
  z.object({ kind: z.literal('wants-file'), question }),
  /** What its pages offered is kept, sealed, as a copy of the unit. */
  z.object({ kind: z.literal('kept'), name: z.string().max(300), bytes: z.int() }),
  /** A question was answered, or the page has left it. */
  z.object({ kind: z.literal('settled'), question }),
  /** A page that could not be had; `untrusted` where it shows another certificate than before. */
  z.object({
    kind: z.literal('failed'),
    code: z.enum(['unreachable', 'untrusted', 'outdated', 'elsewhere', 'refused']),
    reason: words,
    /** What it offers that is no longer safe, by name. */
    old: z.array(oldCryptoSchema).optional(),
  }),
  /** What the page wants and could not have: a file that is not there any more, or to keep one that is too large. */
  z.object({ kind: z.literal('cannot'), what: z.enum(['give-file', 'keep-download']), name: z.string().max(300) }),
  /** Where a browser on the machine that works the bench finds the unit, as long as the window is open. */
  z.object({ kind: z.literal('own-lane'), address: z.string().max(60) }),
  /** Hands have moved it: it answers at its planned address now, and no longer where the window is. */
  z.object({ kind: z.literal('moved'), address: z.string().max(60) }),
  /** What hands have shown so far. */
  z.object({
    kind: z.literal('shown'),
    acts: z.array(
      z.object({
        number: z.int(),
        for: z.enum(actsFor),
        path: z.string(),
        label: words,
        does: z.enum(['press', 'puts']),
        role: z.enum(pressRoles).optional(),
        value: z
          .object({
            kind: z.enum(['setting', 'factory', 'always', 'ticked', 'unknown', 'left-out']),
            id: settingIdSchema.optional(),
            of: z.string().optional(),
          })
          .optional(),
        /** Nobody put it in: it stood there, and was right. */
        stood: z.boolean().optional(),
      }),
    ),
    /** What stood in the row of an access point, and what it may mean. */
    states: z.array(z.object({ words: z.string(), state: saidStateSchema.optional() })),
  }),
  /** Whose values are put in: of an access point that is set through the unit, or of the unit itself. */
  z.object({ kind: z.literal('acting-for'), unit: z.string().nullable() }),
  /** Which setting a field is likely to be of, while hands show and have entered it. */
  z.object({ kind: z.literal('likely'), id: settingIdSchema, of: z.string() }),
  /** The card that comes of it, and what it cannot do without and lacks. */
  z.object({
    kind: z.literal('card'),
    yaml: z.string(),
    missing: z.array(missingPartSchema),
    /** A card for the access points that are set through it. */
    joined: z.string().optional(),
  }),
  /** What the unit's card reads of it, or why it could not be read. */
  z.object({
    kind: z.literal('rehearsed'),
    read: z.array(readBackSchema),
    fault: z.object({ kind: z.string(), reason: words }).optional(),
  }),
  /** No hand has touched it for long: it is closed in so many seconds. */
  z.object({ kind: z.literal('closing'), inSeconds: z.int() }),
  z.object({ kind: z.literal('closed'), why: z.enum(['by-hand', 'idle', 'ended', 'lost']) }),
])
export type Told = z.infer<typeof toldSchema>
export type WindowClosed = Extract<Told, { kind: 'closed' }>['why']

/** Why a window cannot be opened. */
export const windowRefusalSchema = z.discriminatedUnion('code', [
  z.object({ code: z.literal('no-such-unit') }),
  /** It answers at none of the addresses that it could have. */
  z.object({ code: z.literal('not-seen'), addresses: z.array(z.string()) }),
  z.object({ code: z.literal('being-mustered') }),
  /** It is there, and nothing that a window could show takes a connection at any of these ports. */
  z.object({ code: z.literal('no-pages'), address: z.string(), ports: z.array(z.int()) }),
  z.object({ code: z.literal('wire'), kind: z.string(), reason: z.string() }),
])
export type WindowRefusal = z.infer<typeof windowRefusalSchema>

/** A stream of a window is made of pieces: 4 bytes of length, big-endian, a byte for its kind, the content. */
export const streamKind = { told: 0, picture: 1 } as const
export const streamHeadBytes = 5
