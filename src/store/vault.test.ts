import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { chmodSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { english } from '../../tests/support/english'
import { openVault, Vault, VaultError } from './vault'

let folder: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-vault-'))
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

it('opens what it sealed, and never seals the same twice alike', () => {
  const vault = new Vault(randomBytes(32))
  const sealed = vault.seal('job/1/admin/password', 'Strong-password-1 ü')
  expect(vault.open('job/1/admin/password', sealed)).toBe('Strong-password-1 ü')
  expect(sealed.includes('Strong')).toBe(false)
  expect(vault.seal('job/1/admin/password', 'Strong-password-1 ü').equals(sealed)).toBe(false)
})

it('opens nothing under another name, with another key, or that was touched', () => {
  const vault = new Vault(randomBytes(32))
  const sealed = vault.seal('job/1/a', 'secret words')
  expect(() => vault.open('job/2/a', sealed)).toThrow(VaultError)
  expect(() => new Vault(randomBytes(32)).open('job/1/a', sealed)).toThrow(VaultError)
  for (let at = 0; at < sealed.length; at += 1) {
    const touched = Buffer.from(sealed)
    touched[at] = (touched[at] ?? 0) ^ 1
    expect(() => vault.open('job/1/a', touched)).toThrow(VaultError)
  }
  expect(() => vault.open('job/1/a', Buffer.alloc(3))).toThrow(VaultError)
})

it('makes its key once, for its owner alone, and refuses one that others can read', () => {
  const file = join(folder, 'deep/vault.key')
  const sealed = openVault(file, '').seal('x', 'y')
  expect(statSync(file).mode & 0o777).toBe(0o600)
  expect(openVault(file, '').open('x', sealed)).toBe('y')
  chmodSync(file, 0o644)
  expect(english(() => openVault(file, ''))).toThrow(`chmod 600 ${file}`)
})

it('takes its key from the environment, and says what is wrong with a short one', () => {
  const key = randomBytes(32).toString('hex')
  const sealed = openVault(join(folder, 'none'), key).seal('x', 'y')
  expect(openVault(join(folder, 'other'), key).open('x', sealed)).toBe('y')
  expect(english(() => openVault(join(folder, 'none'), 'abcd'))).toThrow('has 2 bytes, 32 are needed')
})

it('is made by one of many processes that start at once, and all have the same', async () => {
  const file = join(folder, 'vault.key')
  const script =
    `import('esbuild').then(async ({ build }) => { const out = await build({ entryPoints: ` +
    `['src/store/vault.ts'], bundle: true, platform: 'node', format: 'esm', write: false }); const { openVault ` +
    `} = await import('data:text/javascript;base64,' + ` +
    `Buffer.from(out.outputFiles[0].text).toString('base64')); openVault(${JSON.stringify(file)}, ` +
    `'').seal('a', 'b') })`
  const codes = await Promise.all(
    Array.from(
      { length: 6 },
      () =>
        new Promise((resolve) =>
          spawn(process.execPath, ['-e', script], { cwd: join(import.meta.dirname, '../..'), stdio: 'inherit' }).once(
            'exit',
            resolve,
          ),
        ),
    ),
  )
  expect(codes).toEqual([0, 0, 0, 0, 0, 0])
  expect(readFileSync(file, 'utf8')).toMatch(/^[0-9a-f]{64}$/)
})
