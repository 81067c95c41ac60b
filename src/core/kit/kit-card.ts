/**
 * A kit card: everything that is particular to one model, as data. In: a YAML file. Out: a card, or faults by line.
 */

import { LineCounter, type ParsedNode, parseDocument } from 'yaml'
import { z } from 'zod'
import { ipv4Schema } from '../address/ipv4'
import { isSettingId, type SettingId } from '../catalogue/catalogue'
import { securityModeSchema } from '../catalogue/security-mode'
import { bandSchema } from '../catalogue/values'
import { cardBounds, yamlFault } from '../input/bounded-text'
import { patternSchema } from '../input/pattern'
import { asTold, fromText, type Message, message, messageText } from '../message/message'
import { type Can, canSchema, cardRadioSchema, dialectSchema, doesSchema, poeTypes } from './card-parts'
import { modernCard } from './former-card'
import { named, type OldCrypto } from './old-crypto'
import { entrancesOf, withoutField } from './pages-dialect'
import { uncovered } from './prompt-dialect'

const seconds = z.number().min(0).max(3600)
const factoryFields = {
  /** Null where it takes what DHCP gives and has no address of its own. */
  address: ipv4Schema.nullable(),
  prefix: z.int().min(8).max(30).default(24),
  addressing: z.enum(['static', 'dhcp-first', 'dhcp-only']),
  login: z.strictObject({
    user: z.string(),
    /** Empty where it asks for none. */
    password: z.string(),
    /** Whether each box has a password of its own, printed on its label. */
    passwordIs: z.enum(['the-same', 'on-its-label']).default('the-same'),
  }),
  port: z.int().min(1).max(65535),
  /** Network that it broadcasts out of its box, through which it is set up. */
  setupSsid: z.string().optional(),
}
const limitFields = {
  namePattern: patternSchema,
  /** What a name may hold, for people. */
  nameWords: z.string().default(''),
  passwordShortest: z.int().min(1),
  passwordLongest: z.int(),
  /** Expressions that a password must match, each with its words. */
  passwordRules: z.array(z.strictObject({ pattern: patternSchema, words: z.string() })).default([]),
  mostNetworks: z.int().min(0),
  /** Units that a controller manages at the most. */
  mostUnits: z.int().min(1).optional(),
  security: z.array(securityModeSchema).default(['wpa2-personal']),
}
/** Refuses an id that the table of settings does not have, at its own line. */
function knownSettings(
  can: Readonly<Record<string, Can | null>>,
  context: z.RefinementCtx,
): Readonly<Partial<Record<SettingId, Can>>> {
  for (const id of Object.keys(can))
    if (!isSettingId(id))
      context.addIssue({ code: 'custom', path: [id], message: messageText('setting-unknown', { setting: id }) })
  return Object.fromEntries(Object.entries(can).map(([id, detail]) => [id, detail ?? canSchema.parse({})]))
}

