/**
 * The roll of a job, from the newest snapshot and the events after it: no page and no runner folds all history.
 */
import { eq, sql } from 'drizzle-orm'
import { emptyRoll, foldRoll, type Roll, type RollRow } from '../core/muster/roll'
import { eventsAfter } from './events'
import type { Store } from './open'
import { rolls } from './schema'

/** Raised whenever a roll becomes another thing: a snapshot of another form is not read. */
const form = 9
/** Events that are folded again at the most before a snapshot is kept. */
const keptEvery = 500

/** @throws BrokenRowError where an event cannot be read */
export async function rollOf(store: Store, jobId: number, from?: Roll): Promise<Roll> {
  const begin = from ?? (await snapshotOf(store, jobId)) ?? emptyRoll
  let roll = begin
  for (;;) {
    const more = await eventsAfter(store, jobId, roll.seq)
    if (more.length === 0) break
    roll = foldRoll(more, roll)
  }
  if (roll.seq - begin.seq >= keptEvery) await keep(store, jobId, roll)
  return roll
}

async function snapshotOf(store: Store, jobId: number): Promise<Roll | undefined> {
  const [kept] = await store.db
    .select({ seq: rolls.seq, form: rolls.form, roll: rolls.roll })
    .from(rolls)
    .where(eq(rolls.jobId, jobId))
  if (!kept || kept.form !== form) return undefined
  try {
    const { rows, ...rest } = JSON.parse(kept.roll) as Omit<Roll, 'rows'> & { rows: [string, RollRow][] }
    return { ...rest, seq: kept.seq, rows: new Map(rows) }
  } catch {
    // Cut short or damaged: the events tell it all again.
    return undefined
  }
}

/**
 * A snapshot that is older than the one that is there is not kept. Columns are set in the order in which they stand:
 * the number goes last, since the others are decided by what it was.
 */
async function keep(store: Store, jobId: number, { rows, ...rest }: Roll): Promise<void> {
  const roll = JSON.stringify({ ...rest, rows: [...rows] })
  await store.db.execute(sql`
    insert into rolls (job_id, seq, form, roll) values (${jobId}, ${rest.seq}, ${form}, ${roll})
    on duplicate key update
      roll = if(values(seq) > seq, values(roll), roll),
      form = if(values(seq) > seq, values(form), form),
      seq = greatest(values(seq), seq)`)
}
