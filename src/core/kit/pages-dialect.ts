/**
 * The web-page part of a kit card: which pages a model has, which field of which form is which setting, how a page is
 * saved, and what is said when it was. One card serves both engines: plain HTTP and forms, or a browser.
 */
import { parse as parseSelector } from 'css-what'
import { z } from 'zod'
import { isSettingId, onlyReadIds, type SettingId, signInIds } from '../config/setting-ids'
import { valuePattern, valueWordsFields } from './value-words'

/** A CSS selector (Selectors Level 4, W3C). */
const selector = z
  .string()
  .min(1)
  .max(300)
  .superRefine((text, context) => {
    try {
      parseSelector(text)
    } catch (error) {
      const reason = error instanceof Error ? error.message : 'not understood'
      context.addIssue({ code: 'custom', message: `"${text.slice(0, 60)}" is not a selector: ${reason}` })
    }
  })

/** A page of the unit's own: a path, never another host. */
const path = z
  .string()
  .regex(/^\/(?!\/)[^\s\\]*$/, 'a page is a path of the unit itself, such as /radio')
  .superRefine((text, context) => {
    for (const [, name = ''] of text.matchAll(/\{\{([^}]*)\}\}/g))
      if (name !== 'radio.name' && name !== 'slot')
        context.addIssue({ code: 'custom', message: `"${name}" has no place in a path: radio.name and slot have` })
  })

/**
 * Where something stands on a page, and how it is read: a field's value, `on` or `off` of a tick box, the choice of
 * a group of buttons, else the words of the element.
 */
const placeFields = {
  at: selector,
  /** An attribute instead of what is seen. */
  attribute: z
    .string()
    .regex(/^[a-z-]{1,40}$/)
    .optional(),
  /** The value within its text. */
  shows: valuePattern.optional(),
}
const plainPlace = z.strictObject(placeFields)
export type PagePlace = z.infer<typeof plainPlace>
const valuePlace = z.strictObject({ ...placeFields, ...valueWordsFields })
export type PageValue = z.infer<typeof valuePlace>

/** Something put into a field before a press: what is said, or a setting of what the unit is to be. */
const fillSchema = z.union([
  z.strictObject({ at: selector, types: z.string() }),
  z.strictObject({ at: selector, ticks: z.boolean() }),
  z.strictObject({
    at: selector,
    setting: z.string().refine((id): id is SettingId => isSettingId(id), {
      error: (issue) => `"${issue.input}" is not in the table of settings`,
    }),
    ...valueWordsFields,
    shows: valuePattern.optional(),
  }),
])
export type PageFill = z.infer<typeof fillSchema>
/** Whoever signs in knows one login until the step that changes it: a question that sets another would lock us out. */
const answerSchema = fillSchema.refine((fill) => !('setting' in fill && signInIds.has(fill.setting)), {
  path: ['setting'],
  message: 'a first question does not set a login: "password" says how that is changed',
})

const scopes = z.enum(['unit', 'network', 'radio'])
const values = z.record(z.string(), valuePlace)

const pageSchema = z
  .strictObject({
    path,
    /** One page for the unit; for each radio, by its name; or for each place that a radio has for a network. */
    per: scopes.default('unit'),
    /** Places for networks that each radio has. */
    slots: z.int().min(1).max(32).optional(),
    /** What must be there before the page is read: what it fills in late. */
    ready: z.array(selector).default([]),
    fields: values,
    /** Makes a place for a network free again. */
    clears: z.array(fillSchema).default([]),
    /** What saves it. */
    press: selector,
    /** Saving it changes what stands on other pages, as a country does with channels. */
    resetsOthers: z.boolean().default(false),
  })
  .superRefine(({ per, slots, path: text, fields, clears }, context) => {
    const fault = (at: PropertyKey[], message: string): void => {
      context.addIssue({ code: 'custom', path: at, message })
    }
    if (per !== 'unit' && !text.includes('{{radio.name}}')) fault(['path'], `a page per ${per} names {{radio.name}}`)
    if ((per === 'network') !== (slots !== undefined)) fault(['slots'], 'pages per network have "slots", others none')
    if (per === 'network' && !text.includes('{{slot}}')) fault(['path'], 'a page per network names {{slot}}')
    if (per === 'network' && clears.length === 0) fault(['clears'], 'a place for a network can be made free again')
    if (per === 'network' && !fields['network.ssid']) fault(['fields'], 'networks are known by "network.ssid"')
    for (const id of Object.keys(fields))
      if (!isSettingId(id)) fault(['fields', id], `"${id}" is not in the table of settings`)
      else if (scopeOf(id) !== per) fault(['fields', id], `"${id}" is not a setting of a ${per}`)
  })
export type SettingsPage = z.infer<typeof pageSchema>

const scopeOf = (id: string): z.infer<typeof scopes> =>
  id.startsWith('network.') ? 'network' : id.startsWith('radio.') ? 'radio' : 'unit'

const pressSchema = z.strictObject({ page: path, fills: z.array(fillSchema).default([]), press: selector })

