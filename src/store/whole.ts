/**
 * Everything that the store holds, as rows of its tables: for a backup, and back from one. Rows are read and written
 * one after the other, so that neither way holds more than a few of them.
 */

import type { Connection } from 'mysql2'
import type { PoolConnection } from 'mysql2/promise'
import { z } from 'zod'
import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import type { Store } from './open'

const name = z.string().regex(/^[a-z_][a-z0-9_]{0,63}$/i)
/** The rows that follow are of this table. Values of the columns in `bytes` are base64, others are text. */
const headSchema = z.object({ table: name, columns: z.array(name), bytes: z.array(name) })
const rowSchema = z.array(z.string().nullable())
export const wholeLineSchema = z.union([rowSchema, headSchema])
/** The head of a table, or a row of it. */
export type WholeLine = z.infer<typeof wholeLineSchema>
type Head = z.infer<typeof headSchema>

/** The list of migrations belongs to the tables, not to what is in them. */
const ofTables = '__drizzle_migrations'
/** A statement is sent when it has so many rows, or so many bytes of values. */
const mostRows = 200
const mostBytes = 1024 * 1024

/** The rows cannot be put in: the message says why. */
export class RestoreError extends ToldError {
  override readonly name = 'RestoreError'
}

/** All rows, as they stand at the moment of the first. */
export async function* readWhole(store: Store): AsyncGenerator<WholeLine> {
  const connection = await store.connection()
  let left: 'open' | 'done' = 'open'
  try {
    await connection.query('set transaction isolation level repeatable read')
    await connection.query('start transaction with consistent snapshot, read only')
    const bytes = await byteColumnsOf(connection)
    for (const [table, columns] of await columnsOf(connection)) {
      if (table === ofTables) continue
      const isBytes = columns.map((column) => bytes.has(`${table}.${column}`))
      yield { table, columns, bytes: columns.filter((_, index) => isBytes[index]) }
      const wanted = columns.map((column) => `cast(\`${column}\` as binary)`).join(', ')
      // Only the driver's other face, without promises, reads row by row.
      const rows = (connection.connection as unknown as Connection)
        .query({ sql: `select ${wanted} from \`${table}\``, rowsAsArray: true })
        .stream({ highWaterMark: 4 })
      for await (const row of rows as AsyncIterable<(Buffer | null)[]>)
        yield row.map((value, index) => value?.toString(isBytes[index] ? 'base64' : 'utf8') ?? null)
    }
    await connection.query('rollback')
    left = 'done'
  } finally {
    // Where somebody stopped reading, rows are still on their way.
    if (left === 'done') connection.release()
    else connection.destroy()
  }
}

/** How many migrations the tables have been through. */
export async function migrationsOf(store: Store): Promise<number> {
  const connection = await store.connection()
  try {
    return await countMigrations(connection)
  } finally {
    connection.release()
  }
}

/**
 * Replaces all that the store holds, or nothing of it.
 * @param migrations  that the tables of these lines had been through
 * @throws RestoreError where they are of a newer release; whatever reading the lines throws
 */
export async function writeWhole(store: Store, migrations: number, lines: AsyncIterable<WholeLine>): Promise<void> {
  const connection = await store.connection()
  try {
    await connection.query('begin')
    const here = await columnsOf(connection)
    const bytes = await byteColumnsOf(connection)
    if (migrations > (await countMigrations(connection))) throw new RestoreError(message('backup-newer'))
    await connection.query('set session foreign_key_checks = 0')
    for (const table of here.keys()) if (table !== ofTables) await connection.query('delete from ??', [table])
    let filling: Filling | undefined
    for await (const line of lines) {
      if (!Array.isArray(line)) {
        await filling?.flush()
        const now = (column: string): string => columnNow(line.table, column)
        const head = { ...line, columns: line.columns.map(now), bytes: line.bytes.map(now) }
        for (const column of head.columns)
          if (!here.get(line.table)?.includes(column))
            throw new RestoreError(message('backup-column-unknown', { table: line.table, column }))
        filling = new Filling(connection, head, bytes)
      } else if (filling) await filling.take(line)
      else throw new RestoreError(message('backup-row-astray'))
    }
    await filling?.flush()
    await connection.query('commit')
    await connection.query('set session foreign_key_checks = 1')
    connection.release()
  } catch (error) {
    // The server rolls everything back.
    connection.destroy()
    throw error
  }
}

/** Columns that had another name in the release that made the backup. */
const renamedColumns: Readonly<Record<string, string>> = { 'units.place': 'location' }
const columnNow = (table: string, column: string): string => renamedColumns[`${table}.${column}`] ?? column

/** Rows of one table on their way in. */
class Filling {
  #rows: (Buffer | string | null)[][] = []
  #bytes = 0
  readonly #isSent: readonly boolean[]
  readonly #isKept: readonly boolean[]

  constructor(
    readonly connection: PoolConnection,
    readonly head: Head,
    byteColumns: ReadonlySet<string>,
  ) {
    this.#isSent = head.columns.map((column) => head.bytes.includes(column))
    this.#isKept = head.columns.map((column) => byteColumns.has(`${head.table}.${column}`))
  }

  async take(row: readonly (string | null)[]): Promise<void> {
    if (row.length !== this.head.columns.length)
      throw new RestoreError(message('backup-row-width', { table: this.head.table, count: row.length }))
    this.#rows.push(row.map((value, index) => this.#valueOf(value, index)))
    this.#bytes += row.reduce((sum, value) => sum + (value?.length ?? 0), 0)
    if (this.#rows.length >= mostRows || this.#bytes >= mostBytes) await this.flush()
  }

  async flush(): Promise<void> {
    if (this.#rows.length === 0) return
    await this.connection.query('insert into ?? (??) values ?', [this.head.table, this.head.columns, this.#rows])
    this.#rows = []
    this.#bytes = 0
  }

  /** Text is told to be text: else its bytes would be taken for those of another character set. */
  #valueOf(value: string | null, index: number): Buffer | string | null {
    if (value === null) return null
    if (!this.#isSent[index]) return this.#isKept[index] ? Buffer.from(value, 'utf8') : value
    const bytes = Buffer.from(value, 'base64')
    return this.#isKept[index] ? bytes : bytes.toString('utf8')
  }
}

type Row = Record<string, unknown>

async function ask(connection: PoolConnection, text: string): Promise<Row[]> {
  const [rows] = await connection.query(text)
  return rows as Row[]
}

/** Columns of plain bytes, as `table.column`. */
async function byteColumnsOf(connection: PoolConnection): Promise<Set<string>> {
  const rows = await ask(
    connection,
    `select table_name as t, column_name as c from information_schema.columns
     where table_schema = database() and data_type regexp 'blob|binary'`,
  )
  return new Set(rows.map((row) => `${name.parse(row.t)}.${name.parse(row.c)}`))
}

/** Columns of each table, in their order; a generated one is made anew by itself. */
async function columnsOf(connection: PoolConnection): Promise<Map<string, string[]>> {
  const rows = await ask(
    connection,
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

async function countMigrations(connection: PoolConnection): Promise<number> {
  const [row] = await ask(connection, `select count(*) as n from \`${ofTables}\``)
  return Number(row?.n ?? 0)
}
