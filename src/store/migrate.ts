/** Brings a database up to date, whatever release it is of: its tables by the migrations, then rows that were kept. */
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { readMigrationFiles } from 'drizzle-orm/migrator'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import type { Store } from './open'
import { rowsAreOfToday, upgradeRows } from './row-upgrades'

const folderOfMigrations = (): string => join(process.env.AIR_MUSTER_ROOT ?? process.cwd(), 'src/store/migrations')
/** Seconds that one process waits for another that brings the same database up to date. */
const migrationSeconds = 300

/** Brings the tables and their rows up to date; one process at a time. @param folder  where the migrations lie */
export async function migrateStore(store: Store, folder = folderOfMigrations()): Promise<void> {
  if ((await standingOfTables(store, folder)) === 'as-they-should-be') return
  const connection = await store.connection()
  try {
    // A lock of the server's: it is gone with the connection, whatever ends this process.
    await connection.query("select get_lock(concat('migrate ', database()), ?)", [migrationSeconds])
    await migrate(store.db as never, { migrationsFolder: folder })
    if (await hasTable(store, 'row_upgrades')) await upgradeRows(store)
  } finally {
    connection.destroy()
  }
}

/** Whether the tables and their rows are of this release. */
export async function standingOfTables(
  store: Store,
  folder = folderOfMigrations(),
): Promise<'older' | 'as-they-should-be' | 'newer'> {
  if (!(await hasTable(store, '__drizzle_migrations'))) return 'older'
  const [[done]] = (await store.db.execute(
    sql`select max(created_at) as newest from __drizzle_migrations`,
  )) as unknown as [[{ newest: number | string | null }]]
  const newest = readMigrationFiles({ migrationsFolder: folder }).at(-1)?.folderMillis ?? 0
  const ours = Number(done.newest ?? 0)
  if (ours !== newest) return ours < newest ? 'older' : 'newer'
  return (await hasTable(store, 'row_upgrades')) && !(await rowsAreOfToday(store)) ? 'older' : 'as-they-should-be'
}

async function hasTable(store: Store, name: string): Promise<boolean> {
  const [[there]] = (await store.db.execute(
    sql`select count(*) as n from information_schema.tables where table_schema = database() and table_name = ${name}`,
  )) as unknown as [[{ n: number | string }]]
  return Number(there.n) > 0
}
