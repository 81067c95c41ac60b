/** How the parts of an installation stand, as a page hears it every second. */

import { z } from 'zod'
import { type Message, message } from '../message/message'

export const partNames = ['database', 'lab', 'runner', 'pages'] as const
export type PartName = (typeof partNames)[number]

export const partSchema = z.object({
  name: z.enum(partNames),
  standing: z.enum(['runs', 'away']),
  /** How long it has stood like that, ms. */
  forMs: z.number(),
  /** How often it was started again. */
  restarts: z.int(),
})

export const pulseSchema = z.object({
  /** The server's clock, ms since 1970. */
  now: z.number(),
  database: z.enum(['answers', 'away']),
  /** How long ago a runner was seen last, ms; null where none ever was. */
  runnerSilentMs: z.number().nullable(),
  wire: z.enum(['works', 'away']),
  sweptMsAgo: z.number().nullable(),
  disk: z.enum(['has-room', 'full']),
  /** What the program that started the parts says of them; empty where it says nothing. */
  parts: z.array(partSchema),
  /** The newest order of each job that is looked at, where it failed. */
  failed: z.record(z.string(), z.object({ kind: z.enum(['sweep', 'muster', 'restore-laptop']), reason: z.string() })),
})
export type Pulse = z.infer<typeof pulseSchema>

/** A runner that is silent for longer is taken for dead. */
export const silentRunnerMs = 3500
/** For so long a page says that a part was started again. */
const justRestartedMs = 20_000

/** Parts that were started again a moment ago. */
function returned({ parts }: Pulse): Message[] {
  const names = parts
    .filter(({ standing, restarts, forMs }) => standing === 'runs' && restarts > 0 && forMs < justRestartedMs)
    .map(({ name }) => name)
  return names.length === 0 ? [] : [message('parts-are-back', { parts: names })]
}

/** What people must know about the parts, the worst first. */
export function pulseMessages(pulse: Pulse): Message[] {
  const away = new Set(pulse.parts.filter((part) => part.standing === 'away').map((part) => part.name))
  const silent = pulse.runnerSilentMs === null || pulse.runnerSilentMs > silentRunnerMs
  const has = pulse.parts.length > 0
  return [
    ...(pulse.disk === 'full' ? [message('pulse-disk-full')] : []),
    ...(pulse.database === 'away' || away.has('database') ? [message('pulse-database-away')] : []),
    ...(away.has('lab') || (pulse.wire === 'away' && pulse.database === 'answers' && !silent)
      ? [has ? message('lab-away') : message('wire-away')]
      : []),
    ...(away.has('runner') || (silent && pulse.database === 'answers')
      ? [has ? message('runner-away') : message('runner-missing')]
      : []),
    ...returned(pulse),
  ]
}
