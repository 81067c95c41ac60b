/** All dialects by their kind: a further one is a folder beside and a line here. */
import type { UnitConfig } from '../../core/config/unit-config'
import type { DirectCard } from '../../core/kit/kit-card'
import type { Lane } from '../host/host'
import type { PinCheck } from '../trust/pin'
import { cli } from './cli/cli'
import type { Dialect } from './dialect'
import { netconf } from './netconf/netconf'
import { pages } from './pages/pages'
import { restconf } from './restconf/restconf'

type Kind = DirectCard['dialect']['kind']
type Open<K extends Kind> = (
  lane: Lane,
  card: DirectCard & { dialect: { kind: K } },
  pin: PinCheck,
  desired: UnitConfig | undefined,
) => Dialect

const dialects: { readonly [K in Kind]: Open<K> } = {
  cli,
  netconf,
  pages,
  restconf: (lane, { factory, dialect, does }, pin) =>
    restconf(lane, { port: factory.port, managementInterface: dialect.managementInterface, pin, slow: does.slow }),
}

/**
 * A session with the unit at the lane's end, in the dialect that its card names; not signed in yet.
 *
 * @param desired  what it is to be, where that is known: some units tell by it which network is which, and ask for it
 */
export function openDialect(card: DirectCard, lane: Lane, pin: PinCheck, desired?: UnitConfig): Dialect {
  // The entry of a kind takes the cards of that kind: the table says so, and the compiler cannot follow it here.
  const open = dialects[card.dialect.kind] as Open<Kind>
  return open(lane, card, pin, desired)
}
