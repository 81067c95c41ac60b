/**
 * Lines of text in a file that a passphrase seals: gzipped (RFC 1952), and encrypted in the open format age, which
 * others open too. Both ways the file is streamed. Another passphrase, a changed byte and a file that was cut short are
 * refused.
 */

import { closeSync, createReadStream, createWriteStream, openSync, readSync } from 'node:fs'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream as WebStream } from 'node:stream/web'
import { createGunzip, createGzip } from 'node:zlib'
import { Decrypter, Encrypter } from 'age-encryption'
import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import { formerMark, openFormerFile } from './former-sealed-file'

/** Base-2 logarithm of the cost of trying a passphrase (scrypt, RFC 7914): 64 MB of memory each. */
const workFactor = 16
const mark = Buffer.from('age-encryption.org/')
const newLine = 0x0a
/** Bytes of a line at the most. */
const longestLine = 128 * 1024 * 1024
export const shortestPassphrase = 12

export class SealError extends ToldError {
  override readonly name = 'SealError'
}

/** @param path  a file that is there; it is written anew */
export async function sealLines(lines: AsyncIterable<string>, passphrase: string, path: string): Promise<void> {
  const encrypter = new Encrypter()
  encrypter.setScryptWorkFactor(workFactor)
  encrypter.setPassphrase(passphrase)
  const text = async function* () {
    for await (const line of lines) yield `${line}\n`
  }
  const packed = createGzip()
  const packing = pipeline(Readable.from(text()), packed)
  const sealed = await encrypter.encrypt(Readable.toWeb(packed) as ReadableStream<Uint8Array>)
  await Promise.all([
    packing,
    pipeline(Readable.fromWeb(sealed as WebStream), createWriteStream(path, { flush: true })),
  ])
}

/**
 * @returns the lines, one after the other. That none is missing is known when all have been read.
 * @throws SealError
 */
export async function* openLines(path: string, passphrase: string): AsyncGenerator<string> {
  const start = startOf(path)
  if (start.subarray(0, formerMark.length).equals(formerMark)) {
    yield* refusing(openFormerFile(path, passphrase))
    return
  }
  if (!start.subarray(0, mark.length).equals(mark)) throw new SealError(message('not-a-backup'))
  yield* refusing(linesOf(unsealed(path, passphrase)))
}

async function* unsealed(path: string, passphrase: string): AsyncGenerator<Buffer> {
  const decrypter = new Decrypter()
  decrypter.addPassphrase(passphrase)
  const file = Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>
  const packed = Readable.fromWeb((await decrypter.decrypt(file)) as WebStream)
  const text = createGunzip()
  packed.on('error', (error) => text.destroy(error))
  for await (const chunk of packed.pipe(text)) yield chunk as Buffer
}

async function* linesOf(chunks: AsyncIterable<Buffer>): AsyncGenerator<string> {
  let begun: Buffer[] = []
  let length = 0
  for await (const chunk of chunks) {
    let from = 0
    for (let at = chunk.indexOf(newLine); at !== -1; at = chunk.indexOf(newLine, from)) {
      yield Buffer.concat([...begun, chunk.subarray(from, at)]).toString('utf8')
      begun = []
      length = 0
      from = at + 1
    }
    begun.push(chunk.subarray(from))
    length += chunk.length - from
    if (length > longestLine) throw new SealError(message('backup-line-endless'))
  }
  if (length > 0) throw new SealError(message('backup-cut-short'))
}

async function* refusing(lines: AsyncIterable<string> | Iterable<string>): AsyncGenerator<string> {
  try {
    yield* lines
  } catch (cause) {
    if (cause instanceof SealError) throw cause
    throw new SealError(message('backup-does-not-open'), { cause })
  }
}

/** The first bytes of a file. */
function startOf(path: string): Buffer {
  const file = openSync(path, 'r')
  try {
    const bytes = Buffer.alloc(64)
    return bytes.subarray(0, readSync(file, bytes))
  } finally {
    closeSync(file)
  }
}
