/**
 * Where a unit is, by what the wire shows of it before it is mustered: each way of not being there has its own sentence
 * and next move.
 *
 * In: what the last sweep saw and heard. Out: one of the ways, with what its sentence needs.
 */
import { sameSubnet } from '../address/ipv4'
import { hasPrefixOf, isDirect, type KitCard, modelName, whyNotMustered } from '../kit/kit-card'
import type { Unit } from '../kit/unit'
import type { Sighting } from './events'
import type { Roll } from './roll'

export type Whereabouts =
  | { readonly kind: 'ready' }
  /** `until`: when it should have started, ms since 1970. */
  | { readonly kind: 'starting'; readonly until: number | undefined }
  /** By layer 2 it is there, and its service takes no connection although it has had the time to start. */
  | { readonly kind: 'shut'; readonly address: string; readonly port: number }
  | { readonly kind: 'untrusted' }
  | { readonly kind: 'set-up-before'; readonly address: string }
  /** Two boxes say that they are this one, or it has two addresses. */
  | { readonly kind: 'twice'; readonly addresses: readonly string[] }
  /** `lends`: whether this laptop could give it an address. */
  | { readonly kind: 'asks-dhcp'; readonly server: 'one' | 'none'; readonly lends: boolean }
  | { readonly kind: 'other-subnet'; readonly address: string }
  /** No muster sets its model: somebody goes to where it is, out of its box, and sets it by hand. */
  | { readonly kind: 'for-hands'; readonly address: string }
  /** Its frames are on the wire, and it does not answer at its address. */
  | { readonly kind: 'layer-2-only'; readonly address: string }
  | { readonly kind: 'no-address'; readonly lends: boolean }
  /** It has no IPv4 address yet, and is set by its link-local one. */
  | { readonly kind: 'by-link' }
  /** One of its model is on the wire that is not on the list. */
  | { readonly kind: 'other-label'; readonly mac: string; readonly model: string }
  | { readonly kind: 'silent' }

export interface WhereInput {
  readonly unit: Unit
  readonly card: KitCard | undefined
  readonly roll: Pick<Roll, 'sightings' | 'heard' | 'rows' | 'laptop' | 'muster'>
  /** ms since 1970. */
  readonly now: number
}

/** Seconds that a unit may take beyond what its card says: a switch port takes its time too. */
export const switchPortSeconds = 45

export function whereaboutsOf({ unit, card, roll, now }: WhereInput): Whereabouts {
  const { sightings, heard } = roll
  const mine = sightings.filter(({ mac }) => mac === unit.mac)
  const [sighting] = mine
  // On its way from one address to the other it may be seen at both.
  if (mine.length > 1 && roll.muster === 'idle') return { kind: 'twice', addresses: mine.map(({ address }) => address) }
  if (sighting) return seen(sighting, { unit, card, roll, now })
  const lends = heard.lending.state !== 'cannot'
  if (heard.asking.some(({ mac }) => mac === unit.mac))
    return { kind: 'asks-dhcp', server: heard.servers.length > 0 ? 'one' : 'none', lends }
  const talking = heard.onLink.filter(({ mac }) => mac === unit.mac)
  const at = talking.flatMap(({ address }) => address ?? [])[0]
  if (at !== undefined && card && whyNotMustered(card) !== undefined) return { kind: 'for-hands', address: at }
  // The next sweep asks there.
  if (heard.lending.leases.some(({ mac }) => mac === unit.mac)) return { kind: 'starting', until: undefined }
  if (at !== undefined)
    return { kind: isWorked(at, roll.laptop?.addresses ?? []) ? 'layer-2-only' : 'other-subnet', address: at }
  if (talking.length > 0) return isMetByLink(card) ? { kind: 'by-link' } : { kind: 'no-address', lends }
  const stray = sightings.find(
    ({ mac, unit: listed }) => listed === null && card !== undefined && hasPrefixOf(card, mac),
  )
  return stray && card ? { kind: 'other-label', mac: stray.mac, model: modelName(card) } : { kind: 'silent' }
}

function seen({ answers, address, seen: how, since }: Sighting, { unit, card, roll, now }: WhereInput): Whereabouts {
  if (answers === 'untrusted') return { kind: 'untrusted' }
  if (answers === 'service')
    return how === 'elsewhere' && roll.rows.get(unit.id)?.proven === undefined
      ? { kind: 'set-up-before', address }
      : { kind: 'ready' }
  if (since === undefined || !card) return { kind: 'starting', until: undefined }
  const until = since + (card.timing.start * 1000) / (roll.laptop?.pace ?? 1)
  const late = until + (switchPortSeconds * 1000) / (roll.laptop?.pace ?? 1)
  return now > late ? { kind: 'shut', address, port: card.factory.port } : { kind: 'starting', until }
}

const isMetByLink = (card: KitCard | undefined): boolean =>
  card !== undefined && isDirect(card) && card.does.reachedBy !== 'ipv4' && card.factory.addressing !== 'static'

/** Whether the laptop is in the subnet of an address. */
function isWorked(address: string, own: readonly { readonly cidr: string }[]): boolean {
  return own.some(({ cidr }) => {
    const [base = '', prefix] = cidr.split('/')
    return sameSubnet(base, address, Number(prefix))
  })
}
