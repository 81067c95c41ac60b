/** Files that a command is given and that are not there, or cannot be: one sentence with the place, and exit code 2. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { freshStore } from '../support/bench'
import { muster as command } from '../support/command'

let fresh: Awaited<ReturnType<typeof freshStore>>
let folder: string
beforeAll(async () => {
  fresh = await freshStore()
  folder = mkdtempSync(join(tmpdir(), 'air-muster-files-'))
  writeFileSync(join(folder, 'passphrase'), 'a passphrase that is long\n')
})
afterAll(async () => {
  await fresh.drop()
  rmSync(folder, { recursive: true, force: true })
})

const muster = (...words: string[]) =>
  command({ AIR_MUSTER_DB: fresh.url, AIR_MUSTER_VAULT_FILE: fresh.vaultKeyFile }, ...words)
const sealed = (): string[] => ['--passphrase-file', join(folder, 'passphrase')]

it.each([
  ['a backup into a folder that is not there', () => ['backup', '/nowhere/x', ...sealed()], '/nowhere/x'],
  ['a restore of a file that is not there', () => ['restore', '/nowhere/y', ...sealed()], '/nowhere/y'],
  ['a restore of a folder', () => ['restore', folder, ...sealed()], ''],
  [
    'a passphrase in a file that is not there',
    () => ['backup', '/tmp/z', '--passphrase-file', '/nowhere/p'],
    '/nowhere/p',
  ],
  ['a job in a file that is not there', () => ['load', '/nowhere/job.yaml'], '/nowhere/job.yaml'],
] as const)('%s', async (_what, words, place) => {
  const { status, out, err } = await muster(...words())
  expect(status).toBe(2)
  expect(out).toBe('')
  expect(err).toContain(place === '' ? folder : place)
  expect(err.trim().split('\n')).toHaveLength(1)
  expect(err).not.toContain('database')
})