const cardFields = z.strictObject({
  maker: z.string().min(1),
  model: z.string().min(1),
  role: z.enum(['access-point', 'controller', 'managed-access-point', 'link-end', 'switch']),
  /** Where its housing lets it hang. */
  environment: z.enum(['indoor', 'outdoor', 'either']).default('indoor'),
  recognise: z.strictObject({
    macPrefixes: z.array(z.string().regex(/^[0-9a-f]{2}(:[0-9a-f]{2}){2}$/, messageText('mac-prefix-unfit'))),
    realm: z.string().default(''),
    /** What an SSH service says first (RFC 4253, 4.2), as an expression. */
    banner: patternSchema.optional(),
    /** Title of the page on which one signs in, as an expression. */
    title: patternSchema.optional(),
    /** Whom the certificate that it signs says that it is for, `CN=..., O=...`, as an expression. */
    certificate: patternSchema.optional(),
    /** What it says of itself by LLDP, its system description (IEEE 802.1AB-2016, 8.5.7), as an expression. */
    lldp: patternSchema.optional(),
    /** SNMPv2-MIB sysObjectID (RFC 3418). */
    sysObjectId: z
      .string()
      .regex(/^1(\.\d+)+$/)
      .optional(),
  }),
  factory: z.strictObject(factoryFields),
  /** What it draws; `class` is the power class of IEEE 802.3 clause 33 and 145, by which a port is budgeted. */
  power: z.strictObject({
    poe: z.enum([...poeTypes, 'mains']),
    class: z.int().min(0).max(8).optional(),
    watts: z.number().positive(),
  }),
  /** What a switch gives. */
  supplies: z
    .strictObject({
      ports: z.int().min(1),
      poe: z.enum(poeTypes),
      /**
       * Highest class that a port feeds; left out, the highest of its standard: 8 for 802.3bt, whose type 3 ends at 6.
       */
      class: z.int().min(1).max(8).optional(),
      watts: z.number().positive(),
    })
    .optional(),
  /** How long the unit takes, seconds. */
  timing: z.strictObject({
    start: seconds,
    apply: seconds,
    restart: seconds,
    /** In which it writes an image that it was given, before it restarts; left out where it is given none. */
    image: seconds.optional(),
  }),
  lights: z.record(z.string(), z.string()),
  reset: z.strictObject({ steps: z.array(z.string()).min(1), seconds }),
  radios: z.array(cardRadioSchema),
  /**
   * Bands on which a controller without radios gives networks to its access points; none where it holds no networks.
   */
  networkBands: z.array(bandSchema).default([]),
  limits: z.strictObject(limitFields),
  /** Settings that the model takes, by their id in the table of settings. What is not listed is set by hand. */
  can: z.record(z.string(), canSchema.nullable()).transform(knownSettings),
  does: doesSchema,
  /** Firmware that this card was tried with. */
  triedWith: z.string().max(40).default(''),
  /** Code of the vendor option (RFC 2132, 8.4) in which its access points look for their controller. */
  discovery: z
    .strictObject({
      option43Code: z.int().min(1).max(254),
      /** What its access points say of themselves in option 60; a server tells nobody else (RFC 2132, 9.13). */
      vendorClass: z
        .string()
        .regex(/^[A-Za-z0-9._ -]{1,64}$/, messageText('vendor-class-unfit'))
        .optional(),
    })
    .optional(),
  dialect: dialectSchema,
})

export const kitCardSchema = cardFields.superRefine(({ can, dialect, timing, radios }, context) => {
  if (timing.image !== undefined && dialect.kind !== 'netconf' && dialect.kind !== 'restconf')
    context.addIssue({
      code: 'custom',
      path: ['timing', 'image'],
      message: messageText('images-over-yang-alone'),
    })
  if (dialect.kind === 'pages')
    for (const { id, message } of withoutField(can, dialect))
      context.addIssue({ code: 'custom', path: ['can', id], message })
  if (dialect.kind !== 'prompt') return
  if (radios.length > 0 && !dialect.air)
    context.addIssue({ code: 'custom', path: ['dialect', 'air'], message: messageText('air-command-missing') })
  for (const { id, message } of uncovered(can, dialect))
    context.addIssue({ code: 'custom', path: ['can', id], message })
  // Whoever turns off what the unit is spoken to over is locked out in the middle.
  const branch = dialect.over === 'tcp' ? undefined : (`services.${dialect.over}` as const)
  if (branch !== undefined && can[branch])
    context.addIssue({ code: 'custom', path: ['can', branch], message: messageText('spoken-to-over-it') })
})
export type KitCard = z.infer<typeof kitCardSchema> & {
  /** Nobody has written a card for this model: see bare-card.ts. */
  readonly isBare?: true
}

const directKinds = ['restconf', 'netconf', 'prompt', 'pages'] as const
type DirectKind = (typeof directKinds)[number]
const isDirectKind = (kind: string): kind is DirectKind => directKinds.some((each) => each === kind)

/** A card of a unit that this release speaks to over the wire, out of its box. */
export type DirectCard = KitCard & {
  readonly dialect: Extract<KitCard['dialect'], { kind: DirectKind }>
}

export function isDirect(card: KitCard): card is DirectCard {
  return isMustered(card) && !isManaged(card)
}

/** A card of a unit that is set through its controller. */
export type ManagedCard = KitCard & { readonly dialect: Extract<KitCard['dialect'], { kind: 'managed' }> }

export function isManaged(card: KitCard): card is ManagedCard {
  return card.dialect.kind === 'managed'
}

/** A card of a unit that this release musters. */
export type MusteredCard = DirectCard | ManagedCard

export function isMustered(card: KitCard): card is MusteredCard {
  return whyNotMustered(card) === undefined
}

/** Does a MAC begin as those of this model do? */
export function hasPrefixOf({ recognise }: Pick<KitCard, 'recognise'>, mac: string): boolean {
  return recognise.macPrefixes.some((prefix) => mac.startsWith(prefix))
}

export interface OfOneBox {
  /** The password on its label, where somebody has told it. */
  readonly labelPassword?: string | undefined
  /** What is no longer safe, and somebody lets be spoken with it. */
  readonly old?: readonly OldCrypto[] | undefined
}

