/** Backup: what was found is kept, once, before the first change. Then the networks that it ships with go off air. */
import { type Message, message } from '../../core/message/message'
import type { UnitRun } from '../unit/unit-run'
import { silence } from './silence'

export async function backup(run: UnitRun): Promise<Message> {
  const kept = await keep(run)
  const silenced = await silence(run)
  return silenced ? message('one-and-other', { one: kept, other: silenced }) : kept
}

async function keep({ records, clock, jobId, target, access, journal }: UnitRun): Promise<Message> {
  const { mac } = target.unit
  if (await records.hasBackup(jobId, mac, 'as-found')) return message('kept-before')
  const copy = await access.dialect.copies?.backup()
  if (copy === undefined) return message('gives-no-copy')
  await records.keepBackup(jobId, mac, 'as-found', copy, clock.date())
  await journal.kept('as-found')
  return message('kept-as-found')
}
