/** `muster plan`: solves a channel problem. */

import { channelProblemSchema } from '../core/radio/channels/channel-problem'
import { planChannels } from '../core/radio/channels/plan-channels'
import { sentenceOfText } from '../words/en/sentence'
import { CommandError, readText } from './command-error'

/** @throws CommandError naming the place and the fault of the file */
export function plan({ problem: path, json }: { problem: string; json?: true }): string {
  const file = path === '-' ? '/dev/stdin' : path
  let value: unknown
  try {
    value = JSON.parse(readText(file))
  } catch (error) {
    if (error instanceof CommandError) throw error
    throw new CommandError(2, `${path} is not JSON: ${error instanceof Error ? error.message : ''}`)
  }
  const parsed = channelProblemSchema.safeParse(value)
  if (!parsed.success)
    throw new CommandError(
      2,
      parsed.error.issues
        .map((issue) => `${path}: ${issue.path.join('.') || 'the file'}: ${sentenceOfText(issue.message)}`)
        .join('\n'),
    )
  const begun = performance.now()
  const { chosen, cost } = planChannels(parsed.data)
  const seconds = Math.round(performance.now() - begun) / 1000
  const assign = parsed.data.radios.map(({ id }) => ({
    id,
    channel: chosen.get(id)?.channel,
    width: chosen.get(id)?.width,
  }))
  if (json) return JSON.stringify({ assign, cost, seconds })
  return [
    ...assign.map(({ id, channel, width }) => `${id}  channel ${channel}, ${width} MHz`),
    '',
    `cost ${cost.toFixed(1)} in ${seconds} s`,
  ].join('\n')
}
