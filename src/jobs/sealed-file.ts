/**
 * A file sealed with a passphrase: key by scrypt (RFC 7914), AES-256-GCM over the gzipped contents. Another passphrase
 * and a changed byte are both refused; nothing of it is used before all of it is proven.
 */
import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto'
import { gunzipSync, gzipSync } from 'node:zlib'

const mark = Buffer.from('air-muster sealed 1\n')
const saltBytes = 16
const nonceBytes = 12
const tagBytes = 16
const cost = { N: 2 ** 16, r: 8, p: 1, maxmem: 128 * 1024 * 1024 }
/** Bytes of the contents at the most. */
const longest = 1024 * 1024 * 1024
export const shortestPassphrase = 12

export class SealError extends Error {
  override readonly name = 'SealError'
}

export function sealFile(contents: string, passphrase: string): Buffer {
  const [salt, nonce] = [randomBytes(saltBytes), randomBytes(nonceBytes)]
  const cipher = createCipheriv('aes-256-gcm', scryptSync(passphrase, salt, 32, cost), nonce).setAAD(mark)
  const body = Buffer.concat([cipher.update(gzipSync(contents)), cipher.final()])
  return Buffer.concat([mark, salt, nonce, cipher.getAuthTag(), body])
}

/** @throws SealError */
export function openSealedFile(file: Buffer, passphrase: string): string {
  const head = mark.length + saltBytes + nonceBytes + tagBytes
  if (file.length < head || !file.subarray(0, mark.length).equals(mark))
    throw new SealError('it is no backup of Air Muster')
  let at = mark.length
  const take = (bytes: number): Buffer => {
    at += bytes
    return file.subarray(at - bytes, at)
  }
  const [salt, nonce, tag] = [take(saltBytes), take(nonceBytes), take(tagBytes)]
  try {
    const decipher = createDecipheriv('aes-256-gcm', scryptSync(passphrase, salt, 32, cost), nonce)
    decipher.setAAD(mark).setAuthTag(tag)
    const packed = Buffer.concat([decipher.update(file.subarray(head)), decipher.final()])
    return gunzipSync(packed, { maxOutputLength: longest }).toString('utf8')
  } catch (cause) {
    throw new SealError('the passphrase is another one, or the file was changed', { cause })
  }
}