const signInSchema = z.discriminatedUnion('by', [
  z.strictObject({
    by: z.literal('form'),
    page: path,
    user: selector,
    password: selector,
    press: selector,
    /** What it shows to whoever it does not know. */
    refused: selector,
    /** What it shows while somebody else is signed in. */
    occupied: selector.optional(),
    /** What it asks at the first time, page after page, and what is answered. */
    asks: z.array(z.strictObject({ sees: selector, fills: z.array(answerSchema), press: selector })).default([]),
  }),
  /** Asked for by the protocol itself: RFC 7617 or RFC 7616. */
  z.strictObject({ by: z.enum(['basic', 'digest']), page: path }),
])

/** What its radios really do, one element for each. */
const airSchema = z.strictObject({
  page: path,
  each: selector,
  /** Its name on the card. */
  name: plainPlace,
  onAir: plainPlace,
  listening: plainPlace.optional(),
  listensFor: plainPlace.optional(),
  channel: plainPlace.optional(),
  width: plainPlace.optional(),
  leftForRadar: plainPlace.optional(),
  networks: z.strictObject({ each: selector, ssid: plainPlace, security: plainPlace, bssid: plainPlace.optional() }),
})

const fields = z.strictObject({
  kind: z.literal('pages'),
  /** `forms` reads HTML and sends forms; `browser` is for pages that are drawn by script. */
  engine: z.enum(['forms', 'browser']),
  /** `http-first`: out of its box it speaks plain HTTP, and HTTPS once it was set up. */
  scheme: z.enum(['http', 'https', 'http-first']),
  /** Port of HTTPS where it speaks both; the other is the factory's. */
  httpsPort: z.int().min(1).max(65535).default(443),
  signIn: signInSchema,
  signOut: path.optional(),
  /** Seconds after which a session ends by itself, where nobody uses it. */
  sessionEnds: z.int().min(30).max(7200).default(600),
  says: z.strictObject({
    /** A page was saved. */
    saved: selector,
    /** It was not, and why. */
    refused: selector,
    /** The session is over; absent where sign-in is asked for by the protocol itself. */
    lost: selector.optional(),
  }),
  /** Its MAC, so that nobody else is set in its place. */
  mac: plainPlace.extend({ page: path }),
  pages: z.array(pageSchema).min(1),
  /** What it is, where that is more than what it was told to be. */
  state: z.strictObject({ page: path, fields: values }).optional(),
  /** True of every network that is there. */
  networksAre: z.record(z.string(), z.json()).default({}),
  password: z.strictObject({
    page: path,
    old: selector.optional(),
    new: z.array(selector).min(1),
    press: selector,
  }),
  changes: z
    .strictObject({ page: path, waiting: selector, applying: selector, mark: plainPlace.optional() })
    .optional(),
  apply: pressSchema.optional(),
  save: pressSchema.optional(),
  restart: pressSchema,
  air: airSchema,
})

export const pagesDialectSchema = fields.superRefine(({ pages, state, networksAre, signIn, says }, context) => {
  const fault = (at: PropertyKey[], message: string): void => {
    context.addIssue({ code: 'custom', path: at, message })
  }
  if (signIn.by === 'form' && says.lost === undefined)
    fault(['says', 'lost'], 'signing in by a form takes what a lost session looks like')
  if (pages.filter(({ per }) => per === 'network').length > 1) fault(['pages'], 'networks stand on pages of one kind')
  for (const id of Object.keys(state?.fields ?? {}))
    if (!isSettingId(id) || scopeOf(id) !== 'unit') fault(['state', 'fields', id], `"${id}" is no setting of a unit`)
  for (const id of Object.keys(networksAre))
    if (!isSettingId(id) || scopeOf(id) !== 'network') fault(['networksAre', id], `"${id}" is no setting of a network`)
})
export type PagesDialect = z.infer<typeof pagesDialectSchema>

/**
 * What a card says that its model can, and has no field for.
 * @param can  ids of the settings that it takes, and whether it shows them
 */
export function withoutField(
  can: Readonly<Record<string, { readable: 'yes' | 'no' } | undefined>>,
  { pages, state, networksAre }: PagesDialect,
): { id: string; message: string }[] {
  const onPages = new Set(pages.flatMap((page) => Object.keys(page.fields)))
  const read = new Set([...onPages, ...Object.keys(state?.fields ?? {}), ...Object.keys(networksAre)])
  // Networks stand by radio: that says on which bands they are.
  if (pages.some(({ per }) => per === 'network')) for (const set of [onPages, read]) set.add('network.bands')
  return Object.entries(can).flatMap(([id, detail]) => {
    if (signInIds.has(id)) return []
    if (detail?.readable !== 'no' && !read.has(id)) return [{ id, message: `no page shows "${id}"` }]
    const isSet = onPages.has(id) || onlyReadIds.has(id) || id in networksAre
    return isSet ? [] : [{ id, message: `no page sets "${id}"` }]
  })
}

/** The path of a page for one radio and one place on it. */
export function pathOf(page: Pick<SettingsPage, 'path'>, radio = '', slot = 0): string {
  return page.path.replaceAll('{{radio.name}}', encodeURIComponent(radio)).replaceAll('{{slot}}', String(slot))
}

/** Where it takes sessions, the safer first. */
export function entrancesOf(
  { scheme, httpsPort }: Pick<PagesDialect, 'scheme' | 'httpsPort'>,
  factoryPort: number,
): { scheme: 'http' | 'https'; port: number }[] {
  if (scheme !== 'http-first') return [{ scheme, port: factoryPort }]
  return [
    { scheme: 'https', port: httpsPort },
    { scheme: 'http', port: factoryPort },
  ]
}
