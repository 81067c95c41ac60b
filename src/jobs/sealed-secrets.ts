/** Secrets of a job for a file that leaves the house: sealed under a passphrase that the user gives. */
import { createCipheriv, createDecipheriv, randomBytes, scrypt } from 'node:crypto'
import { z } from 'zod'
import type { SealedSecrets } from '../core/job/job-document'

/** RFC 7914: 64 MiB and about a quarter of a second for each guess. */
const cost = { n: 65536, r: 8, p: 1 } as const
const secretsSchema = z.record(z.string().max(120), z.string().max(1000))

export async function sealSecretsUnder(
  passphrase: string,
  secrets: ReadonlyMap<string, string>,
): Promise<SealedSecrets> {
  const salt = randomBytes(16)
  const nonce = randomBytes(12)
  const cipher = createCipheriv('aes-256-gcm', await keyOf(passphrase, salt, cost), nonce)
  const sealed = Buffer.concat([cipher.update(JSON.stringify(Object.fromEntries(secrets)), 'utf8'), cipher.final()])
  return {
    kdf: { name: 'scrypt', ...cost, salt: salt.toString('base64') },
    cipher: 'aes-256-gcm',
    nonce: nonce.toString('base64'),
    tag: cipher.getAuthTag().toString('base64'),
    sealed: sealed.toString('base64'),
  }
}

/** @returns undefined where the passphrase is not the one, or the file was changed */
export async function openSecretsUnder(
  passphrase: string,
  file: SealedSecrets,
): Promise<ReadonlyMap<string, string> | undefined> {
  const bytes = (text: string): Buffer => Buffer.from(text, 'base64')
  const tag = bytes(file.tag)
  const nonce = bytes(file.nonce)
  if (tag.length !== 16 || nonce.length !== 12) return undefined
  const decipher = createDecipheriv('aes-256-gcm', await keyOf(passphrase, bytes(file.kdf.salt), file.kdf), nonce)
  decipher.setAuthTag(tag)
  try {
    const clear = Buffer.concat([decipher.update(bytes(file.sealed)), decipher.final()]).toString('utf8')
    return new Map(Object.entries(secretsSchema.parse(JSON.parse(clear))))
  } catch {
    return undefined
  }
}

function keyOf(passphrase: string, salt: Buffer, { n, r, p }: { n: number; r: number; p: number }): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scrypt(passphrase.normalize('NFKC'), salt, 32, { N: n, r, p, maxmem: 256 * n * r + 1024 * 1024 }, (error, key) =>
      error ? reject(error) : resolve(key),
    )
  })
}
