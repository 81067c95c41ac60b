/** Fields that had another name in a former release: what was written then is read as what it is called now. */
import { z } from 'zod'

export type Fields = Readonly<Record<string, unknown>>
export const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** The value with a field under its name of today; itself where it has that already, or neither. */
export function renamed(value: unknown, former: string, now: string): unknown {
  if (!isFields(value) || !(former in value) || now in value) return value
  const { [former]: kept, ...rest } = value
  return { ...rest, [now]: kept }
}

/** What was called `place` until the word stood for where a unit hangs alone. */
export const withEnvironment = <T extends z.ZodType>(schema: T) =>
  z.preprocess((value) => renamed(value, 'place', 'environment'), schema)
