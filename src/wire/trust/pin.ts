/**
 * Trust at first sight: what a unit shows first is pinned, and what it shows later must be the same. Units sign their
 * own certificates and make their own host keys; nobody else vouches for them.
 */
import { message } from '../../core/message/message'
import { WireError } from '../errors/wire-error'

/**
 * Asked once a fingerprint is seen and before anything is sent: throws to refuse it. A certificate tells whom it is for
 * too, which is no proof of anything.
 */
export type PinCheck = (fingerprint: string, subject?: string) => Promise<void>

/** Keeps the first fingerprint that it is told, and tells the one that is kept. */
export type PinOnFirstSight = (fingerprint: string) => Promise<{ fingerprint: string; first: 'now' | 'before' }>

/** @param onFirst  told when a fingerprint is pinned now */
export function pinCheck(
  pinOnFirstSight: PinOnFirstSight,
  onFirst: (fingerprint: string) => void = () => {},
): PinCheck {
  return async (fingerprint) => {
    const pinned = await pinOnFirstSight(fingerprint)
    if (pinned.first === 'now') onFirst(fingerprint)
    if (pinned.fingerprint !== fingerprint)
      throw new WireError(
        'untrusted',
        message('certificate-not-pinned', { shown: fingerprint.slice(0, 11), pinned: pinned.fingerprint.slice(0, 11) }),
      )
  }
}
