/** Everything of an installation in one sealed file, and back: its jobs with their logs, its secrets and their key. */
import { chmodSync, existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import type { Store } from '../store/open'
import { readWhole, wholeSchema, writeWhole } from '../store/whole'
import { openSealedFile, SealError, sealFile } from './sealed-file'

export { RestoreError } from '../store/whole'

const backupSchema = z.object({ form: z.literal(1), madeAt: z.string(), vaultKey: z.base64(), whole: wholeSchema })

export async function backUp(store: Store, vaultKeyFile: string, passphrase: string, now: Date): Promise<Buffer> {
  const whole = await readWhole(store)
  const vaultKey = readFileSync(vaultKeyFile).toString('base64')
  return sealFile(JSON.stringify({ form: 1, madeAt: now.toISOString(), vaultKey, whole }), passphrase)
}

/**
 * Replaces everything by what a backup holds. The key that was there is kept beside, under another name.
 *
 * @returns when the backup was made
 * @throws SealError, RestoreError; then nothing has changed
 */
export async function restoreWhole(
  store: Store,
  vaultKeyFile: string,
  file: Buffer,
  passphrase: string,
): Promise<string> {
  const parsed = backupSchema.safeParse(JSON.parse(openSealedFile(file, passphrase)))
  if (!parsed.success) throw new SealError('it was made by another release, in another form')
  const { whole, vaultKey, madeAt } = parsed.data
  // The new key is on disk before the secrets that it opens are in the database.
  const fresh = `${vaultKeyFile}.next`
  writeFileSync(fresh, Buffer.from(vaultKey, 'base64'), { mode: 0o600 })
  chmodSync(fresh, 0o600)
  await writeWhole(store, whole)
  if (existsSync(vaultKeyFile)) renameSync(vaultKeyFile, `${vaultKeyFile}.before`)
  renameSync(fresh, vaultKeyFile)
  return madeAt
}
