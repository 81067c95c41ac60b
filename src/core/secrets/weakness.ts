/**
 * What makes a lawful passphrase a bad one. Kept beside the sealed secret, so that a page can say it without opening
 * it.
 */

import { z } from 'zod'
import { type Message, message } from '../message/message'

export const weaknessSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('same-as-name') }),
  /** Bits of work that a guesser needs, by the strength estimate. */
  z.object({ kind: z.literal('guessable'), bits: z.number() }),
])
export type Weakness = z.infer<typeof weaknessSchema>

export function weaknessOf(
  ssid: string,
  weakness: Weakness,
): Message<'passphrase-is-its-name' | 'passphrase-guessable'> {
  return weakness.kind === 'same-as-name'
    ? message('passphrase-is-its-name', { ssid })
    : message('passphrase-guessable', { ssid, bits: Math.round(weakness.bits) })
}
