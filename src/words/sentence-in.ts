/** Makes the sentence of a message in a language: messages among its parameters are made first. */
import type { Message, Sentences } from '../core/message/message'
import type { table } from '../core/message/table'

/** What is put together alike in every language. */
export const sentencesAlike = {
  'as-told': ({ text }: { text: string }) => text,
  together: ({ sentences: each }: { sentences: readonly string[] }) => each.join(' '),
}

type Made = string | ((params: Readonly<Record<string, unknown>>) => string)

export function sentenceIn(sentences: Sentences<typeof table>, message: Message): string {
  const made = sentences[message.code] as Made
  if (typeof made === 'string') return made
  const worded = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(worded)
    return isMessage(value) ? sentenceIn(sentences, value) : value
  }
  return made(Object.fromEntries(Object.entries(message.params).map(([name, value]) => [name, worded(value)])))
}

const isMessage = (value: unknown): value is Message =>
  typeof value === 'object' && value !== null && 'code' in value && 'params' in value
