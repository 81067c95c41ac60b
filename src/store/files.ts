/**
 * Files that people bring: kept once by what they hold, in parts, written and read as streams, so that no process ever
 * holds a whole one and no statement grows with it.
 */

import { createHash, randomBytes } from 'node:crypto'
import { and, asc, eq, gt, like, lt, notInArray, sql } from 'drizzle-orm'
import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import { inTransaction, type Store } from './open'
import { fileParts, files, floorDrawings, jobs } from './schema'

/** A file is larger than it may be; nothing was kept. */
export class FileTooLargeError extends ToldError {
  override readonly name = 'FileTooLargeError'
}

/** Too much lies here that nothing names yet; nothing was kept. */
export class FilesFullError extends ToldError {
  override readonly name = 'FilesFullError'
}

export interface KeptFile {
  /** SHA-256 of its bytes, hexadecimal: its name. */
  readonly hash: string
  readonly size: number
  /** Its beginning, to see what it is. */
  readonly head: Buffer
}

const partBytes = 256 * 1024
const headBytes = 4096
/** An upload that was broken off is swept away after this, hours. */
const abandonedHours = 1
/** Bytes of files that no floor shows and no brief names, and of uploads under way, that are kept at one time. */
const mostUnnamedBytes = 2 * 1024 ** 3

/**
 * Keeps what a stream brings. The same bytes are kept once, however often they come.
 *
 * @param most         bytes
 * @param mostUnnamed  bytes of all files that nothing names yet
 * @throws FileTooLargeError, FilesFullError
 */
export async function keepFile(
  store: Store,
  source: AsyncIterable<Uint8Array>,
  most: number,
  at: Date,
  mostUnnamed = mostUnnamedBytes,
): Promise<KeptFile> {
  await sweepAbandoned(store)
  if ((await unnamedBytes(store)) >= mostUnnamed) throw new FilesFullError(message('files-full'))
  // Until the hash is known the parts lie under a name that no hash has.
  const upload = `~${randomBytes(31).toString('hex')}`
  const hash = createHash('sha256')
  let size = 0
  let part = 0
  let head = Buffer.alloc(0)
  let waiting: Uint8Array[] = []
  let waitingBytes = 0
  const flush = async (): Promise<void> => {
    if (waitingBytes === 0) return
    await store.db
      .insert(fileParts)
      .values({ file: upload, part, bytes: Buffer.concat(waiting), at })
      .onDuplicateKeyUpdate({ set: { at } })
    part += 1
    waiting = []
    waitingBytes = 0
  }
  try {
    for await (const chunk of source) {
      size += chunk.length
      if (size > most) throw new FileTooLargeError(message('file-too-large', { most: Math.floor(most / 1024 / 1024) }))
      hash.update(chunk)
      if (head.length < headBytes) head = Buffer.concat([head, chunk]).subarray(0, headBytes)
      for (let from = 0; from < chunk.length; from += partBytes) {
        const piece = chunk.subarray(from, from + partBytes)
        if (waitingBytes + piece.length > partBytes) await flush()
        waiting.push(piece)
        waitingBytes += piece.length
      }
    }
    await flush()
    const name = hash.digest('hex')
    await inTransaction(store, async ({ db }) => {
      const [known] = await db.select({ hash: files.hash }).from(files).where(eq(files.hash, name)).for('update')
      if (known) await db.delete(fileParts).where(eq(fileParts.file, upload))
      else {
        await db.insert(files).values({ hash: name, size, at }).onDuplicateKeyUpdate({ set: { size } })
        await db.update(fileParts).set({ file: name }).where(eq(fileParts.file, upload))
      }
      await db.update(files).set({ at }).where(eq(files.hash, name))
    })
    return { hash: name, size, head }
  } catch (error) {
    await store.db
      .delete(fileParts)
      .where(eq(fileParts.file, upload))
      .catch(() => undefined)
    throw error
  }
}

/** The bytes of a file, part by part. */
export async function* readFileParts(store: Store, hash: string): AsyncGenerator<Buffer> {
  for (let last = -1; ; ) {
    const [row] = await store.db
      .select({ part: fileParts.part, bytes: fileParts.bytes })
      .from(fileParts)
      .where(and(eq(fileParts.file, hash), gt(fileParts.part, last)))
      .orderBy(asc(fileParts.part))
      .limit(1)
    if (!row) return
    last = row.part
    yield row.bytes
  }
}

/** Hashes of the files that a floor shows or a brief names. */
async function namedFiles({ db }: Store): Promise<string[]> {
  const drawings = await db.selectDistinct({ file: floorDrawings.file }).from(floorDrawings)
  // As text: a brief that cannot be read keeps what it names until somebody has mended it, and stops nobody's upload.
  const briefs = await db.select({ brief: sql<string>`${jobs.brief}` }).from(jobs)
  return [
    ...drawings.map(({ file }) => file),
    ...briefs.flatMap(({ brief }) =>
      [...String(brief).matchAll(/"sha256":"([0-9a-f]{64})"/g)].map(([, hash]) => hash ?? ''),
    ),
  ]
}

async function unnamedBytes(store: Store): Promise<number> {
  const named = await namedFiles(store)
  const [whole] = await store.db
    .select({ bytes: sql<string>`coalesce(sum(${files.size}), 0)` })
    .from(files)
    .where(named.length > 0 ? notInArray(files.hash, named) : undefined)
  const [parts] = await store.db
    .select({ count: sql<string>`count(*)` })
    .from(fileParts)
    .where(like(fileParts.file, '~%'))
  return Number(whole?.bytes ?? 0) + Number(parts?.count ?? 0) * partBytes
}

/** Uploads that were broken off, files that no floor shows any more, and images that no brief names. */
async function sweepAbandoned(store: Store): Promise<void> {
  const before = sql`utc_timestamp(3) - interval ${abandonedHours} hour`
  const named = await namedFiles(store)
  const unnamed = named.length > 0 ? notInArray(files.hash, named) : undefined
  await inTransaction(store, async ({ db }) => {
    const gone = await db
      .select({ hash: files.hash })
      .from(files)
      .where(and(lt(files.at, before), unnamed))
      .for('update')
    for (const { hash } of gone) {
      await db.delete(fileParts).where(eq(fileParts.file, hash))
      await db.delete(files).where(eq(files.hash, hash))
    }
    await db.delete(fileParts).where(and(lt(fileParts.at, before), sql`${fileParts.file} like '~%'`))
  })
}
