/**
 * The web-page part of a kit card: which pages a model has, which field of which form is which setting, how a page is
 * saved, and what is said when it was. One card serves both engines: plain HTTP and forms, or a browser.
 */

import { z } from 'zod'
import { isSettingId, onlyReadIds, signInIds } from '../catalogue/catalogue'
import { messageText } from '../message/message'
import {
  atSchema,
  fillSchema,
  pathSchema,
  plainPlaceSchema,
  pressFields,
  saidFields,
  selectorSchema,
  valuesSchema,
  wayFields,
} from './page-places'
import { unitsInRowsSchema } from './units-in-rows'

/** Whoever signs in knows one login until the step that changes it: a question that sets another would lock us out. */
const answerSchema = fillSchema.refine((fill) => !('setting' in fill && signInIds.has(fill.setting)), {
  path: ['setting'],
  message: messageText('question-sets-login'),
})

const scopes = z.enum(['unit', 'network', 'radio'])

const pageSchema = z
  .strictObject({
    ...wayFields,
    /** One page for the unit; for each radio, by its name; or for each place that a radio has for a network. */
    per: scopes.default('unit'),
    /** Places for networks that each radio has. */
    slots: z.int().min(1).max(32).optional(),
    /** What must be there before the page is read: what it fills in late. */
    ready: z.array(atSchema).default([]),
    fields: valuesSchema,
    /** What is put in beside them, always the same. */
    fills: z.array(answerSchema).default([]),
    /** Where all radios stand on one page: the fields of each, by its band. */
    radios: z.record(z.string(), valuesSchema).default({}),
    /** Makes a place for a network free again. */
    clears: z.array(fillSchema).default([]),
    /** What saves it; left out where each field is saved as it is left. */
    ...pressFields,
    press: atSchema.optional(),
    ...saidFields,
    /**
     * Saving it changes what stands on other pages: always, or where one of these settings is changed, as a country.
     */
    resetsOthers: z
      .union([z.boolean(), z.array(z.string().refine(isSettingId, messageText('not-a-setting'))).min(1)])
      .default(false),
  })
  .superRefine(({ per, slots, path: text, fields, radios, clears }, context) => {
    const fault = (at: PropertyKey[], message: string): void => {
      context.addIssue({ code: 'custom', path: at, message })
    }
    if (per !== 'unit' && !text.includes('{{radio.name}}')) fault(['path'], messageText('page-names-radio', { per }))
    if ((per === 'network') !== (slots !== undefined)) fault(['slots'], messageText('slots-for-networks'))
    if (per === 'network' && !text.includes('{{slot}}')) fault(['path'], messageText('page-names-slot'))
    if (per === 'network' && clears.length === 0) fault(['clears'], messageText('slot-made-free'))
    if (per === 'network' && !fields['network.ssid']) fault(['fields'], messageText('networks-known-by-ssid'))
    for (const id of Object.keys(fields))
      if (!isSettingId(id)) fault(['fields', id], messageText('setting-unknown', { setting: id }))
      else if (scopeOf(id) !== per) fault(['fields', id], messageText('not-a-setting-of', { setting: id, scope: per }))
    if (per !== 'unit' && Object.keys(radios).length > 0) fault(['radios'], messageText('no-fields-by-band', { per }))
    for (const [band, own] of Object.entries(radios))
      for (const id of Object.keys(own))
        if (scopeOf(id) !== 'radio') fault(['radios', band, id], messageText('not-a-setting-of-radio', { setting: id }))
  })
export type SettingsPage = z.infer<typeof pageSchema>

const scopeOf = (id: string): z.infer<typeof scopes> =>
  id.startsWith('network.') ? 'network' : id.startsWith('radio.') ? 'radio' : 'unit'

/** Networks as rows of a table: a row for each, added, opened and taken away. */
const rowsSchema = z
  .strictObject({
    ...wayFields,
    /** What must be there before the rows are counted. */
    ready: z.array(atSchema).default([]),
    row: selectorSchema,
    /** Where a row says what its network is called. */
    name: plainPlaceSchema,
    /** What is pressed for one more; left out where its fields stand beside the rows. */
    add: atSchema.optional(),
    /** What is pressed in a row to open it. */
    open: atSchema,
    /** Leaves what was opened as it is; where there is nothing of the kind, the page is come to anew. */
    close: atSchema.optional(),
    /** `whenOpened`: pressed once the row was opened, and not in it. */
    remove: z.strictObject({ ...pressFields, ...saidFields, whenOpened: z.boolean().default(false) }),
    fields: valuesSchema,
    ...pressFields,
    ...saidFields,
  })
  .superRefine(({ fields }, context) => {
    const fault = (id: string, message: string): void => {
      context.addIssue({ code: 'custom', path: ['fields', id], message })
    }
    if (!fields['network.ssid']) fault('network.ssid', messageText('networks-known-by-ssid'))
    for (const id of Object.keys(fields))
      if (scopeOf(id) !== 'network') fault(id, messageText('not-a-setting-of-network', { setting: id }))
  })
