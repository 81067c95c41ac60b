import type { z } from 'zod'

/** What an action answers: done, or a sentence that says what is wrong, with the field that it belongs to. */
export type Outcome<T = unknown> = { readonly ok: true; readonly value?: T } | Failure
export type Failure = { readonly ok: false; readonly sentence: string; readonly field?: string }

export const done: Outcome<never> = { ok: true }

export function failed(sentence: string, field?: string): Failure {
  return { ok: false, sentence, ...(field === undefined ? {} : { field }) }
}

/** The first fault of what came in, with the path of its field. */
export function failedBy(error: z.ZodError): Failure {
  const [issue] = error.issues
  return failed(issue?.message ?? 'Something is missing.', issue?.path.join('.'))
}
