/** `muster backup` and `muster restore`: everything, one file, sealed with a passphrase. */

import { statSync } from 'node:fs'
import { jobLines } from '../jobs/job-lines'
import { SealError, shortestPassphrase } from '../jobs/sealed-file'
import { backUp, RestoreError, restoreWhole } from '../jobs/whole-backup'
import { sentence } from '../words/en/sentence'
import { CommandError, fileError, readText, requireReadable } from './command-error'
import { installation } from './installation'
import { withStore } from './with-store'

export interface BackupOptions {
  readonly passphraseFile?: string
}

export async function backup(path: string, options: BackupOptions): Promise<string> {
  const passphrase = passphraseOf(options)
  const { vaultKeyFile } = installation()
  await withStore((store) =>
    backUp(store, vaultKeyFile, passphrase, path, new Date()).catch((error: unknown) => {
      if (error instanceof SealError)
        throw new CommandError(2, `${path} is not made: ${sentence(error.told)}. Try it once more.`)
      throw fileError(error, 'written') ?? error
    }),
  )
  const kilobytes = Math.ceil(statSync(path).size / 1024)
  return `${path} holds everything, ${kilobytes} kB, and was read back. Without its passphrase nobody opens it.`
}

export async function restore(path: string, options: BackupOptions & { replace?: true }): Promise<string> {
  const passphrase = passphraseOf(options)
  requireReadable(path)
  const { vaultKeyFile } = installation()
  return withStore(async (store) => {
    const jobs = await jobLines(store)
    if (jobs.length > 0 && !options.replace)
      throw new CommandError(
        2,
        `There are ${jobs.length} jobs here, and a restore replaces everything. Say --replace if that is ` +
          'meant; make a backup first.',
      )
    const madeAt = await restoreWhole(store, vaultKeyFile, path, passphrase).catch((error: unknown) => {
      if (error instanceof SealError || error instanceof RestoreError)
        throw new CommandError(2, `${path} cannot be restored: ${sentence(error.told)}. Nothing has changed.`)
      throw error
    })
    return (
      `Everything is as it was on ${madeAt}. End Air Muster and start it again: what runs still holds the ` +
      'former key.'
    )
  })
}

/** From a file or the environment: what stands among a command's words is seen by everybody on this machine. */
function passphraseOf({ passphraseFile }: BackupOptions): string {
  const passphrase = passphraseFile
    ? readText(passphraseFile).replace(/\r?\n$/, '')
    : (process.env.AIR_MUSTER_BACKUP_PASSPHRASE ?? '')
  if (passphrase.length >= shortestPassphrase) return passphrase
  throw new CommandError(
    2,
    `A passphrase of ${shortestPassphrase} characters or more seals the file: put it in a file of yours and ` +
      'name that with --passphrase-file, or in AIR_MUSTER_BACKUP_PASSPHRASE.',
  )
}
