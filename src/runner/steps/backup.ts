/** Backup: what was found is kept, once, before the first change. */
import { hasBackup, keepBackup } from '../../store/secrets'
import type { UnitRun } from '../unit-run'

export async function backup(run: UnitRun): Promise<string> {
  if (await hasBackup(run.store, run.log.jobId, run.unit.mac, 'as-found')) return 'kept before'
  await keepBackup(run.store, run.log.jobId, run.unit.mac, 'as-found', await run.dialect.backup(), new Date())
  await run.log.append({ kind: 'kept', unit: run.unit.id, copy: 'as-found' })
  return 'kept as found'
}
