/** What is the same of access points that a controller shows as rows, on its pages and at its prompt. */

import { type Joining, joiningShown, type StatesShown } from '../../../core/kit/joining'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import type { Dialect } from '../dialect'
import type { RowsController, UnitRows } from './controller'

/** Units of a controller at the most: whatever shows more is no list of them. */
export const mostUnits = 1000

/** @throws WireError garbled where its card says nothing of units that it manages */
export function asController<D extends Dialect & { readonly units: UnitRows | undefined }>(
  session: D,
): D & RowsController {
  if (!managesUnits(session)) throw new WireError('garbled', message('card-manages-no-units'))
  return session
}

const managesUnits = <D extends { readonly units: UnitRows | undefined }>(
  session: D,
): session is D & { readonly units: UnitRows } => session.units !== undefined

/**
 * How a unit stands, by the words of its row.
 * @param told  its name and where it answers; empty where the row does not say
 */
export function standingShown(
  words: string,
  states: StatesShown,
  { name, address }: { readonly name: string | undefined; readonly address: string | undefined },
): Joining {
  return {
    ...joiningShown(words, states),
    ...(name ? { name } : {}),
    ...(address ? { 'current-address': address } : {}),
  }
}
