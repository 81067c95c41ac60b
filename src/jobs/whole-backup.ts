/** Everything of an installation in one sealed file, and back: its jobs with their logs, its secrets and their key. */

import { chmodSync, existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { message } from '../core/message/message'
import type { Store } from '../store/open'
import { musterIsWorked } from '../store/orders'
import { upgradeRows } from '../store/row-upgrades'
import { migrationsOf, RestoreError, readWhole, type WholeLine, wholeLineSchema, writeWhole } from '../store/whole'
import { openLines, SealError, sealLines } from './sealed-file'

export { RestoreError } from '../store/whole'

/** The first line: what all others are read by. */
const headSchema = z.object({
  form: z.literal(2),
  madeAt: z.string(),
  /** Migrations that the tables had been through. */
  migrations: z.int().min(0),
  vaultKey: z.base64(),
})
/** The last line: how many rows there were. */
const endSchema = z.strictObject({ rows: z.int().min(0) })
const otherForm = message('backup-of-another-form')

/**
 * Writes a backup, and reads it back before it is called one.
 *
 * @param path  where it is to be; nothing is there yet
 * @throws SealError where it does not hold what was written; whatever the file system throws. Then no file is left.
 */
export async function backUp(
  store: Store,
  vaultKeyFile: string,
  passphrase: string,
  path: string,
  now: Date,
): Promise<void> {
  const unproven = `${path}.part`
  take(unproven)
  try {
    // Its name is taken at once: nothing that is there is written over.
    take(path)
  } catch (error) {
    rmSync(unproven)
    throw error
  }
  try {
    const vaultKey = readFileSync(vaultKeyFile).toString('base64')
    const migrations = await migrationsOf(store)
    let rows = 0
    const lines = async function* () {
      yield JSON.stringify({ form: 2, madeAt: now.toISOString(), migrations, vaultKey })
      for await (const line of readWhole(store)) {
        if (Array.isArray(line)) rows += 1
        yield JSON.stringify(line)
      }
      yield JSON.stringify({ rows })
    }
    await sealLines(lines(), passphrase, unproven)
    const found = await prove(unproven, passphrase)
    if (found.rows !== rows) throw new SealError(message('backup-rows-differ', { written: rows, read: found.rows }))
    renameSync(unproven, path)
  } catch (error) {
    rmSync(unproven, { force: true })
    rmSync(path, { force: true })
    throw error
  }
}

/** An empty file that only its owner reads. @throws where there is one of that name */
const take = (path: string): void => writeFileSync(path, '', { flag: 'wx', mode: 0o600 })

/**
 * Replaces everything by what a backup holds. The key that was there is kept beside, under another name.
 *
 * @returns when the backup was made
 * @throws SealError, RestoreError; then nothing has changed
 */
export async function restoreWhole(
  store: Store,
  vaultKeyFile: string,
  path: string,
  passphrase: string,
): Promise<string> {
  if (await musterIsWorked(store)) throw new RestoreError(message('restore-during-muster'))
  // Nothing of it is used before all of it is proven.
  const { madeAt, migrations, vaultKey } = await prove(path, passphrase)
  // The new key is on disk before the secrets that it opens are in the database.
  const fresh = `${vaultKeyFile}.next`
  writeFileSync(fresh, Buffer.from(vaultKey, 'base64'), { mode: 0o600 })
  try {
    chmodSync(fresh, 0o600)
    await writeWhole(store, migrations, tablesIn(openLines(path, passphrase)))
    // What a former release has kept is in the form of that release.
    await upgradeRows(store)
  } catch (error) {
    rmSync(fresh, { force: true })
    throw error
  }
  if (existsSync(vaultKeyFile)) renameSync(vaultKeyFile, `${vaultKeyFile}.before`)
  renameSync(fresh, vaultKeyFile)
  return madeAt
}

/** Reads a backup from its first line to its last. */
async function prove(path: string, passphrase: string): Promise<z.infer<typeof headSchema> & { rows: number }> {
  let head: z.infer<typeof headSchema> | undefined
  let rows = 0
  const lines = (async function* () {
    for await (const line of openLines(path, passphrase)) {
      head ??= read(headSchema, line)
      yield line
    }
  })()
  for await (const line of tablesIn(lines)) if (Array.isArray(line)) rows += 1
  if (!head) throw new SealError(otherForm)
  return { ...head, rows }
}

/** The lines between the first and the last. */
async function* tablesIn(lines: AsyncIterable<string>): AsyncGenerator<WholeLine> {
  let [number, rows] = [0, 0]
  let last: string | undefined
  for await (const line of lines) {
    // The first is the head, and the last counts the others.
    if (number > 1 && last !== undefined) {
      const each = read(wholeLineSchema, last)
      if (Array.isArray(each)) rows += 1
      yield each
    }
    last = line
    number += 1
  }
  if (last === undefined || read(endSchema, last).rows !== rows) throw new SealError(otherForm)
}

function read<T>(schema: z.ZodType<T>, line: string): T {
  try {
    return schema.parse(JSON.parse(line))
  } catch (cause) {
    throw new SealError(otherForm, { cause })
  }
}
