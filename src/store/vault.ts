/**
 * The vault: AES-256-GCM with a key from a 0600 file or the environment. A sealed secret is bound to its job and name,
 * so that it cannot be put in another's place.
 */

import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import { existsSync, linkSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'

const form = 1
const keyBytes = 32
const nonceBytes = 12
const tagBytes = 16

/** The vault cannot be opened; the message says what to do. Never holds a secret or a key. */
export class VaultError extends ToldError {
  override readonly name = 'VaultError'
}

export class Vault {
  readonly #key: Buffer

  /** @param key  32 bytes */
  constructor(key: Buffer) {
    if (key.length !== keyBytes)
      throw new VaultError(message('vault-key-length', { length: key.length, needed: keyBytes }))
    this.#key = key
  }

  /** @param label  what the secret is: the same words open it again */
  seal(label: string, clear: string): Buffer {
    const nonce = randomBytes(nonceBytes)
    const cipher = createCipheriv('aes-256-gcm', this.#key, nonce).setAAD(Buffer.from(label))
    const body = Buffer.concat([cipher.update(clear, 'utf8'), cipher.final()])
    return Buffer.concat([Buffer.of(form), nonce, cipher.getAuthTag(), body])
  }

  /** @throws VaultError where key, label or bytes do not belong together */
  open(label: string, sealed: Buffer): string {
    if (sealed[0] !== form || sealed.length < 1 + nonceBytes + tagBytes)
      throw new VaultError(message('not-sealed-by-vault', { label }))
    const nonce = sealed.subarray(1, 1 + nonceBytes)
    const tag = sealed.subarray(1 + nonceBytes, 1 + nonceBytes + tagBytes)
    try {
      const decipher = createDecipheriv('aes-256-gcm', this.#key, nonce).setAAD(Buffer.from(label)).setAuthTag(tag)
      return Buffer.concat([decipher.update(sealed.subarray(1 + nonceBytes + tagBytes)), decipher.final()]).toString(
        'utf8',
      )
    } catch (cause) {
      throw new VaultError(message('sealed-with-another-key', { label }), { cause })
    }
  }
}

/** Reads the key from AIR_MUSTER_VAULT_KEY (hexadecimal) or from the file, which is made at first use. */
export function openVault(keyFile: string, fromEnvironment = process.env.AIR_MUSTER_VAULT_KEY): Vault {
  if (fromEnvironment) return new Vault(Buffer.from(fromEnvironment, 'hex'))
  if (!existsSync(keyFile)) {
    makeKey(keyFile)
  }
  if ((statSync(keyFile).mode & 0o077) !== 0) throw new VaultError(message('vault-key-readable', { file: keyFile }))
  return new Vault(Buffer.from(readFileSync(keyFile, 'utf8').trim(), 'hex'))
}

/** Several processes may start at once: the first whole key that has the name is the key. */
function makeKey(keyFile: string): void {
  mkdirSync(dirname(keyFile), { recursive: true, mode: 0o700 })
  const own = `${keyFile}.${process.pid}`
  writeFileSync(own, randomBytes(keyBytes).toString('hex'), { mode: 0o600 })
  try {
    linkSync(own, keyFile)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
  } finally {
    rmSync(own)
  }
}
