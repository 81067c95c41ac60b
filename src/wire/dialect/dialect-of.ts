/** Picks the dialect that a kit card names. */
import type { DirectCard } from '../../core/kit/kit-card'
import type { Lane } from '../host/host'
import type { Dialect } from './dialect'
import type { PinCheck } from './restconf/https-session'
import { restconf } from './restconf/restconf'

export function dialectOf(card: DirectCard, lane: Lane, pin: PinCheck): Dialect {
  return restconf(lane, { port: card.factory.port, managementInterface: card.dialect.managementInterface, pin })
}
