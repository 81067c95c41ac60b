/** Images of firmware among the files that are kept: those that a brief names stay, others go. */
import { Readable } from 'node:stream'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { loadJob } from '../../src/jobs/load-job'
import { FilesFullError, keepFile, readFileParts } from '../../src/store/files'
import type { Store } from '../../src/store/open'
import { demoJob, freshStore } from '../support/bench'

let store: Store
let drop: () => Promise<void>
beforeAll(async () => {
  const fresh = await freshStore()
  store = fresh.store
  drop = fresh.drop
})
afterAll(() => drop())

const keep = (text: string, at: Date) => keepFile(store, Readable.from([Buffer.from(text)]), 1000, at)
const held = async (hash: string): Promise<string> => {
  const parts: Buffer[] = []
  for await (const part of readFileParts(store, hash)) parts.push(part)
  return Buffer.concat(parts).toString()
}

it('stay as long as a brief names them, also one that cannot be read, and go an hour after nobody does', async () => {
  const named = await keep('named', new Date())
  const unnamed = await keep('unnamed', new Date())
  const image = { model: 'Tarnhelm C1', version: '7.3.0', file: 'c1.bin', bytes: 5, sha256: named.hash }
  await loadJob(
    store,
    demoJob((job) => {
      job.brief = { ...job.brief, aftercare: { ...job.brief.aftercare, images: [image] } }
    }),
    new Date(),
  )
  await store.db.execute(sql`update file_parts set at = utc_timestamp(3) - interval 3 hour`)
  await store.db.execute(sql`update files set at = utc_timestamp(3) - interval 3 hour`)
  await keep('another', new Date())
  expect([await held(named.hash), await held(unnamed.hash)]).toEqual(['named', ''])

  await store.db.execute(sql`update jobs set brief = concat('[', brief)`)
  await keep('one more', new Date())
  expect(await held(named.hash)).toBe('named')
})

it('are taken while not too much lies there that nothing names; what is named does not count', async () => {
  const bring = (text: string, mostUnnamed: number) =>
    keepFile(store, Readable.from([Buffer.from(text)]), 1000, new Date(), mostUnnamed)
  const { hash } = await bring('twelve bytes', 1000)
  await expect(bring('no more', 12)).rejects.toBeInstanceOf(FilesFullError)
  await store.db.execute(sql`update jobs set brief = concat(brief, '"sha256":"', ${hash}, '"')`)
  const [[sum]] = (await store.db.execute(
    sql`select sum(size) as bytes from files where hash <> ${hash}`,
  )) as unknown as [[{ bytes: string }]]
  const others = Number(sum.bytes) - 'named'.length
  await expect(bring('no more', others)).rejects.toBeInstanceOf(FilesFullError)
  expect(await held((await bring('once more', others + 1)).hash)).toBe('once more')
})
