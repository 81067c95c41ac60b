/** A column of JSON text that is parsed by its schema whenever it is read: the database is a boundary too. */
import { customType } from 'drizzle-orm/mysql-core'
import type { z } from 'zod'

export function jsonColumn<T>(schema: z.ZodType<T>) {
  return customType<{ data: T; driverData: string }>({
    dataType: () => 'longtext',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (text) => schema.parse(JSON.parse(text)),
  })
}
