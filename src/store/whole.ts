/**
 * Everything that the store holds, as rows of its tables: for a backup, and back from one. Values travel as the bytes
 * of their text, so that no type loses anything on the way.
 */
import { type SQL, sql } from 'drizzle-orm'
import { z } from 'zod'
import type { Store } from './open'

const name = z.string().regex(/^[a-z_][a-z0-9_]{0,63}$/i)
/** Columns, and for each row the bytes of each value, hexadecimal; null for none. */
const tableSchema = z.object({ name, columns: z.array(name), rows: z.array(z.array(z.string().nullable())) })
export const wholeSchema = z.object({
  /** Migrations that its tables had been through. */
  migrations: z.int().min(0),
  tables: z.array(tableSchema),
})
export type Whole = z.infer<typeof wholeSchema>

/** The list of migrations belongs to the tables, not to what is in them. */
const ofTables = '__drizzle_migrations'
const rowsAtOnce = 200

/** The rows cannot be put in: the message says why. */
export class RestoreError extends Error {
  override readonly name = 'RestoreError'
}

/** All rows, as they stood at one moment. */
export async function readWhole(store: Store): Promise<Whole> {
  return store.db.transaction(
    async (transaction) => {
      const columns = await columnsOf(transaction)
      const tables: Whole['tables'] = []
      for (const [table, names] of columns) {
        if (table === ofTables) continue
        const wanted = names.map((column) => `hex(cast(\`${column}\` as binary))`).join(', ')
        const rows = await ask(transaction, `select ${wanted} from \`${table}\``)
        tables.push({ name: table, columns: [...names], rows: rows.map((row) => Object.values(row)) as never })
      }
      return { migrations: await migrationsOf(transaction), tables }
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  )
}

/**
 * Replaces all that the store holds, or nothing of it.
 * @throws RestoreError where the rows are of a newer release
 */
export async function writeWhole(store: Store, whole: Whole): Promise<void> {
  await store.db.transaction(async (transaction) => {
    const here = await columnsOf(transaction)
    const bytes = await byteColumnsOf(transaction)
    if (whole.migrations > (await migrationsOf(transaction)))
      throw new RestoreError('it was made by a newer release: bring this one up to date first')
    for (const table of whole.tables)
      for (const column of table.columns)
        if (!here.get(table.name)?.includes(column))
          throw new RestoreError(`this release has no place for ${table.name}.${column}`)
    await ask(transaction, 'set session foreign_key_checks = 0')
    try {
      for (const table of here.keys()) if (table !== ofTables) await ask(transaction, `delete from \`${table}\``)
      for (const { name: table, columns, rows } of whole.tables)
        for (let from = 0; from < rows.length; from += rowsAtOnce) {
          const values = rows.slice(from, from + rowsAtOnce).map((row) => {
            const each = row.map((value, index) => valueAs(value, bytes.has(`${table}.${columns[index]}`)))
            return sql`(${sql.join(each, sql`, `)})`
          })
          const into = sql.raw(
            `insert into \`${table}\` (${columns.map((column) => `\`${column}\``).join(', ')}) values `,
          )
          await transaction.execute(sql`${into}${sql.join(values, sql`, `)}`)
        }
    } finally {
      await ask(transaction, 'set session foreign_key_checks = 1')
    }
  })
}

/** Text is told to be text: else its bytes would be taken for those of another character set. */
function valueAs(hex: string | null, isBytes: boolean): SQL {
  if (hex === null) return sql`null`
  return isBytes ? sql`unhex(${hex})` : sql`convert(unhex(${hex}) using utf8mb4)`
}

/** Columns of plain bytes, as `table.column`. */
async function byteColumnsOf(on: Transaction): Promise<Set<string>> {
  const rows = await ask(
    on,
    `select table_name as t, column_name as c from information_schema.columns
     where table_schema = database() and data_type regexp 'blob|binary'`,
  )
  return new Set(rows.map((row) => `${name.parse(row.t)}.${name.parse(row.c)}`))
}

type Transaction = Pick<Store['db'], 'execute'>
type Row = Record<string, unknown>

async function ask(on: Transaction, text: string): Promise<Row[]> {
  const [rows] = (await on.execute(sql.raw(text))) as unknown as [Row[]]
  return rows
}

/** Columns of each table, in their order; a generated one is made anew by itself. */
async function columnsOf(on: Transaction): Promise<Map<string, string[]>> {
  const rows = await ask(
    on,
    `select c.table_name as t, c.column_name as c from information_schema.columns c
     join information_schema.tables b on b.table_schema = c.table_schema and b.table_name = c.table_name
     where c.table_schema = database() and b.table_type = 'BASE TABLE' and c.is_generated = 'NEVER'
     order by c.table_name, c.ordinal_position`,
  )
  const tables = new Map<string, string[]>()
  for (const row of rows) {
    const [table, column] = [name.parse(row.t), name.parse(row.c)]
    tables.set(table, [...(tables.get(table) ?? []), column])
  }
  return tables
}

async function migrationsOf(on: Transaction): Promise<number> {
  const [row] = await ask(on, `select count(*) as n from \`${ofTables}\``)
  return Number(row?.n ?? 0)
}
