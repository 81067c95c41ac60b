/** The radio rules: those that come with the program, or a newer file that was dropped in. */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { type RegulatoryDatabase, RegulatoryFormatError, readRegulatoryDatabase } from '../core/regulatory/database'
import { dataFolder } from './data-folder'
import type { Store } from './open'
import { installationFiles } from './schema'

export interface RadioRules {
  readonly database: RegulatoryDatabase
  /** `of 2026-05-30`, or `from newer.db, dropped in on 2026-11-24`. */
  readonly origin: string
  readonly from: 'program' | 'installation'
}

const fileName = 'regulatory.db'
let shipped: RegulatoryDatabase | undefined
/** The dropped-in file that was read last, by its time. */
let dropped: { readonly at: number; readonly database: RegulatoryDatabase } | undefined

/**
 * The rules that come with the program.
 * @throws RegulatoryFormatError
 */
export function loadRegulatory(): RegulatoryDatabase {
  shipped ??= readRegulatoryDatabase(readFileSync(join(dataFolder(), fileName)))
  return shipped
}

/** Day on which the rules of the program were released, ISO 8601. */
function regulatoryDate(): string {
  const notice = JSON.parse(readFileSync(join(dataFolder(), 'regulatory.json'), 'utf8')) as { released: string }
  return notice.released
}

/** The rules in force in this installation. */
export async function radioRules(store: Store): Promise<RadioRules> {
  const [row] = await store.db.select({ label: installationFiles.label, at: installationFiles.at }).from(installationFiles).where(eq(installationFiles.name, fileName))
  if (!row) return { database: loadRegulatory(), origin: `of ${regulatoryDate()}`, from: 'program' }
  if (dropped?.at !== row.at.getTime()) {
    const [file] = await store.db.select({ bytes: installationFiles.bytes }).from(installationFiles).where(eq(installationFiles.name, fileName))
    dropped = { at: row.at.getTime(), database: readRegulatoryDatabase(file?.bytes ?? Buffer.alloc(0)) }
  }
  return { database: dropped.database, origin: `from ${row.label}, dropped in on ${row.at.toISOString().slice(0, 10)}`, from: 'installation' }
}

/**
 * Takes a newer file into use, after a check: it must be whole, know the countries that the old one knew, and those of
 * the jobs.
 *
 * @returns a sentence where it is refused; nothing is changed then
 */
export async function dropRegulatory(store: Store, name: string, bytes: Buffer, countries: readonly string[], at: Date): Promise<string | undefined> {
  let database: RegulatoryDatabase
  try {
    database = readRegulatoryDatabase(bytes)
  } catch (error) {
    if (error instanceof RegulatoryFormatError) return `${name} is not a regulatory database: ${error.message}.`
    throw error
  }
  const missing = ['00', ...countries].find((code) => !database.has(code))
  if (missing) return `${name} has no rules for ${missing}, and ${missing === '00' ? 'every such file has them' : 'a job is there'}. It stays as it was.`
  const lost = [...loadRegulatory().keys()].filter((code) => !database.has(code))
  if (lost.length > loadRegulatory().size / 10)
    return `${name} lacks ${lost.length} countries that the present file has: it is cut short, or another kind of file. It stays as it was.`
  // Two files in one millisecond must not be taken for one.
  const label = `${name.slice(0, 80)} (${createHash('sha256').update(bytes).digest('hex').slice(0, 12)})`
  await store.db.insert(installationFiles).values({ name: fileName, label, bytes, at }).onDuplicateKeyUpdate({ set: { label, bytes, at } })
  dropped = undefined
  return undefined
}

/** Back to the rules that come with the program. */
export async function forgetDroppedRegulatory(store: Store): Promise<void> {
  await store.db.delete(installationFiles).where(eq(installationFiles.name, fileName))
}
