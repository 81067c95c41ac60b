/** Values of a brief by the path of their field, such as `networks.0.ssid`. */
import type { z } from 'zod'

import { type Brief, briefSchema } from '../../core/brief/brief'
import { applyMend } from '../../core/review/fault'

export function valueAt(brief: Brief, path: string): unknown {
  return path.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown> | null | undefined)?.[key], brief)
}

export function withValue(brief: Brief, path: string, value: unknown): Brief {
  return applyMend(brief, [{ path, value }])
}

/**
 * A whole brief for what is not whole yet: where a field is at fault, it has the value of before. So the cross-checks
 * of everything else go on while somebody is typing.
 */
export function wholeAgain(brief: Brief, before: Brief, issues: readonly z.core.$ZodIssue[]): Brief {
  let next = brief
  for (const { path } of issues) {
    const value = valueAt(before, path.join('.'))
    if (value === undefined) return before
    next = withValue(next, path.join('.'), value)
  }
  const parsed = briefSchema.safeParse(next)
  return parsed.success ? parsed.data : before
}
