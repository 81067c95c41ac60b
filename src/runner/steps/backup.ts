/** Backup: what was found is kept, once, before the first change. */
import type { UnitRun } from '../unit-run'

export async function backup({ records, clock, jobId, target, access, journal }: UnitRun): Promise<string> {
  const { mac } = target.unit
  if (await records.hasBackup(jobId, mac, 'as-found')) return 'kept before'
  await records.keepBackup(jobId, mac, 'as-found', await access.dialect.backup(), clock.date())
  await journal.kept('as-found')
  return 'kept as found'
}