/** The card as it is true of one box. */
export function ofOneBox<C extends KitCard>(card: C, { labelPassword, old = [] }: OfOneBox): C {
  const { factory, does } = card
  const { login } = factory
  return {
    ...card,
    factory: { ...factory, login: { ...login, password: labelPassword ?? login.password } },
    does: { ...does, old: named(does.old, old) },
  }
}

/** Ports of its management service, the safer first: it answers on one of them. */
export function servicePorts({ dialect, factory }: Pick<KitCard, 'dialect' | 'factory'>): number[] {
  return dialect.kind === 'pages' ? entrancesOf(dialect, factory.port).map(({ port }) => port) : [factory.port]
}

/** Does it ask whoever comes first to make its admin, in the place of a login from the factory? */
export function makesItsAdmin({ dialect }: Pick<KitCard, 'dialect'>): boolean {
  return dialect.kind === 'pages' && dialect.signIn.by === 'form' && dialect.signIn.first.length > 0
}

/** What its admin is called: as its maker has it, or as the brief says where the one who sets it up chooses. */
export function adminUser(card: Pick<KitCard, 'dialect' | 'factory'>, chosen: string): string {
  const { user } = card.factory.login
  return makesItsAdmin(card) || user === '' ? chosen : user
}

/** Seconds after which a session that nobody uses ends by itself, so that the next may come; 0 where nobody waits. */
export function sessionEndsAfter({ dialect }: Pick<KitCard, 'dialect'>): number {
  return dialect.kind === 'pages' ? dialect.sessionEnds : 0
}

/** Why this release does not muster a model; undefined where it does. */
export function whyNotMustered(card: Pick<KitCard, 'role' | 'dialect' | 'factory' | 'isBare'>): Message | undefined {
  if (card.role === 'switch') return message('switch-not-set')
  if (card.role === 'link-end') return message('links-not-set')
  if (card.isBare) return message('no-card-yet')
  if (card.dialect.kind === 'by-hand') return message('left-to-hands')
  if (card.dialect.kind === 'managed') return undefined
  if (!isDirectKind(card.dialect.kind)) return message('dialect-not-spoken', { dialect: card.dialect.kind })
  if (card.factory.setupSsid !== undefined) return message('reached-over-air', { ssid: card.factory.setupSsid })
  return undefined
}

/** A fault of a card: where it stands and what is wrong. */
export interface CardFault {
  readonly line: number
  readonly field: string
  readonly reason: Message
}

export type CardReading =
  | { readonly ok: true; readonly card: KitCard }
  | { readonly ok: false; readonly faults: readonly CardFault[] }

/** Cards of the models on a kit list, each once, in the order in which they first stand there. */
export function modelsOf(units: readonly { readonly model: string }[], cards: ReadonlyMap<string, KitCard>): KitCard[] {
  return [...new Set(units.map((unit) => unit.model))].flatMap((model) => cards.get(model) ?? [])
}

/** `Ostrel O-40`: how a model is named on the kit list. */
export function modelName(card: Pick<KitCard, 'maker' | 'model'>): string {
  return `${card.maker} ${card.model}`.trim()
}

/** Nobody reads more of them at once. */
const mostFaults = 20

/** Reads a card. Each fault names the line of the field, or of the nearest part that is there. */
export function readKitCard(yamlText: string): CardReading {
  const unfit = yamlFault(yamlText, cardBounds)
  if (unfit) return { ok: false, faults: [{ ...unfit, field: '' }] }
  const lines = new LineCounter()
  const document = parseDocument(yamlText, { lineCounter: lines })
  if (document.errors.length > 0) {
    return {
      ok: false,
      faults: document.errors.slice(0, mostFaults).map((error) => ({
        line: error.linePos?.[0].line ?? 1,
        field: '',
        reason: asTold(error.message.split('\n')[0] ?? error.message),
      })),
    }
  }
  const parsed = kitCardSchema.safeParse(modernCard(document.toJS()))
  if (parsed.success) return { ok: true, card: parsed.data }
  const lineOf = (path: readonly PropertyKey[]): number => {
    for (let length = path.length; length > 0; length -= 1) {
      const node = document.getIn(path.slice(0, length), true) as ParsedNode | undefined
      if (node?.range) return lines.linePos(node.range[0]).line
    }
    return 1
  }
  return {
    ok: false,
    faults: parsed.error.issues.map((issue) => ({
      line: lineOf(issue.path),
      field: issue.path.join('.'),
      reason: fromText(issue.message),
    })),
  }
}
