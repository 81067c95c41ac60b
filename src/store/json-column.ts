/** A column of JSON text that is parsed by its schema whenever it is read: the database is a boundary too. */

import { customType } from 'drizzle-orm/mysql-core'
import type { z } from 'zod'
import { fromText, message } from '../core/message/message'
import { BrokenRowError } from './faults'

/** @param column  table and column, such as `events.event`: named where a row cannot be read */
export function jsonColumn<T>(column: string, schema: z.ZodType<T>) {
  return customType<{ data: T; driverData: string }>({
    dataType: () => 'longtext',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (text) => readJson(column, schema, text),
  })
}

/** @throws BrokenRowError */
export function readJson<T>(column: string, schema: z.ZodType<T>, text: string): T {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    throw new BrokenRowError(column, message('column-not-json'))
  }
  const parsed = schema.safeParse(value)
  // The first fault tells enough, and no column with a schema holds a secret.
  const [issue] = parsed.success ? [] : parsed.error.issues
  if (!parsed.success)
    throw new BrokenRowError(
      column,
      message('at-path', { path: issue?.path.join('.') ?? '', told: fromText((issue?.message ?? '').slice(0, 120)) }),
    )
  return parsed.data
}
