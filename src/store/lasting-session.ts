/**
 * The session between Drizzle and the driver: what the database did not do and may be asked again is asked again, for
 * as long as the store's patience lasts. Errors leave it without the values of their statements.
 */
import { sql } from 'drizzle-orm'
import type { MySqlDialect } from 'drizzle-orm/mysql-core'
import { MySql2Session, MySql2Transaction } from 'drizzle-orm/mysql2'
import type { Pool, PoolConnection } from 'mysql2/promise'
import { type StoreError, storeErrorOf } from './faults'
import { rest } from './rest'

export interface Patience {
  /** How long one call is tried again, ms; Infinity for as long as it takes. */
  readonly patienceMs: number
  /** Ends every wait. */
  readonly signal: AbortSignal
}

const shortestPauseMs = 50
const longestPauseMs = 1000

type Options = ConstructorParameters<typeof MySql2Session>[3]
type Schema = ConstructorParameters<typeof MySql2Session>[2]

// Drizzle's session is generic over the schema; which one it is does not matter to retrying.
type AnyTransaction = MySql2Transaction<Record<string, unknown>, Record<string, never>>

export class LastingSession extends MySql2Session<Record<string, unknown>, Record<string, never>> {
  readonly #pool: Pool
  readonly #dialect: MySqlDialect
  readonly #schema: Schema
  readonly #options: Options
  readonly #patience: Patience

  constructor(pool: Pool, dialect: MySqlDialect, schema: Schema, options: Options, patience: Patience) {
    super(pool, dialect, schema as never, options)
    this.#pool = pool
    this.#dialect = dialect
    this.#schema = schema
    this.#options = options
    this.#patience = patience
  }

  override prepareQuery(
    ...args: Parameters<MySql2Session<Record<string, unknown>, Record<string, never>>['prepareQuery']>
  ) {
    const prepared = super.prepareQuery(...args)
    const execute = prepared.execute.bind(prepared)
    const statement = args[0].sql
    prepared.execute = ((values?: Record<string, unknown>) =>
      // A plain insert whose answer was lost may have been carried out: a second one would be one too many.
      persist(
        () => execute(values),
        this.#patience,
        (fault) => fault.kind !== 'away' || neverSent(fault) || !isPlainInsert(statement),
      )) as typeof prepared.execute
    return prepared as never
  }

  /**
   * Runs a transaction, again from its beginning where it was taken back. What it does must bear being done twice: the
   * answer to its commit may be lost.
   */
  override transaction<T>(act: (transaction: AnyTransaction) => Promise<T>): Promise<T> {
    return persist(
      () => this.#once(act),
      this.#patience,
      () => true,
    )
  }

  async #once<T>(act: (transaction: AnyTransaction) => Promise<T>): Promise<T> {
    const connection = await this.#pool.getConnection()
    try {
      const session = new MySql2Session(connection, this.#dialect, this.#schema as never, this.#options)
      const transaction: AnyTransaction = new MySql2Transaction(
        this.#dialect,
        session as never,
        this.#schema as never,
        0,
        'default',
      )
      await transaction.execute(sql`begin`)
      try {
        const result = await act(transaction)
        await transaction.execute(sql`commit`)
        return result
      } catch (error) {
        // If the connection is gone, the server rolls everything back.
        await transaction.execute(sql`rollback`).catch(() => connection.destroy())
        throw error
      }
    } finally {
      release(connection)
    }
  }
}

function release(connection: PoolConnection): void {
  try {
    connection.release()
  } catch {
    connection.destroy()
  }
}

/** @throws StoreError without the values of the statement; whatever is no fault of the database as it was */
async function persist<T>(
  act: () => Promise<T>,
  { patienceMs, signal }: Patience,
  mayRepeat: (fault: StoreError) => boolean,
): Promise<T> {
  const began = performance.now()
  for (let pause = shortestPauseMs; ; pause = Math.min(pause * 2, longestPauseMs)) {
    try {
      return await act()
    } catch (error) {
      const fault = storeErrorOf(error)
      if (!fault) throw error
      if (
        fault.kind === 'refused' ||
        !mayRepeat(fault) ||
        signal.aborted ||
        performance.now() - began + pause > patienceMs
      )
        throw fault
      await rest(pause * (0.5 + Math.random() / 2), signal)
    }
  }
}

const neverSent = (fault: StoreError): boolean =>
  ['ECONNREFUSED', 'ENOENT', 'EHOSTUNREACH', 'ER_CON_COUNT_ERROR'].includes(fault.code)

const isPlainInsert = (statement: string): boolean =>
  /^insert into/i.test(statement) && !/on duplicate key update/i.test(statement)
