/**
 * A brief that is half typed: whole in its shape, while single fields may hold what no brief may.
 */
import { type Brief, briefSchema } from './brief'

/** @returns undefined where more is wrong than fields that can be typed anew */
export function readBriefDraft(value: unknown): Brief | undefined {
  const parsed = briefSchema.safeParse(value)
  if (parsed.success) return value as Brief
  const shape = parsed.error.issues.every((issue) => {
    const at = issue.path.reduce<unknown>(
      (inner, key) =>
        typeof inner === 'object' && inner !== null ? (inner as Record<PropertyKey, unknown>)[key] : undefined,
      value,
    )
    const wantsMore = issue.code === 'invalid_type' && ['object', 'array', 'record', 'map'].includes(issue.expected)
    return (
      !wantsMore &&
      issue.code !== 'invalid_union' &&
      at !== undefined &&
      (typeof at !== 'object' || at === null || issue.code === 'too_small' || issue.code === 'custom')
    )
  })
  return shape ? (value as Brief) : undefined
}
