/** What makes a lawful passphrase a bad one. Kept beside the sealed secret, so that a page can say it without opening it. */
import { z } from 'zod'

export const weaknessSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('same-as-name') }),
  /** Bits of work that a guesser needs, by the strength estimate. */
  z.object({ kind: z.literal('guessable'), bits: z.number() }),
])
export type Weakness = z.infer<typeof weaknessSchema>

export function weaknessSentence(ssid: string, weakness: Weakness): string {
  return weakness.kind === 'same-as-name'
    ? `The passphrase of "${ssid}" is its own name: it is the first that anybody tries.`
    : `The passphrase of "${ssid}" can be guessed: about ${Math.round(weakness.bits)} bits, and 40 are wanted. It is made of words or patterns that guessers try first.`
}
