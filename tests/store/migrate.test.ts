/** A database of the release before is brought up to date, and keeps what it held. */
import { createHash } from 'node:crypto'
import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { allUnits, theseUnits } from '../../src/core/muster/selection'
import { readFileParts } from '../../src/store/files'
import { migrateStore, openStore, type Store } from '../../src/store/open'
import { claimOrder } from '../../src/store/orders'
import { planIsCurrent } from '../../src/store/plans'
import { replan } from '../../src/store/replan'
import { findDrawing } from '../../src/store/sites'
import { demoJob, freshStore } from '../support/bench'

const migrations = join(import.meta.dirname, '../../src/store/migrations')
let folder: string
let fresh: Awaited<ReturnType<typeof freshStore>>
let store: Store
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-migrate-'))
  fresh = await freshStore()
  const [tables] = (await fresh.store.db.execute(sql`show tables`)) as unknown as [Record<string, string>[]]
  await fresh.store.db.transaction(async (transaction) => {
    await transaction.execute(sql`set foreign_key_checks = 0`)
    for (const table of tables) await transaction.execute(sql.raw(`drop table \`${Object.values(table)[0]}\``))
    await transaction.execute(sql`set foreign_key_checks = 1`)
  })
  store = openStore({ url: fresh.url, vaultKeyFile: fresh.vaultKeyFile })
})
afterEach(async () => {
  await store.close()
  await fresh.drop()
  rmSync(folder, { recursive: true, force: true })
})

/** The first so many migrations, as a release had them. */
function release(count: number): string {
  mkdirSync(join(folder, 'meta'))
  const journal = JSON.parse(readFileSync(join(migrations, 'meta/_journal.json'), 'utf8')) as {
    entries: { tag: string }[]
  }
  const entries = journal.entries.slice(0, count)
  for (const { tag } of entries) copyFileSync(join(migrations, `${tag}.sql`), join(folder, `${tag}.sql`))
  writeFileSync(join(folder, 'meta/_journal.json'), JSON.stringify({ ...journal, entries }))
  return folder
}

it('keeps drawings, gives orders their new form, and plans anew', async () => {
  await migrateStore(store, release(1))
  const { db } = store
  const drawing = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')
  await db.execute(
    sql`insert into jobs (id, slug, name, brief, created_at) values (1, 'port-ellery', 'Port Ellery', ${JSON.stringify(demoJob().brief)}, '2026-11-01')`,
  )
  for (const floor of ['hall', 'yard'])
    await db.execute(sql`insert into floor_drawings values (1, ${floor}, 'image/svg+xml', ${drawing}, '2026-11-01')`)
  for (const [units, status] of [
    ['[]', 'open'],
    ['["hall-01"]', 'open'],
    ['[]', 'done'],
  ])
    await db.execute(
      sql`insert into orders (job_id, kind, units, status, created_at) values (1, 'muster', ${units}, ${status}, '2026-11-01')`,
    )
  await db.execute(sql`insert into orders (job_id, kind, units, created_at) values (1, 'sweep', '[]', '2026-11-01')`)

  await migrateStore(store, migrations)
  const hash = createHash('sha256').update(drawing).digest('hex')
  expect([await findDrawing(store, 1, 'hall'), await findDrawing(store, 1, 'yard')]).toEqual([
    { type: 'image/svg+xml', file: hash },
    { type: 'image/svg+xml', file: hash },
  ])
  const parts: Buffer[] = []
  for await (const part of readFileParts(store, hash)) parts.push(part)
  expect(Buffer.concat(parts).equals(drawing)).toBe(true)
  // Of two open musters the newest is left: a job has one.
  expect(await claimOrder(store, 'a', 5)).toMatchObject({ id: 2, units: theseUnits('hall-01') })
  expect(await claimOrder(store, 'a', 5, [2])).toMatchObject({ kind: 'sweep', units: allUnits })
  expect(await planIsCurrent(store, 1)).toBe(false)
  await replan(store, 1)
  expect(await planIsCurrent(store, 1)).toBe(true)
})
