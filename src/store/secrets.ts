/** Secrets of a job, and copies of configurations, sealed by the vault. */
import { and, eq } from 'drizzle-orm'
import type { Weakness } from '../core/secrets/weakness'
import type { Store } from './open'
import { backups, pins, secrets } from './schema'

const label = (jobId: number, name: string): string => `job/${jobId}/${name}`

/** @param weakness  what is weak about it, kept in clear beside it */
export async function sealSecret(store: Store, jobId: number, name: string, clear: string, at: Date, weakness?: Weakness): Promise<void> {
  const fields = { sealed: store.vault.seal(label(jobId, name), clear), changedAt: at, weakness: weakness ?? null }
  await store.db
    .insert(secrets)
    .values({ jobId, name, ...fields })
    .onDuplicateKeyUpdate({ set: fields })
}

/** Secrets that can be guessed, by name. */
export async function weakSecrets(store: Store, jobId: number): Promise<Map<string, Weakness>> {
  const rows = await store.db.select({ name: secrets.name, weakness: secrets.weakness }).from(secrets).where(eq(secrets.jobId, jobId))
  return new Map(rows.flatMap(({ name, weakness }) => (weakness ? [[name, weakness] as const] : [])))
}

/** Names of the secrets that there are. */
export async function secretNames(store: Store, jobId: number): Promise<string[]> {
  const rows = await store.db.select({ name: secrets.name }).from(secrets).where(eq(secrets.jobId, jobId))
  return rows.map((row) => row.name)
}

/** Opens every secret of a job. For the runner alone. */
export async function openSecrets(store: Store, jobId: number): Promise<Map<string, string>> {
  const rows = await store.db.select().from(secrets).where(eq(secrets.jobId, jobId))
  return new Map(rows.map(({ name, sealed }) => [name, store.vault.open(label(jobId, name), sealed)]))
}

/** Opens one secret for somebody who asked to see it; the caller records the asking first. */
export async function openSecret(store: Store, jobId: number, name: string): Promise<string | undefined> {
  const [row] = await store.db
    .select()
    .from(secrets)
    .where(and(eq(secrets.jobId, jobId), eq(secrets.name, name)))
  return row && store.vault.open(label(jobId, name), row.sealed)
}

export type Copy = 'as-found' | 'as-left'

/** Keeps a unit's configuration. The first copy as found stays: a later run finds what an earlier one wrote. */
export async function keepBackup(store: Store, jobId: number, unitId: string, copy: Copy, text: string, at: Date): Promise<void> {
  const sealed = store.vault.seal(label(jobId, `backup/${unitId}/${copy}`), text)
  const values = { jobId, unitId, copy, sealed, at }
  if (copy === 'as-found') await store.db.insert(backups).ignore().values(values)
  else await store.db.insert(backups).values(values).onDuplicateKeyUpdate({ set: { sealed, at } })
}

export async function hasBackup(store: Store, jobId: number, unitId: string, copy: Copy): Promise<boolean> {
  const rows = await store.db
    .select({ at: backups.at })
    .from(backups)
    .where(and(eq(backups.jobId, jobId), eq(backups.unitId, unitId), eq(backups.copy, copy)))
  return rows.length > 0
}

export async function openBackup(store: Store, jobId: number, unitId: string, copy: Copy): Promise<string | undefined> {
  const [row] = await store.db
    .select()
    .from(backups)
    .where(and(eq(backups.jobId, jobId), eq(backups.unitId, unitId), eq(backups.copy, copy)))
  return row && store.vault.open(label(jobId, `backup/${unitId}/${copy}`), row.sealed)
}

/** The certificate that this MAC showed first: pinned now if it never showed one. */
export async function pinnedFingerprint(store: Store, jobId: number, mac: string, shown: string, at: Date): Promise<{ fingerprint: string; first: 'now' | 'before' }> {
  const [result] = await store.db.insert(pins).ignore().values({ jobId, mac, fingerprint: shown, at })
  if (result.affectedRows === 1) return { fingerprint: shown, first: 'now' }
  const [row] = await store.db
    .select()
    .from(pins)
    .where(and(eq(pins.jobId, jobId), eq(pins.mac, mac)))
  return { fingerprint: row?.fingerprint ?? shown, first: 'before' }
}
