/** Backup: what was found is kept, once, before the first change. */
import { hasBackup, keepBackup } from '../../store/secrets'
import type { UnitRun } from '../unit-run'

export async function backup({ store, jobId, target, access, journal }: UnitRun): Promise<string> {
  const { mac } = target.unit
  if (await hasBackup(store, jobId, mac, 'as-found')) return 'kept before'
  await keepBackup(store, jobId, mac, 'as-found', await access.dialect.backup(), new Date())
  await journal.kept('as-found')
  return 'kept as found'
}
