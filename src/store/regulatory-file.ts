/** The radio rules: those that come with the program, or a newer file that was dropped in. */

import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { parse } from 'yaml'
import { type Message, message, together } from '../core/message/message'
import { type RegulatoryDatabase, RegulatoryFormatError, readRegulatoryDatabase } from '../core/regulatory/database'
import { rulesDifferences } from '../core/regulatory/differences'
import { type Overlay, overlaySchema, withOverlay } from '../core/regulatory/overlay'
import { implausible } from '../core/regulatory/plausible'
import type { RulesOffer } from '../core/regulatory/rules-offer'
import { dataFolder } from './data-folder'
import { outdatePlans } from './jobs'
import { inTransaction, type Store } from './open'
import { readSignature } from './regulatory-signature'
import { installationFiles } from './schema'

export interface RadioRules {
  readonly database: RegulatoryDatabase
  /** `of 2026-05-30`, or `from newer.db, dropped in on 2026-11-24`. */
  readonly origin: Message
  readonly from: 'program' | 'installation'
}

const fileName = 'regulatory.db'
let shipped: RegulatoryDatabase | undefined
/** The dropped-in file that was read last, by its label, which holds its hash. */
let dropped: { readonly label: string; readonly database: RegulatoryDatabase } | undefined

/**
 * The rules that come with the program.
 * @throws RegulatoryFormatError
 */
export function loadRegulatory(): RegulatoryDatabase {
  shipped ??= laidOver(readRegulatoryDatabase(readFileSync(join(dataFolder(), fileName))))
  return shipped
}

let overlay: Overlay | undefined

/** With what no such file says: `regulatory-overlay.yaml`. */
function laidOver(database: RegulatoryDatabase): RegulatoryDatabase {
  overlay ??= overlaySchema.parse(parse(readFileSync(join(dataFolder(), 'regulatory-overlay.yaml'), 'utf8')))
  return withOverlay(database, overlay)
}

/** Day on which the rules of the program were released, ISO 8601. */
function regulatoryDate(): string {
  const notice = JSON.parse(readFileSync(join(dataFolder(), 'regulatory.json'), 'utf8')) as { released: string }
  return notice.released
}

/** The rules in force in this installation. */
export async function radioRules(store: Store): Promise<RadioRules> {
  const [row] = await store.db
    .select({ label: installationFiles.label, at: installationFiles.at })
    .from(installationFiles)
    .where(eq(installationFiles.name, fileName))
  if (!row)
    return { database: loadRegulatory(), origin: message('rules-of', { date: regulatoryDate() }), from: 'program' }
  if (dropped?.label !== row.label) {
    const [file] = await store.db
      .select({ bytes: installationFiles.bytes })
      .from(installationFiles)
      .where(eq(installationFiles.name, fileName))
    dropped = { label: row.label, database: laidOver(readRegulatoryDatabase(file?.bytes ?? Buffer.alloc(0))) }
  }
  return {
    database: dropped.database,
    origin: message('rules-from', { name: row.label, date: row.at.toISOString().slice(0, 10) }),
    from: 'installation',
  }
}

export interface RulesFile {
  readonly name: string
  readonly bytes: Buffer
  /** What stands beside it: `regulatory.db.p7s`. */
  readonly signature: Buffer | undefined
  /** Countries of the jobs. */
  readonly countries: readonly string[]
  readonly at: Date
}

const offeredName = 'regulatory.db.offered'
const mostShown = 30

/**
 * Looks at a newer file: it must be whole and plausible, know the countries that the present one knows and those of the
 * jobs, and where its signature is given, that must fit. It is kept aside until somebody says yes; nothing changes.
 */
export async function offerRegulatory(
  store: Store,
  file: RulesFile,
): Promise<{ ok: true; offer: RulesOffer } | { ok: false; told: Message }> {
  const refused = (told: Message) => ({ ok: false as const, told: together([told, message('rules-stay')]) })
  const name = file.name.replace(/[^\p{L}\p{N} ._-]/gu, '_').slice(0, 80)
  let database: RegulatoryDatabase
  try {
    database = laidOver(readRegulatoryDatabase(file.bytes))
  } catch (error) {
    if (error instanceof RegulatoryFormatError)
      return refused(message('rules-not-a-database', { name, told: error.told }))
    throw error
  }
  const [nonsense, ...more] = implausible(database)
  if (nonsense !== undefined) return refused(message('rules-implausible', { name, nonsense, more: more.length }))
  const missing = ['00', ...file.countries].find((code) => !database.has(code))
  if (missing)
    return refused(
      message('rules-without-country', {
        name,
        country: missing,
        why: message(missing === '00' ? 'every-file-has-them' : 'a-job-is-there'),
      }),
    )
  const before = (await radioRules(store)).database
  const lost = [...before.keys()].filter((code) => !database.has(code))
  if (lost.length > before.size / 10) return refused(message('rules-cut-short', { name, lost: lost.length }))
  const signature = file.signature === undefined ? undefined : await readSignature(file.bytes, file.signature)
  if (signature?.kind === 'does-not-fit')
    return refused(message('rules-signature-unfit', { name, why: signature.reason }))
  const hash = createHash('sha256').update(file.bytes).digest('hex')
  const kept = { label: `${name} (${hash.slice(0, 12)})`, bytes: file.bytes, at: file.at }
  await store.db
    .insert(installationFiles)
    .values({ name: offeredName, ...kept })
    .onDuplicateKeyUpdate({ set: kept })
  const differences = rulesDifferences(before, database)
  return {
    ok: true,
    offer: {
      hash,
      name,
      signer: signature?.signer ?? message('rules-without-signature'),
      signed: signature?.kind ?? 'not-at-all',
      countries: database.size,
      differences: differences.slice(0, mostShown),
      changed: differences.length,
    },
  }
}

/**
 * Takes the rules that were offered into use, on somebody's yes.
 *
 * @param hash  of the file that was looked at: another one that was offered meanwhile is not taken for it
 * @returns     why it is refused; nothing is changed then
 */
export function takeRegulatory(store: Store, hash: string, at: Date): Promise<Message | undefined> {
  return inTransaction(store, async ({ db }) => {
    const [offered] = await db
      .select({ label: installationFiles.label, bytes: installationFiles.bytes })
      .from(installationFiles)
      .where(eq(installationFiles.name, offeredName))
      .for('update')
    if (!offered || createHash('sha256').update(offered.bytes).digest('hex') !== hash)
      return message('rules-offer-outdated')
    const kept = { label: offered.label, bytes: offered.bytes, at }
    await db
      .insert(installationFiles)
      .values({ name: fileName, ...kept })
      .onDuplicateKeyUpdate({ set: kept })
    await db.delete(installationFiles).where(eq(installationFiles.name, offeredName))
    await outdatePlans(db)
    return undefined
  })
}

/** Back to the rules that come with the program. */
export async function forgetDroppedRegulatory(store: Store): Promise<void> {
  await inTransaction(store, async ({ db }) => {
    await db.delete(installationFiles).where(eq(installationFiles.name, fileName))
    await outdatePlans(db)
  })
}
