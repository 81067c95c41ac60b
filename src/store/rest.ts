/**
 * Two ways to wait that several processes need: a rest that can be cut short, and an answer that is not waited for for
 * ever.
 */
import { setTimeout as sleep } from 'node:timers/promises'

/** Resolves after so many ms, or as soon as the signal is given; it never throws. */
export async function rest(ms: number, signal: AbortSignal): Promise<void> {
  await sleep(ms, undefined, { signal }).catch(() => undefined)
}

/** The value of a promise; `otherwise` if it fails or takes longer than so many ms. */
export async function inTime<T>(asking: Promise<T>, ms: number, otherwise: T): Promise<T> {
  const late = new AbortController()
  try {
    return await Promise.race([asking.catch(() => otherwise), rest(ms, late.signal).then(() => otherwise)])
  } finally {
    late.abort()
  }
}
