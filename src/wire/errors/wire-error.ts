/**
 * What can go wrong between the laptop and a unit: a closed set of kinds, each with the reason from the device.
 */

import { type OldCrypto, offersWords } from '../../core/kit/old-crypto'

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

export class WireError extends Error {
  override readonly name = 'WireError'
  constructor(
    readonly kind: WireErrorKind,
    /** In the device's or the protocol's own words, shortened; for the log line. */
    readonly reason: string,
    options?: ErrorOptions,
  ) {
    super(`${kind}: ${reason}`, options)
  }
}

/** The browser in which a unit's pages are turned has ended: no fault of the unit, and the next may live. */
export class BrowserGoneError extends WireError {
  constructor(cause: unknown) {
    super('unreachable', 'the browser that turned its pages ended', { cause })
  }
}

/** A unit speaks only what is no longer safe, and its card does not name that. */
export class OutdatedError extends WireError {
  constructor(readonly old: readonly OldCrypto[]) {
    super('outdated', `it ${offersWords(old)}`)
  }
}

/** Words of a device are hostile input: one line, no control characters, of a bounded length. */
export function plainReason(text: string): string {
  return text
    .replace(/[^\x20-\x7e\u00a0-\uffff]+/g, ' ')
    .trim()
    .slice(0, 300)
}
