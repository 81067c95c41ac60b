/**
 * What the words in the row of an access point mean: how far it has come with its controller, or why it is turned away.
 */
import { z } from 'zod'
import { shownStateSchema } from '../kit/joining'

export type JoinState = z.infer<typeof shownStateSchema>
/** What somebody says that words mean: a state, or none. */
export const saidStateSchema = z.union([shownStateSchema, z.literal('none')])
export type SaidState = z.infer<typeof saidStateSchema>

/** In the order in which they are tried: why it is turned away before how far it is. */
const entries: readonly (readonly [words: RegExp, state: JoinState])[] = [
  [/\b(licen[cs]e|capacity|room|full|too many|limit)\b/i, 'licence-full'],
  [/\b(country|region|regulatory)\b/i, 'country'],
  [/\b(clock|time)\b/i, 'clock'],
  [/\bcertificate\b/i, 'certificate'],
  [/\b(image|firmware|up(grad|dat)\w*) (failed|error)\b|\bfailed to up(grade|date)\b/i, 'image-failed'],
  [/\b(password|credentials?|login)\b/i, 'login'],
  [/\b(wait(s|ing)?|pending|unapproved|not (listed|approved|managed)|unmanaged|new)\b/i, 'not-listed'],
  [/\b(offline|gone|lost|away|absent|unreachable|dis?connected|down|missing)\b/i, 'absent'],
  [/\b(seen|discover(ed|ing)|found)\b/i, 'discovered'],
  [/\b(image|firmware|download\w*|upgrad\w*|updat\w*)\b/i, 'image'],
  [/\b(configur\w*|provision\w*|settings|setting up)\b/i, 'configuring'],
  [/\b(joining|connecting)\b/i, 'joining'],
  [/\b(run(s|ning)?|work(s|ing)?|online|connected|up|active|ready|joined|managed|operational)\b/i, 'run'],
]

/** The state that words are likely to mean; undefined where they say nothing. */
export const stateByWords = (words: string): JoinState | undefined => entries.find(([known]) => known.test(words))?.[1]
