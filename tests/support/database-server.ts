/**
 * One MariaDB for all tests, in memory where there is some, in a folder that is gone afterwards. Each test makes a
 * database of its own on it.
 */
import { cpSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { createConnection, type RowDataPacket } from 'mysql2/promise'
import type { TestProject } from 'vitest/node'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { mariadbIn, startMariadb } from '../../scripts/lib/mariadb.mjs'
import { migrateStore } from '../../src/store/migrate'
import { openStore } from '../../src/store/open'
import { passingFolder } from './passing-folder'

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string
    databaseFolder: string
    /** Statements that make the tables of an empty database, as all migrations leave them. */
    emptyTables: string
  }
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = passingFolder('air-muster-test-')
  // Made once: whoever starts a server of its own gets a copy.
  const empty = join(folder, 'empty')
  mariadbIn(folder)
  cpSync(join(folder, 'data'), empty, { recursive: true })
  process.env.AIR_MUSTER_EMPTY_DATA = empty
  const server = await startMariadb(folder)
  project.provide('databaseUrl', server.urlOf('air_muster'))
  project.provide('databaseFolder', folder)
  project.provide('emptyTables', await emptyTables(server.urlOf('air_muster'), join(folder, 'vault.key')))
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Migrates once, and tells how to make the same without migrating: that takes most of a second each time. */
async function emptyTables(url: string, vaultKeyFile: string): Promise<string> {
  const root = join(import.meta.dirname, '../..')
  const store = openStore({ url, vaultKeyFile })
  await migrateStore(store, join(root, 'src/store/migrations'))
  await store.close()
  const connection = await createConnection({ uri: url.replace('mariadb:', 'mysql:') })
  const [tables] = await connection.query<string[][] & RowDataPacket[]>({ sql: 'show tables', rowsAsArray: true })
  const made: string[] = []
  for (const [table] of tables) {
    const [[row]] = await connection.query<string[][] & RowDataPacket[]>({
      sql: `show create table \`${table}\``,
      rowsAsArray: true,
    })
    made.push(String(row?.[1]))
  }
  const [migrated] = await connection.query<RowDataPacket[]>('select hash, created_at from __drizzle_migrations')
  const rows = migrated.map(({ hash, created_at: at }) => `(${connection.escape(hash)}, ${connection.escape(at)})`)
  await connection.end()
  return [
    'set foreign_key_checks = 0',
    ...made,
    `insert into __drizzle_migrations (hash, created_at) values ${rows.join(', ')}`,
    // There is nothing in it that a former release has kept.
    "insert into row_upgrades (name, state) values ('messages', 'done')",
    'set foreign_key_checks = 1',
  ].join(';\n')
}
