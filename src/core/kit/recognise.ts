/** Who a unit is, by what it lets out before anybody signs in, matched against what the kit cards know. */
import { matches } from '../input/pattern'
import { type KitCard, modelName } from './kit-card'

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
  /** System description by LLDP (IEEE 802.1AB-2016, 8.5.7). */
  readonly lldp?: string
}

/** Does what was seen fit the card? A card that says nothing of a thing fits whatever is seen of it. */
export function fits(evidence: Evidence, { recognise }: Pick<KitCard, 'recognise'>): boolean {
  const { realm, sysObjectId, banner, title, lldp } = recognise
  const fitsRealm = evidence.realm === undefined || realm === '' || evidence.realm === realm
  const fitsObject =
    evidence.sysObjectId === undefined || sysObjectId === undefined || evidence.sysObjectId === sysObjectId
  const fitsBanner = evidence.banner === undefined || banner === undefined || matches(banner, evidence.banner)
  const fitsTitle = evidence.title === undefined || title === undefined || matches(title, evidence.title)
  const fitsLldp = evidence.lldp === undefined || lldp === undefined || matches(lldp, evidence.lldp)
  return fitsRealm && fitsObject && fitsBanner && fitsTitle && fitsLldp
}

/** Is there a card that knows what was seen? */
export function isKnown(evidence: Evidence, cards: Iterable<KitCard>): boolean {
  return knownBy(evidence, cards) !== undefined
}

/** Name of the model, by the cards; the unit's own words where no card knows it. */
export function modelBy(evidence: Evidence, cards: Iterable<KitCard>): string {
  const card = knownBy(evidence, cards)
  return card ? modelName(card) : ownWords(evidence)
}

function knownBy(evidence: Evidence, cards: Iterable<KitCard>): KitCard | undefined {
  for (const card of cards) if (speaksFor(card, evidence) && fits(evidence, card)) return card
  return undefined
}

function ownWords(evidence: Evidence): string {
  return evidence.realm ?? evidence.sysObjectId ?? evidence.banner ?? evidence.title ?? evidence.lldp ?? 'unknown'
}

/** Does the card know what was seen, rather than merely not contradict it? */
function speaksFor({ recognise }: KitCard, { realm, sysObjectId, banner, title, lldp }: Evidence): boolean {
  return (
    (realm !== undefined && recognise.realm !== '') ||
    (sysObjectId !== undefined && recognise.sysObjectId !== undefined) ||
    (banner !== undefined && recognise.banner !== undefined) ||
    (title !== undefined && recognise.title !== undefined) ||
    (lldp !== undefined && recognise.lldp !== undefined)
  )
}
