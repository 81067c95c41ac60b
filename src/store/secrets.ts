/** Secrets of a job, and copies of configurations, sealed by the vault. */
import { and, desc, eq } from 'drizzle-orm'
import { isAdminSecret } from '../core/brief/brief'
import type { Weakness } from '../core/secrets/weakness'
import type { Store } from './open'
import { backups, formerPasswords, pins, secrets } from './schema'

const label = (jobId: number, name: string): string => `job/${jobId}/${name}`

/**
 * Keeps a secret. An admin password that it replaces is kept as a former one.
 *
 * @param weakness  what is weak about it, kept in clear beside it
 */
export async function sealSecret(
  store: Store,
  jobId: number,
  name: string,
  clear: string,
  at: Date,
  weakness?: Weakness,
): Promise<void> {
  const fields = { sealed: store.vault.seal(label(jobId, name), clear), changedAt: at, weakness: weakness ?? null }
  await store.db.transaction(async (transaction) => {
    if (isAdminSecret(name)) {
      const before = await transaction
        .select({ changedAt: secrets.changedAt, sealed: secrets.sealed })
        .from(secrets)
        .where(and(eq(secrets.jobId, jobId), eq(secrets.name, name)))
        .for('update')
      if (before.length > 0)
        await transaction.insert(formerPasswords).values(before.map((each) => ({ jobId, name, ...each })))
    }
    await transaction
      .insert(secrets)
      .values({ jobId, name, ...fields })
      .onDuplicateKeyUpdate({ set: fields })
  })
}

/** When each secret was last changed, by name: an instant, ISO 8601. */
export async function secretTimes(store: Store, jobId: number): Promise<Map<string, string>> {
  const rows = await store.db
    .select({ name: secrets.name, changedAt: secrets.changedAt })
    .from(secrets)
    .where(eq(secrets.jobId, jobId))
  return new Map(rows.map(({ name, changedAt }) => [name, changedAt.toISOString()]))
}

/** Secrets that can be guessed, by name. */
export async function weakSecrets(store: Store, jobId: number): Promise<Map<string, Weakness>> {
  const rows = await store.db
    .select({ name: secrets.name, weakness: secrets.weakness })
    .from(secrets)
    .where(eq(secrets.jobId, jobId))
  return new Map(rows.flatMap(({ name, weakness }) => (weakness ? [[name, weakness] as const] : [])))
}

/** Opens every secret of a job, with the time of its last change. For the runner alone. */
export async function openDatedSecrets(
  store: Store,
  jobId: number,
): Promise<{ secrets: Map<string, string>; times: Map<string, string> }> {
  const rows = await store.db.select().from(secrets).where(eq(secrets.jobId, jobId))
  return {
    secrets: new Map(rows.map(({ name, sealed }) => [name, store.vault.open(label(jobId, name), sealed)])),
    times: new Map(rows.map(({ name, changedAt }) => [name, changedAt.toISOString()])),
  }
}

/** Opens every secret of a job. */
export async function openSecrets(store: Store, jobId: number): Promise<Map<string, string>> {
  return (await openDatedSecrets(store, jobId)).secrets
}

/** An admin password that a unit may still have, with the time at which it became the job's. */
export interface FormerPassword {
  readonly name: string
  readonly changedAt: string
  readonly clear: string
}

/** Opens the admin passwords that were replaced, the newest first. For the runner alone. */
export async function openFormerPasswords(store: Store, jobId: number): Promise<FormerPassword[]> {
  const rows = await store.db
    .select()
    .from(formerPasswords)
    .where(eq(formerPasswords.jobId, jobId))
    .orderBy(desc(formerPasswords.id))
  return rows.map(({ name, changedAt, sealed }) => ({
    name,
    changedAt: changedAt.toISOString(),
    clear: store.vault.open(label(jobId, name), sealed),
  }))
}

/** Takes a secret away for good. */
export async function forgetSecret(store: Store, jobId: number, name: string): Promise<void> {
  await store.db.delete(secrets).where(and(eq(secrets.jobId, jobId), eq(secrets.name, name)))
}

/** Opens one secret for somebody who asked to see it; the caller records the asking first. */
export async function openSecret(store: Store, jobId: number, name: string): Promise<string | undefined> {
  const [row] = await store.db
    .select()
    .from(secrets)
    .where(and(eq(secrets.jobId, jobId), eq(secrets.name, name)))
  return row && store.vault.open(label(jobId, name), row.sealed)
}

/** What its own pages offered, and a picture of them, are JSON with their bytes in base 64. */
export type Copy = 'as-found' | 'as-left' | 'from-pages' | 'page-when-held' | 'showing'

/** Keeps a box's configuration. The first copy as found stays: a later run finds what an earlier one wrote. */
export async function keepBackup(
  store: Store,
  jobId: number,
  mac: string,
  copy: Copy,
  text: string,
  at: Date,
): Promise<void> {
  const sealed = store.vault.seal(label(jobId, `backup/${mac}/${copy}`), text)
  const values = { jobId, mac, copy, sealed, at }
  if (copy === 'as-found') await store.db.insert(backups).ignore().values(values)
  else await store.db.insert(backups).values(values).onDuplicateKeyUpdate({ set: { sealed, at } })
}

const backupOf = (jobId: number, mac: string, copy: Copy) =>
  and(eq(backups.jobId, jobId), eq(backups.mac, mac), eq(backups.copy, copy))

export async function hasBackup(store: Store, jobId: number, mac: string, copy: Copy): Promise<boolean> {
  const rows = await store.db
    .select({ at: backups.at })
    .from(backups)
    .where(backupOf(jobId, mac, copy))
  return rows.length > 0
}

export async function openBackup(store: Store, jobId: number, mac: string, copy: Copy): Promise<string | undefined> {
  const [row] = await store.db
    .select()
    .from(backups)
    .where(backupOf(jobId, mac, copy))
  return row && store.vault.open(label(jobId, `backup/${mac}/${copy}`), row.sealed)
}

/** Lets the pinned certificate of a box go: the next one that it shows is pinned. */
export async function forgetPin(store: Store, jobId: number, mac: string): Promise<void> {
  await store.db.delete(pins).where(and(eq(pins.jobId, jobId), eq(pins.mac, mac)))
}

/**
 * Pins the certificate that this MAC shows, where it never showed one. @returns the pinned one, and whether it was
 * pinned now
 */
export async function pinOnFirstSight(
  store: Store,
  jobId: number,
  mac: string,
  shown: string,
  at: Date,
): Promise<{ fingerprint: string; first: 'now' | 'before' }> {
  const [result] = await store.db.insert(pins).ignore().values({ jobId, mac, fingerprint: shown, at })
  if (result.affectedRows === 1) return { fingerprint: shown, first: 'now' }
  const [row] = await store.db
    .select()
    .from(pins)
    .where(and(eq(pins.jobId, jobId), eq(pins.mac, mac)))
  return { fingerprint: row?.fingerprint ?? shown, first: 'before' }
}
