/** What becomes of one call: its value, or what it throws. */
import { asTold } from '../../src/core/message/message'
import { StoreError } from '../../src/store/faults'
import { WireError } from '../../src/wire/errors/wire-error'
import { HostAwayError } from '../../src/wire/host/host'
import { type CallName, type Fault, portOf } from './faults'
import type { Scene } from './scene'

/** A call as it is, carried out a second time, or answered as before the last change. */
export type EffectTime = 'first' | 'again' | 'older'
export type Outcome<T> =
  | { readonly kind: 'value'; readonly value: T }
  | { readonly kind: 'error'; readonly error: unknown }

const errorOf = (error: unknown) => ({ kind: 'error', error }) as const
/** Records that are asked again by the runner itself where the store has lost its patience. */
const hasOwnPatience = new Set<CallName>(['append'])
const databaseAway = errorOf(new StoreError('away', 'ECONNRESET', 'the database went away'))

/** @param effect  throws what the call is to throw */
export function outcomeOf<T>(
  { world, wireAwayUntil }: Scene,
  name: CallName,
  fault: Fault['what'] | undefined,
  effect: (time: EffectTime) => T,
): Outcome<T> {
  const port = portOf(name)
  if (port !== 'records' && wireAwayUntil > world.now)
    return errorOf(new HostAwayError(asTold('the wire helper is away')))
  if (fault?.kind === 'fails' && port !== 'records')
    return errorOf(new WireError(world.draw() < 0.5 ? 'unreachable' : 'timeout', 'it got lost'))
  if (fault?.kind === 'fails' && hasOwnPatience.has(name) && world.draw() < 0.5) return databaseAway
  try {
    const value = effect(fault?.kind === 'older' ? 'older' : 'first')
    const isLost = fault?.kind === 'loses-answer' || fault?.kind === 'fails'
    // A transaction whose answer was lost is carried out again by the store itself, as long as its patience lasts.
    if (port === 'records' && isLost) {
      if (value instanceof Promise) value.catch(() => undefined)
      if (hasOwnPatience.has(name) && world.draw() < 0.5) return databaseAway
      return { kind: 'value', value: effect('again') }
    }
    if (port === 'session' && fault?.kind === 'loses-answer')
      return errorOf(new WireError('timeout', 'the answer got lost'))
    if (port === 'session' && fault?.kind === 'garbled') return errorOf(new WireError('garbled', 'this is no answer'))
    return { kind: 'value', value }
  } catch (error) {
    return errorOf(error)
  }
}
