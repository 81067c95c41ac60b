/** A step that cannot go on: thrown by steps, shown as the held state. */
import { type Held, type HeldCode, type HeldParams, heldFor } from '../../core/muster/held'

export class HeldError extends Error {
  override readonly name = 'HeldError'
  constructor(readonly held: Held) {
    super(held.code)
  }
}

export function held<C extends HeldCode>(code: C, params: HeldParams<C>): HeldError {
  return new HeldError(heldFor(code, params))
}
