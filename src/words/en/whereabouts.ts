/** Sentences of where a unit is, by what the wire shows of it, and what the hands do about it. */
import type { KitCard } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import type { Whereabouts } from '../../core/muster/whereabouts'

export interface WhereWords {
  /** What is the matter, as the end of a sentence that begins with the unit; empty where nothing is. */
  readonly is: string
  /** What the hands do, in one line. */
  readonly move: string
  /** What they do then, a sentence each. */
  readonly more?: readonly string[]
  readonly tone: 'hands' | 'waiting' | 'quiet'
}

type Ways = { readonly [K in Whereabouts['kind']]: (where: Extract<Whereabouts, { kind: K }>, of: Of) => WhereWords }
interface Of {
  readonly unit: Unit
  readonly card: KitCard | undefined
}

const plugIn = ({ unit }: Of): string => (unit.port === null ? 'Plug it in' : `Plug it into port ${unit.port}`)
const reset = ({ card }: Of): readonly string[] => card?.reset.steps ?? ['Its maker says how.']
const power = ({ card }: Of): string =>
  card === undefined || card.power.poe === 'mains' ? 'power' : `${card.power.poe} power`

const lendOne = (lends: boolean): string[] => (lends ? ['Or have this laptop lend it one: Bench, Lend addresses.'] : [])

const ways: Ways = {
  ready: () => ({ is: '', move: 'ready to muster', tone: 'quiet' }),
  starting: () => ({ is: 'is on the wire, and still starts', move: 'starting up', tone: 'waiting' }),
  shut: ({ address, port }) => ({
    is: `answers ARP at ${address}, and lets nobody in at port ${port}`,
    move: 'Take its cable out for ten seconds',
    more: [`If port ${port} stays shut, look for a filter on the switch, or reset it.`],
    tone: 'hands',
  }),
  untrusted: () => ({
    is: 'shows another certificate than before',
    move: 'shows another certificate than before: muster it to see what to do',
    tone: 'hands',
  }),
  'set-up-before': ({ address }, of) => ({
    is: `answers at ${address}: it was set up before`,
    move: 'Muster it; if no password opens it, reset it',
    more: reset(of),
    tone: 'hands',
  }),
  twice: ({ addresses }) => ({
    is: `answers at ${addresses.join(' and ')}`,
    move: 'Take one cable out, and compare the labels',
    more: ['Two boxes say that they are this one.'],
    tone: 'hands',
  }),
  'asks-dhcp': ({ server, lends }) => ({
    is:
      server === 'none'
        ? 'asks DHCP for an address, and nobody gives addresses on this wire'
        : 'asks DHCP for an address, and answers nowhere yet',
    move: server === 'none' ? 'Plug in the router that gives addresses' : 'asking for an address',
    ...(server === 'none' ? { more: lendOne(lends) } : {}),
    tone: server === 'none' ? 'hands' : 'waiting',
  }),
  'other-subnet': ({ address }, of) => ({
    is: `is at ${address}, in a subnet that this job does not have: it was set up before`,
    move: 'Reset it',
    more: reset(of),
    tone: 'hands',
  }),
  'for-hands': ({ address }, { card }) => ({
    is: `is on the wire at ${address}`,
    move: 'Open its pages, and set it by hand',
    ...(card?.isBare
      ? { more: ['Nobody has described its model: show how the first is set, and the others follow.'] }
      : {}),
    tone: 'hands',
  }),
  'layer-2-only': ({ address }) => ({
    is: `talks on the wire from ${address}, and does not answer there`,
    move: 'Give it a minute',
    more: ['If it stays silent, take its cable out for ten seconds.'],
    tone: 'waiting',
  }),
  'no-address': ({ lends }, of) => ({
    is: 'is on the wire, and has no address',
    ...(of.card?.factory.addressing === 'static'
      ? { move: 'Give it a minute', more: ['If it still has no address, reset it.', ...reset(of)] }
      : { move: 'Plug in the router that gives addresses', more: lendOne(lends) }),
    tone: 'hands',
  }),
  'by-link': () => ({ is: 'is on the wire, and has no address yet', move: 'ready to muster', tone: 'quiet' }),
  'other-label': ({ mac, model }) => ({
    is: `does not answer; another ${model}, ${mac}, is on the wire and not on the list`,
    move: `Compare its label with ${mac}`,
    more: ['One of the two MACs is on the list by mistake.'],
    tone: 'hands',
  }),
  silent: (_where, of) => ({
    is: `shows no sign of itself: a dark light means no ${power(of)}, a lit one another port or another cable`,
    move: plugIn(of),
    tone: 'hands',
  }),
}

export function whereWords(where: Whereabouts, of: Of): WhereWords {
  return (ways[where.kind] as (where: Whereabouts, of: Of) => WhereWords)(where, of)
}

/** All of it as sentences. */
export function whereSentences(where: Whereabouts, of: Of): string {
  const { is, move, more = [] } = whereWords(where, of)
  const first = is === '' || is === move ? [] : [`It ${is}.`]
  return [...first, `${move.charAt(0).toUpperCase()}${move.slice(1)}.`, ...more].join(' ')
}
