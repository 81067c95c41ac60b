import { asText, fromText, type Message } from './message'

/** The base of every error that somebody may be told of: a message, which is its text for logs too. */
export class ToldError extends Error {
  constructor(
    readonly told: Message,
    options?: ErrorOptions,
  ) {
    super(asText(told), options)
  }
}

/** What an error says, whoever made it: in our own words, or as it was told. */
export function toldBy(error: unknown): Message {
  if (error instanceof ToldError) return error.told
  return fromText(error instanceof Error ? error.message : String(error))
}
