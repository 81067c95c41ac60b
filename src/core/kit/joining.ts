/**
 * How far an access point has come with its controller (RFC 5415, 2.3), and why it is turned away: what a controller's
 * own words for it mean is said by its card.
 */
import { z } from 'zod'

export const joinStates = ['absent', 'discovered', 'joining', 'image', 'configuring', 'run'] as const
export const turnedAwayFor = [
  'not-listed',
  'licence-full',
  'clock',
  'country',
  'certificate',
  'login',
  'image-failed',
] as const
export type JoinReason = (typeof turnedAwayFor)[number]

export const joiningSchema = z.object({
  name: z.string().max(64).optional(),
  /** `unknown`: its controller says something that its card does not know, which is never guessed at. */
  join: z.enum([...joinStates, 'turned-away', 'unknown']).default('absent'),
  reason: z.enum(turnedAwayFor).optional(),
  /** What it says, where that is unknown. */
  said: z.string().max(60).optional(),
  'current-address': z.string().max(40).optional(),
})
export type Joining = z.infer<typeof joiningSchema>

/** What a state that a controller shows stands for: how far it is, or why it is turned away. */
export const shownStateSchema = z.enum([...joinStates, ...turnedAwayFor])

export type StatesShown = Readonly<Record<string, z.infer<typeof shownStateSchema>>>

/** @param means  of the words that are shown */
export function joiningShown(words: string, means: StatesShown): Pick<Joining, 'join' | 'reason' | 'said'> {
  const state = Object.hasOwn(means, words) ? means[words] : undefined
  if (state === undefined) return { join: 'unknown', said: words.slice(0, 60) }
  const reason = turnedAwayFor.find((each) => each === state)
  return reason === undefined ? { join: state as Joining['join'] } : { join: 'turned-away', reason }
}