export type NetworkRows = z.infer<typeof rowsSchema>

const pressSchema = z.strictObject({
  page: pathSchema,
  reach: wayFields.reach,
  fills: z.array(fillSchema).default([]),
  ...pressFields,
  ...saidFields,
})

const signInSchema = z.discriminatedUnion('by', [
  z.strictObject({
    by: z.literal('form'),
    page: pathSchema,
    /** Left out where it wants a password alone. */
    user: atSchema.optional(),
    password: atSchema,
    press: atSchema,
    /**
     * What it shows to whoever it does not know; left out, that is told by words which the sign-in did not say before.
     */
    refused: atSchema.optional(),
    /** What it shows while somebody else is signed in. */
    occupied: atSchema.optional(),
    /**
     * What it asks whoever comes first, before anybody can sign in, page after page; its admin is made there. `sees`:
     * how each page is known.
     */
    first: z.array(z.strictObject({ sees: atSchema, fills: z.array(fillSchema), press: atSchema })).default([]),
    /** What it asks at the first sign-in, page after page, and what is answered. */
    asks: z.array(z.strictObject({ sees: atSchema, fills: z.array(answerSchema), press: atSchema })).default([]),
  }),
  /** Asked for by the protocol itself: RFC 7617 or RFC 7616. */
  z.strictObject({ by: z.enum(['basic', 'digest']), page: pathSchema }),
])

/** What its radios really do, one element for each. */
const airSchema = z.strictObject({
  page: pathSchema,
  each: selectorSchema,
  /** Its name on the card. */
  name: plainPlaceSchema,
  onAir: plainPlaceSchema,
  listening: plainPlaceSchema.optional(),
  listensFor: plainPlaceSchema.optional(),
  channel: plainPlaceSchema.optional(),
  width: plainPlaceSchema.optional(),
  leftForRadar: plainPlaceSchema.optional(),
  networks: z.strictObject({
    each: selectorSchema,
    ssid: plainPlaceSchema,
    security: plainPlaceSchema,
    bssid: plainPlaceSchema.optional(),
  }),
})

const fields = z.strictObject({
  kind: z.literal('pages'),
  /** `forms` reads HTML and sends forms; `browser` is for pages that are drawn by script. */
  engine: z.enum(['forms', 'browser']),
  /**
   * Paths of the pages that a script draws or sends; left out, all of them are. Every other page is fetched once
   * somebody is signed in, and its form is sent as it stands: that costs a browser far less than opening it.
   */
  scripted: z.array(pathSchema).optional(),
  /** `http-first`: out of its box it speaks plain HTTP, and HTTPS once it was set up. */
  scheme: z.enum(['http', 'https', 'http-first']),
  /** Port of HTTPS where it speaks both; the other is the factory's. */
  httpsPort: z.int().min(1).max(65535).default(443),
  signIn: signInSchema,
  signOut: pathSchema.optional(),
  /** Seconds after which a session ends by itself, where nobody uses it. */
  sessionEnds: z.int().min(30).max(7200).default(600),
  says: z.strictObject({
    /** A page was saved; left out where nothing says so, and reading it again tells. */
    saved: atSchema.optional(),
    /** It was not, and why; left out where nobody knows how that looks. */
    refused: atSchema.optional(),
    /** The session is over; absent where sign-in is asked for by the protocol itself. */
    lost: atSchema.optional(),
  }),
  /** Its MAC, so that nobody else is set in its place; left out where no page shows it, and its lane alone tells. */
  mac: plainPlaceSchema.extend({ page: pathSchema }).optional(),
  pages: z.array(pageSchema).min(1),
  /** Networks that stand as rows of a table, in the place of pages for each. */
  rows: rowsSchema.optional(),
  /** Of a controller: the access points that are set through it. */
  units: unitsInRowsSchema.optional(),
  /** What it is, where that is more than what it was told to be. */
  state: z.strictObject({ page: pathSchema, fields: valuesSchema }).optional(),
  /** True of every network that is there. */
  networksAre: z.record(z.string(), z.json()).default({}),
  /** Where the admin's password is changed; left out where it is made at the first sign-in and stays. */
  password: z
    .strictObject({
      page: pathSchema,
      reach: wayFields.reach,
      old: atSchema.optional(),
      new: z.array(atSchema).min(1),
      ...pressFields,
      ...saidFields,
    })
    .optional(),
  changes: z
    .strictObject({ page: pathSchema, waiting: atSchema, applying: atSchema, mark: plainPlaceSchema.optional() })
    .optional(),
  apply: pressSchema.optional(),
  save: pressSchema.optional(),
  restart: pressSchema.optional(),
  /**
   * Left out where its pages do not show it: then it is on air as it is set, as far as anybody can say from the wire.
   */
  air: airSchema.optional(),
})

