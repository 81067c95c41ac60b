import type { z } from 'zod'
import { fromText, type Message, message } from '../message/message'

/** What an action answers: done, or a message that says what is wrong, with the field that it belongs to. */
export type Outcome<T = unknown> = { readonly ok: true; readonly value?: T } | Failure
export type Failure = { readonly ok: false; readonly told: Message; readonly field?: string }

export const done: Outcome<never> = { ok: true }

export function failed(told: Message, field?: string): Failure {
  return { ok: false, told, ...(field === undefined ? {} : { field }) }
}

/** The first fault of what came in, with the path of its field. */
export function failedBy(error: z.ZodError): Failure {
  const [issue] = error.issues
  return failed(issue ? fromText(issue.message) : message('something-is-missing'), issue?.path.join('.'))
}
