/**
 * A fault of a brief: the field that it belongs to, a sentence, and where there is one a way to mend it by one press.
 */
import type { Brief } from './brief'

export interface BriefFault {
  /** Path of the field in the brief, with dots. */
  readonly field: string
  readonly sentence: string
  /** `mend` must be dealt with before the muster; `know` is a danger that the installer takes with open eyes. */
  readonly weight: 'mend' | 'know'
  readonly mend?: Mend
}

export type Mend =
  | { readonly words: string; readonly set: readonly { readonly path: string; readonly value: unknown }[] }
  /** Makes a new secret under this name of the vault. */
  | { readonly words: string; readonly make: string }

/** The brief with the values of a mend in their places. Paths lead through what is there. */
export function applyMend(brief: Brief, set: readonly { readonly path: string; readonly value: unknown }[]): Brief {
  const next = structuredClone(brief) as unknown as Record<string, unknown>
  for (const { path, value } of set) {
    const keys = path.split('.')
    const last = keys.pop()
    let at: Record<string, unknown> = next
    for (const key of keys) at = at[key] as Record<string, unknown>
    if (last !== undefined) at[last] = value
  }
  return next as unknown as Brief
}