export const pagesDialectSchema = fields.superRefine((dialect, context) => {
  const { pages, rows, state, networksAre, signIn, says } = dialect
  const fault = (at: PropertyKey[], message: string): void => {
    context.addIssue({ code: 'custom', path: at, message })
  }
  if (signIn.by === 'form' && says.lost === undefined) fault(['says', 'lost'], messageText('form-without-lost'))
  const forNetworks = pages.filter(({ per }) => per === 'network').length + (rows ? 1 : 0)
  if (rows && !rows.fields['network.bands'] && !('network.bands' in networksAre))
    fault(['rows', 'fields', 'network.bands'], messageText('bands-of-row-missing'))
  if (forNetworks > 1) fault(['pages'], messageText('networks-in-one-kind'))
  if (dialect.engine === 'forms') for (const at of beyondForms(dialect)) fault(at, messageText('browser-alone-does'))
  if (dialect.engine === 'forms' && dialect.scripted) fault(['scripted'], messageText('forms-run-no-script'))
  const known = new Set([...pages.map(({ path }) => path), state?.page, dialect.changes?.page, dialect.air?.page])
  for (const [index, path] of (dialect.scripted ?? []).entries())
    if (!known.has(path)) fault(['scripted', index], messageText('page-not-read', { path }))
  for (const id of Object.keys(state?.fields ?? {}))
    if (!isSettingId(id) || scopeOf(id) !== 'unit')
      fault(['state', 'fields', id], messageText('not-a-setting-of-unit', { setting: id }))
  for (const id of Object.keys(networksAre))
    if (!isSettingId(id) || scopeOf(id) !== 'network')
      fault(['networksAre', id], messageText('not-a-setting-of-network', { setting: id }))
})
export type PagesDialect = z.infer<typeof pagesDialectSchema>

/** Where elements are described and not selected, and where a page is come to by presses. */
function beyondForms(dialect: z.infer<typeof fields>): PropertyKey[][] {
  const found: PropertyKey[][] = (['rows', 'units'] as const).flatMap((part) => (dialect[part] ? [[part]] : []))
  for (const [index, { press }] of dialect.pages.entries())
    if (press === undefined) found.push(['pages', index, 'press'])
  const look = (value: unknown, at: PropertyKey[]): void => {
    if (typeof value !== 'object' || value === null || found.length >= 5) return
    if ('use' in value && 'by' in value) found.push(at)
    else if ('reach' in value && Array.isArray(value.reach) && value.reach.length > 0) found.push([...at, 'reach'])
    else for (const [key, part] of Object.entries(value)) look(part, [...at, key])
  }
  look({ ...dialect, rows: undefined, units: undefined }, [])
  return found
}

/** Whether anything of it needs what only a browser can tell: how elements look to a person. */
export const describesElements = (dialect: PagesDialect): boolean => beyondForms(dialect).length > 0

/** Whether a script may draw what stands at a path. @param path  as `pathOf` gives it */
export function isScripted({ scripted }: Pick<PagesDialect, 'scripted'>, path: string): boolean {
  if (!scripted) return true
  const partsOf = (one: string): string[] => one.split('/')
  return scripted.some((template) => {
    const [wanted, there] = [partsOf(template), partsOf(path)]
    return wanted.length === there.length && wanted.every((part, at) => part.includes('{{') || part === there[at])
  })
}

/**
 * What a card says that its model can, and has no field for.
 * @param can  ids of the settings that it takes, and whether it shows them
 */
export function withoutField(
  can: Readonly<Record<string, { readable: 'yes' | 'no' } | undefined>>,
  { pages, rows, state, networksAre, signIn }: PagesDialect,
): { id: string; message: string }[] {
  const asked = signIn.by === 'form' ? signIn.first : []
  const onPages = new Set([
    ...pages.flatMap((page) => [page.fields, ...Object.values(page.radios)].flatMap(Object.keys)),
    ...Object.keys(rows?.fields ?? {}),
  ])
  const atFirst = asked.flatMap(({ fills }) => fills.flatMap((fill) => ('setting' in fill ? [fill.setting] : [])))
  const read = new Set([...onPages, ...Object.keys(state?.fields ?? {}), ...Object.keys(networksAre)])
  // Networks stand by radio: that says on which bands they are.
  if (pages.some(({ per }) => per === 'network')) for (const set of [onPages, read]) set.add('network.bands')
  return Object.entries(can).flatMap(([id, detail]) => {
    if (signInIds.has(id)) return []
    if (detail?.readable !== 'no' && !read.has(id))
      return [{ id, message: messageText('no-page-shows', { setting: id }) }]
    const isSet = onPages.has(id) || onlyReadIds.has(id) || id in networksAre || atFirst.some((each) => each === id)
    return isSet ? [] : [{ id, message: messageText('no-page-sets', { setting: id }) }]
  })
}

/** Where the settings of one network stand, on a page of its own or in its row. */
export function networkFields({ pages, rows }: Pick<PagesDialect, 'pages' | 'rows'>): SettingsPage['fields'] {
  return rows?.fields ?? pages.find(({ per }) => per === 'network')?.fields ?? {}
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
