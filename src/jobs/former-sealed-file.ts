/**
 * Backups as releases before the form 2 sealed them: key by scrypt (RFC 7914), AES-256-GCM over gzipped JSON, in one
 * piece. They are read as long as people have them; none is made.
 */
import { createDecipheriv, scryptSync } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { gunzipSync } from 'node:zlib'
import { z } from 'zod'

export const formerMark = Buffer.from('air-muster sealed 1\n')
const saltBytes = 16
const nonceBytes = 12
const tagBytes = 16
const cost = { N: 2 ** 16, r: 8, p: 1, maxmem: 128 * 1024 * 1024 }
/** Bytes of the contents at the most. */
const longest = 1024 * 1024 * 1024

/** Values were hexadecimal, whatever their column. */
const formerSchema = z.object({
  form: z.literal(1),
  madeAt: z.string(),
  vaultKey: z.base64(),
  whole: z.object({
    migrations: z.int().min(0),
    tables: z.array(
      z.object({ name: z.string(), columns: z.array(z.string()), rows: z.array(z.array(z.string().nullable())) }),
    ),
  }),
})

/** @returns its lines, as the form 2 has them */
export function* openFormerFile(path: string, passphrase: string): Generator<string> {
  const file = readFileSync(path)
  let at = formerMark.length
  const take = (bytes: number): Buffer => {
    at += bytes
    return file.subarray(at - bytes, at)
  }
  const [salt, nonce, tag] = [take(saltBytes), take(nonceBytes), take(tagBytes)]
  const decipher = createDecipheriv('aes-256-gcm', scryptSync(passphrase, salt, 32, cost), nonce)
  decipher.setAAD(formerMark).setAuthTag(tag)
  const packed = Buffer.concat([decipher.update(file.subarray(at)), decipher.final()])
  const text = gunzipSync(packed, { maxOutputLength: longest }).toString('utf8')
  const { madeAt, vaultKey, whole } = formerSchema.parse(JSON.parse(text))
  yield JSON.stringify({ form: 2, madeAt, vaultKey, migrations: whole.migrations })
  let rows = 0
  for (const { name, columns, rows: all } of whole.tables) {
    yield JSON.stringify({ table: name, columns, bytes: columns })
    for (const row of all) {
      rows += 1
      yield JSON.stringify(row.map((value) => value && Buffer.from(value, 'hex').toString('base64')))
    }
  }
  yield JSON.stringify({ rows })
}
