/** What a value says in English: each message in it as its sentence, and what a call throws as what it tells. */
import { fromText, type Message } from '../../src/core/message/message'
import { ToldError } from '../../src/core/message/told-error'
import { sentence, sentenceOfText } from '../../src/words/en/sentence'

// biome-ignore lint/suspicious/noExplicitAny: whatever it is given comes back in its own shape, but for messages
export function english(value: unknown): any {
  if (typeof value === 'string') return fromText(value).code === 'as-told' ? value : sentenceOfText(value)
  if (typeof value === 'function') return () => spoken(() => value())
  if (value instanceof Promise) return value.then(english, (error: unknown) => Promise.reject(told(error)))
  if (value instanceof Map || value instanceof Set || value instanceof Error) return value
  if (Array.isArray(value)) return value.map(english)
  if (typeof value !== 'object' || value === null) return value
  if (!isMessage(value)) return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, english(each)]))
  const { code: _code, params: _params, ...more } = value
  return Object.keys(more).length === 0 ? sentence(value) : { ...more, says: sentence(value) }
}

function spoken<T>(act: () => T): T {
  try {
    return act()
  } catch (error) {
    throw told(error)
  }
}

const told = (error: unknown): unknown => (error instanceof ToldError ? new Error(sentence(error.told)) : error)

const isMessage = (value: object): value is Message =>
  'code' in value && 'params' in value && typeof value.code === 'string'
