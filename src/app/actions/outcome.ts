/** What an action answers: done, or a sentence that says what is wrong, with the field that it belongs to. */
export type Outcome = { readonly ok: true } | { readonly ok: false; readonly sentence: string; readonly field?: string }

export const done: Outcome = { ok: true }

export function failed(sentence: string, field?: string): Outcome {
  return { ok: false, sentence, ...(field === undefined ? {} : { field }) }
}
