/** Backup: what was found is kept, once, before the first change. Then the networks that it ships with go off air. */
import type { UnitRun } from '../unit/unit-run'
import { silence } from './silence'

export async function backup(run: UnitRun): Promise<string> {
  const notes = [await keep(run), await silence(run)]
  return notes.filter(Boolean).join('; ')
}

async function keep({ records, clock, jobId, target, access, journal }: UnitRun): Promise<string> {
  const { mac } = target.unit
  if (await records.hasBackup(jobId, mac, 'as-found')) return 'kept before'
  const copy = await access.dialect.copies?.backup()
  if (copy === undefined) return 'it gives no copy'
  await records.keepBackup(jobId, mac, 'as-found', copy, clock.date())
  await journal.kept('as-found')
  return 'kept as found'
}
