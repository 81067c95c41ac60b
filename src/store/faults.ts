/**
 * What the database can answer instead of doing what it is told: sorted by what helps against it.
 *
 * No error that leaves the store holds the values of a statement: they may be secrets, drawings, whole briefs.
 */
import { type Message, message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'

/**
 * away: it cannot be reached, or goes down. full: the disk has no room. contended: another transaction was in the way,
 * and everything of this one was taken back. refused: the statement itself is the fault.
 */
export type StoreFaultKind = 'away' | 'full' | 'contended' | 'refused'

/** The database did not do it. The message names the statement without its values. */
export class StoreError extends ToldError {
  override readonly name = 'StoreError'
  constructor(
    readonly kind: StoreFaultKind,
    /** The driver's own code, such as ER_DUP_ENTRY. */
    readonly code: string,
    /** The statement's beginning, without its values. */
    statement: string | undefined,
  ) {
    super(message(`database-${kind}`, { code, statement: statement ?? null }))
  }
}

/** A row that does not hold what this program can read: a fault of that row alone. */
export class BrokenRowError extends ToldError {
  override readonly name = 'BrokenRowError'
  constructor(
    /** Table and column, such as `events.event`. */
    readonly column: string,
    why: Message,
  ) {
    super(message('row-unreadable', { column, why }))
  }
}

const awayCodes = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENOENT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_CON_COUNT_ERROR',
])
/** Error numbers of MariaDB: see "MariaDB Error Codes" of its manual. */
const kindsByNumber: ReadonlyMap<number, StoreFaultKind> = new Map([
  // Server shutdown in progress, connection killed, and a Galera node that is not ready (1047).
  ...[1053, 1077, 1079, 1927, 1047].map((number) => [number, 'away'] as const),
  // Lock wait timeout, deadlock (also a lost Galera certification), record changed since it was read.
  ...[1205, 1213, 1020].map((number) => [number, 'contended'] as const),
  // Error on write, disk full, table full.
  ...[3, 1021, 1026, 1114].map((number) => [number, 'full'] as const),
])

/** A statement that inserts is named by its table; no more of it than that is told. */
const longestStatement = 80

/** @returns the store's own error for what the driver threw; undefined for what is no error of the database */
export function storeErrorOf(error: unknown): StoreError | undefined {
  for (let each: unknown = error, statement: string | undefined; each instanceof Error; each = each.cause) {
    if (each instanceof StoreError) return each
    const { code, errno, fatal, query } = each as { code?: unknown; errno?: unknown; fatal?: unknown; query?: unknown }
    if (typeof query === 'string') statement = query.slice(0, longestStatement)
    const isDriver = (typeof code === 'string' && /^(ER_|PROTOCOL_|E[A-Z]{3,})/.test(code)) || fatal === true
    if (!isDriver) continue
    const kind =
      (typeof errno === 'number' && kindsByNumber.get(errno)) ||
      (awayCodes.has(String(code)) || fatal === true ? 'away' : 'refused')
    return new StoreError(kind, String(code ?? 'CLOSED'), statement)
  }
  return undefined
}
