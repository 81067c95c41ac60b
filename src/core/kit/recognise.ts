/**
 * Who a unit is, by what it lets out before anybody signs in, matched against what the kit cards know: with the
 * evidence that speaks for it, and how sure that makes it.
 */
import { matches } from '../input/pattern'
import { hasPrefixOf, type KitCard, modelName } from './kit-card'

/** What was seen of a unit; each is there where its way of speaking has it. */
export interface Evidence {
  /** Realm of its sign-in, in its own words. */
  readonly realm?: string
  /** SNMPv2-MIB sysObjectID (RFC 3418). */
  readonly sysObjectId?: string
  /** First line of its SSH service. */
  readonly banner?: string
  /** Title of its first page. */
  readonly title?: string
  /** Whom the certificate that it signed says that it is for: `CN=..., O=...`. */
  readonly certificate?: string
  /** System description by LLDP (IEEE 802.1AB-2016, 8.5.7). */
  readonly lldp?: string
}

/** Kinds of evidence; a MAC is there whatever else a unit lets out. */
export const evidenceKinds = ['realm', 'sysObjectId', 'banner', 'title', 'certificate', 'lldp', 'mac'] as const
export type EvidenceKind = (typeof evidenceKinds)[number]

export interface Recognised {
  /** Name of the model, by the cards; the unit's own words where no card knows it; null where it said nothing. */
  readonly model: string | null
  /** What speaks for that by the cards; nothing where no card knows it. */
  readonly by: readonly EvidenceKind[]
}

type Recognise = KitCard['recognise']

/** Whether one kind of evidence fits a card, speaks against it, or says nothing either way. */
const judges: { readonly [K in keyof Evidence]-?: (card: Recognise, seen: string) => boolean | undefined } = {
  realm: ({ realm }, seen) => (realm === '' ? undefined : realm === seen),
  sysObjectId: ({ sysObjectId }, seen) => (sysObjectId === undefined ? undefined : sysObjectId === seen),
  banner: ({ banner }, seen) => (banner === undefined ? undefined : matches(banner, seen)),
  title: ({ title }, seen) => (title === undefined ? undefined : matches(title, seen)),
  certificate: ({ certificate }, seen) => (certificate === undefined ? undefined : matches(certificate, seen)),
  lldp: ({ lldp }, seen) => (lldp === undefined ? undefined : matches(lldp, seen)),
}
const said = Object.keys(judges) as (keyof Evidence)[]

function judged(kind: keyof Evidence, evidence: Evidence, { recognise }: Pick<KitCard, 'recognise'>) {
  const seen = evidence[kind]
  return seen === undefined ? undefined : judges[kind](recognise, seen)
}

/** Does what was seen fit the card? A card that says nothing of a thing fits whatever is seen of it. */
export function fits(evidence: Evidence, card: Pick<KitCard, 'recognise'>): boolean {
  return said.every((kind) => judged(kind, evidence, card) !== false)
}

/** Is there a card that knows what was seen? */
export function isKnown(evidence: Evidence, cards: Iterable<KitCard>): boolean {
  return knownBy(evidence, cards) !== undefined
}

/** Who a unit is, with what speaks for it. */
export function recognise(evidence: Evidence, mac: string, cards: Iterable<KitCard>): Recognised {
  const card = knownBy(evidence, cards)
  if (card) {
    const speaking = said.filter((kind) => judged(kind, evidence, card) === true)
    return { model: modelName(card), by: hasPrefixOf(card, mac) ? [...speaking, 'mac'] : speaking }
  }
  return { model: said.flatMap((kind) => evidence[kind] ?? [])[0] ?? null, by: [] }
}

/**
 * Whose a unit may be, by its MAC alone: the model where one card has its prefix, the maker where several of one maker
 * have it; undefined where none has, or more makers than one.
 */
export function perhapsByMac(mac: string, cards: Iterable<KitCard>): string | undefined {
  const having = [...cards].filter((card) => hasPrefixOf(card, mac))
  const [models, makers] = [having.map(modelName), having.map(({ maker }) => maker)].map((names) => [...new Set(names)])
  return models?.length === 1 ? models[0] : makers?.length === 1 ? makers[0] : undefined
}

/** Two things that agree make sure; one alone may be somebody who only calls itself so. */
export function howSure(by: readonly EvidenceKind[]): 'sure' | 'likely' {
  return by.length > 1 ? 'sure' : 'likely'
}

/** The card that at least one thing speaks for, and none against. */
function knownBy(evidence: Evidence, cards: Iterable<KitCard>): KitCard | undefined {
  for (const card of cards)
    if (said.some((kind) => judged(kind, evidence, card) === true) && fits(evidence, card)) return card
  return undefined
}
