/** All dialects by their kind. A dialect is loaded when the first unit that speaks it is met. */

import type { Clear, Config } from '../core/config/unit-config'
import type { DirectCard } from '../core/kit/kit-card'
import { message } from '../core/message/message'
import type { Dialect } from './dialect/dialect'
import { WireError } from './errors/wire-error'
import type { Lane } from './host/host'
import type { PinCheck } from './trust/pin'

type Kind = DirectCard['dialect']['kind']

/**
 * Opens a session with the unit at the lane's end; it is not signed in yet.
 *
 * @param desired  what the unit is to be, where that is known: some units tell by it which network is which
 */
export type OpenDialect = (lane: Lane, card: DirectCard, pin: PinCheck, desired?: Config<Clear>) => Dialect

type OpenOf<K extends Kind> = (
  lane: Lane,
  card: DirectCard & { dialect: { kind: K } },
  pin: PinCheck,
  desired?: Config<Clear>,
) => Dialect

const dialects: { readonly [K in Kind]: () => Promise<OpenOf<K>> } = {
  prompt: async () => (await import('./dialect/prompt/prompt')).prompt,
  netconf: async () => (await import('./dialect/netconf/netconf')).netconf,
  pages: async () => (await import('./dialect/pages/pages')).pages,
  restconf: async () => {
    const { restconf } = await import('./dialect/restconf/restconf')
    return (lane, { factory, dialect, does }, pin) =>
      restconf(lane, { port: factory.port, managementInterface: dialect.managementInterface, pin, slow: does.slow })
  },
}

/** Loads a dialect. Its sessions hold what their cards say that units do against the parts that they have. */
export async function dialectOf(kind: Kind): Promise<OpenDialect> {
  // The entry of a kind takes the cards of that kind: the table says so, and the compiler cannot follow it here.
  const open = (await dialects[kind]()) as OpenDialect
  return (lane, card, pin, desired) => {
    const dialect = open(lane, card, pin, desired)
    const missing = partsMissing(card, dialect)
    if (missing.length === 0) return dialect
    dialect.close()
    throw new WireError('rejected', message('card-asks-without-words', { dialect: kind, parts: missing.join(', ') }))
  }
}

/** What a card says that its units do, and a session with them has no part for. */
export function partsMissing({ does, timing }: Pick<DirectCard, 'does' | 'timing'>, dialect: Dialect): string[] {
  return [
    ...(does.applies === 'staged' && !dialect.staging ? ['applies: staged'] : []),
    ...(does.saves === 'on-command' && !dialect.saving ? ['saves: on-command'] : []),
    ...(timing.image !== undefined && !dialect.firmware ? ['image'] : []),
  ]
}
