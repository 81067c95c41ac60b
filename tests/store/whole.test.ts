/** Everything in one sealed file, and back in another installation. */
import { execFileSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { gunzipSync } from 'node:zlib'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
import { loadJob } from '../../src/jobs/load-job'
import { backUp, restoreWhole } from '../../src/jobs/whole-backup'
import { keepFile } from '../../src/store/files'
import { findJob } from '../../src/store/jobs'
import { openStore, type Store } from '../../src/store/open'
import { openDatedSecrets } from '../../src/store/secrets'
import { readWhole, type WholeLine } from '../../src/store/whole'
import { demoJob, freshStore } from '../support/bench'
import { longIt } from '../support/long'

const passphrase = 'three words and more'
const root = join(import.meta.dirname, '../..')
const now = new Date('2026-11-25T12:00:00Z')
const folder = mkdtempSync(join(tmpdir(), 'air-muster-backup-'))
let from: Awaited<ReturnType<typeof freshStore>>
let to: Awaited<ReturnType<typeof freshStore>>
let jobId: number

beforeAll(async () => {
  await bundleIfStale()
  from = await freshStore()
  to = await freshStore()
  jobId = await loadJob(
    from.store,
    demoJob((job) => Object.assign(job, { name: 'Überfahrt „Ellery“ ☕ \u2028 \\ \' "' })),
    new Date(),
  )
})
afterAll(async () => {
  await from.drop()
  await to.drop()
  rmSync(folder, { recursive: true, force: true })
})
/** The first backup. */
let path: string
let number = 0
/** A backup, in a file of its own. */
const sealed = async (): Promise<string> => {
  number += 1
  const made = join(folder, `${number}.age`)
  await backUp(from.store, from.vaultKeyFile, passphrase, made, now)
  return made
}
const whole = async (store: Store): Promise<WholeLine[]> => {
  const lines: WholeLine[] = []
  for await (const line of readWhole(store)) lines.push(line)
  return lines
}
/** Runs a command in a process of its own. @returns its memory at the most, megabytes */
function megabytesOf({ url, vaultKeyFile }: typeof from, ...words: string[]): number {
  const hook = join(folder, 'hook.cjs')
  const told = join(folder, 'memory')
  // `maxRSS` of its usage would be ours where we have more: Linux counts what a process was before it began its
  // program.
  const tell = `const fs = require('fs')
    process.on('exit', () => fs.writeFileSync(${JSON.stringify(told)}, fs.readFileSync('/proc/self/status')))`
  writeFileSync(hook, tell)
  execFileSync(process.execPath, ['--require', hook, join(root, 'bin/muster.mjs'), ...words], {
    env: { ...process.env, AIR_MUSTER_DB: url, AIR_MUSTER_VAULT_FILE: vaultKeyFile },
  })
  return Number(/^VmHWM:\s+(\d+) kB$/m.exec(readFileSync(told, 'utf8'))?.[1]) / 1024
}
/** A restore that is refused, and changes nothing. */
const isRefused = async (path: string, words: string, reason: string): Promise<void> => {
  const [before, key] = [await whole(to.store), readFileSync(to.vaultKeyFile)]
  await expect(restoreWhole(to.store, to.vaultKeyFile, path, words)).rejects.toThrow(reason)
  expect(await whole(to.store)).toEqual(before)
  expect(readFileSync(to.vaultKeyFile)).toEqual(key)
  expect(existsSync(`${to.vaultKeyFile}.next`)).toBe(false)
}

describe('a backup', () => {
  it('puts everything into another installation, secrets included', async () => {
    // A drawing in so many parts that no statement could hold them all.
    await keepFiles(9)
    path = await sealed()
    expect(await restoreWhole(to.store, to.vaultKeyFile, path, passphrase)).toBe(now.toISOString())
    expect(await whole(to.store)).toEqual(await whole(from.store))
    expect(statSync(to.vaultKeyFile).mode & 0o777).toBe(0o600)
    expect(statSync(path).mode & 0o777).toBe(0o600)
    // Whoever starts now has the key that the secrets were sealed with.
    const again = openStore({ url: to.url, vaultKeyFile: to.vaultKeyFile })
    expect((await openDatedSecrets(again, jobId)).secrets).toEqual((await openDatedSecrets(from.store, jobId)).secrets)
    await again.close()
  })

  it('shows nothing of what it holds; another passphrase, a changed byte or a missing end is refused', async () => {
    const file = readFileSync(path)
    const { secrets } = await openDatedSecrets(from.store, jobId)
    for (const secret of [...secrets.values(), 'Überfahrt']) expect(file.includes(secret)).toBe(false)
    await isRefused(path, 'three other words', 'backup-does-not-open')
    const changed = join(folder, 'changed')
    const other = Buffer.from(file)
    const at = file.length - 1
    other.writeUInt8(other.readUInt8(at) ^ 1, at)
    writeFileSync(changed, other)
    await isRefused(changed, passphrase, 'backup-does-not-open')
    writeFileSync(changed, file.subarray(0, Math.floor(file.length / 2)))
    await isRefused(changed, passphrase, 'backup-does-not-open')
    writeFileSync(changed, 'no')
    await isRefused(changed, passphrase, 'not-a-backup')
  })

  it('writes over nothing, and leaves nothing where it does not come about', async () => {
    const there = join(folder, 'there')
    writeFileSync(there, 'of somebody')
    await expect(backUp(from.store, from.vaultKeyFile, passphrase, there, now)).rejects.toThrow('EEXIST')
    expect(readFileSync(there, 'utf8')).toBe('of somebody')
    expect(existsSync(`${there}.part`)).toBe(false)
    const other = join(folder, 'other')
    await expect(backUp(from.store, join(folder, 'no key'), passphrase, other, now)).rejects.toThrow('ENOENT')
    expect(existsSync(other) || existsSync(`${other}.part`)).toBe(false)
  })

  it('is opened by others: it is gzipped JSON in lines, in the format age', async () => {
    // A terminal is asked for the passphrase, and `script` is one.
    const command = `script -qec "age -d -o ${folder}/opened ${path}" /dev/null`
    execFileSync('sh', ['-c', command], { input: `${passphrase}\n` })
    const [head, ...lines] = gunzipSync(readFileSync(join(folder, 'opened')))
      .toString('utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as unknown)
    expect(head).toMatchObject({ form: 2, madeAt: now.toISOString() })
    expect(lines.slice(0, -1)).toEqual(await whole(from.store))
  })

  it('of a release that sealed them otherwise is read', async () => {
    expect(
      await restoreWhole(to.store, to.vaultKeyFile, join(import.meta.dirname, 'former-backup.sealed'), passphrase),
    ).toBe('2026-11-25T12:00:00.000Z')
    const job = await findJob(to.store, 'port-ellery')
    expect(job?.name).toBe('Überfahrt „Ellery“ ☕ \u2028 \\ \' "')
    const again = openStore({ url: to.url, vaultKeyFile: to.vaultKeyFile })
    expect((await openDatedSecrets(again, job?.id ?? 0)).secrets.size).toBe(2)
    await again.close()
  })

  longIt('holds the largest files that the product takes, and brings them back, in 300 MB of memory', async () => {
    // The largest drawing, and five images of firmware.
    await keepFiles(25, 64, 64, 64, 64, 64)
    const large = join(folder, 'large')
    const words = join(folder, 'words')
    writeFileSync(words, passphrase)
    expect(megabytesOf(from, 'backup', large, '--passphrase-file', words)).toBeLessThan(300)
    expect(megabytesOf(to, 'restore', large, '--passphrase-file', words, '--replace')).toBeLessThan(300)
    expect(await sums(to.store)).toEqual(await sums(from.store))
  })

  it('of a newer release is refused, and leaves everything as it was', async () => {
    await to.store.db.execute(sql`delete from __drizzle_migrations order by created_at desc limit 1`)
    await isRefused(path, passphrase, 'backup-newer')
  })
})

async function keepFiles(...megabytes: number[]): Promise<void> {
  for (const [index, size] of megabytes.entries())
    await keepFile(
      from.store,
      Readable.from(Array.from({ length: size }, () => randomBytes(2 ** 20))),
      2 ** 28,
      new Date(index),
    )
}

async function sums({ db }: Store): Promise<unknown> {
  const [rows] = await db.execute(sql`select file, part, sha2(bytes, 256) from file_parts order by file, part`)
  expect(rows).toHaveProperty('35')
  return rows
}
