/**
 * What can go wrong between the laptop and a unit: a closed set of kinds, each with the reason from the device.
 */

import type { OldCrypto } from '../../core/kit/old-crypto'
import { asTold, type Message, message } from '../../core/message/message'
import { ToldError } from '../../core/message/told-error'

export const wireErrorKinds = [
  'unreachable',
  'refused',
  'occupied',
  'lacking',
  'wrong-unit',
  'untrusted',
  'timeout',
  'garbled',
  'rejected',
  'overtaken',
  'outdated',
] as const
/**
 * unreachable: nothing answers there. refused: it answers and does not let us in. occupied: somebody else is signed
 * in, and it takes one at a time. lacking: this laptop lacks what it takes to speak to it. wrong-unit: somebody else
 * answers. untrusted: its certificate is not the one that was pinned. timeout: it began and did not end. garbled: the
 * reply is not what the protocol allows. rejected: it understood, and will not do it. overtaken: somebody else
 * has changed it since it was read, so nothing was written. outdated: it speaks only what is no longer safe, and its
 * card does not name it.
 */
export type WireErrorKind = (typeof wireErrorKinds)[number]

export class WireError extends ToldError {
  override readonly name = 'WireError'
  constructor(
    readonly kind: WireErrorKind,
    /** What is told of it: a message, or the device's or the protocol's own words, shortened. */
    told: Message | string,
    options?: ErrorOptions,
  ) {
    super(typeof told === 'string' ? asTold(told) : told, options)
    this.message = `${kind}: ${this.message}`
  }
}

/** The browser in which a unit's pages are turned has ended: no fault of the unit, and the next may live. */
export class BrowserGoneError extends WireError {
  constructor(cause: unknown) {
    super('unreachable', message('browser-gone'), { cause })
  }
}

/** A unit speaks only what is no longer safe, and its card does not name that. */
export class OutdatedError extends WireError {
  constructor(readonly old: readonly OldCrypto[]) {
    super('outdated', message('speaks-only-old', { old }))
  }
}

/** Words of a device are hostile input: one line, no control characters, of a bounded length. */
export function plainReason(text: string): string {
  return text
    .replace(/[^\x20-\x7e\u00a0-\uffff]+/g, ' ')
    .trim()
    .slice(0, 300)
}
