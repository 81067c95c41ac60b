/**
 * Brings rows that a former release has kept to the form of today: in batches, each with the place up to which all is
 * done, so that it goes on from there if the program ends. Rows that are of neither form are left as they are.
 */
import { asc, eq, sql } from 'drizzle-orm'
import { eventOfToday, planFaultOfToday } from '../core/muster/former-events'
import { inTransaction, type Store } from './open'
import { plannings, rowUpgrades } from './schema'

/** Raised whenever what is kept becomes another thing. */
const name = 'messages'
/** Rows that are read and written at once. */
const batch = 500

export async function rowsAreOfToday(store: Store): Promise<boolean> {
  const [row] = await store.db.select({ state: rowUpgrades.state }).from(rowUpgrades).where(eq(rowUpgrades.name, name))
  return row?.state === 'done'
}

export async function upgradeRows(store: Store): Promise<void> {
  await store.db.insert(rowUpgrades).values({ name }).onDuplicateKeyUpdate({ set: { name } })
  for (;;) if ((await nextBatch(store)) === 'done') return
}

/** One transaction: what it has changed and how far it has come are kept together. */
function nextBatch(store: Store): Promise<'more' | 'done'> {
  return inTransaction(store, async (inner) => {
    const [row] = await inner.db.select().from(rowUpgrades).where(eq(rowUpgrades.name, name)).for('update')
    if (!row || row.state === 'done') return 'done'
    const [rows] = (await inner.db.execute(
      sql`select job_id, seq, at, event from events where (job_id, seq) > (${row.jobId}, ${row.seq})
        order by job_id, seq limit ${batch}`,
    )) as unknown as [{ job_id: number; seq: number; at: string; event: string }[]]
    const last = rows.at(-1)
    if (!last) {
      await upgradePlannings(inner)
      await inner.db.update(rowUpgrades).set({ state: 'done' }).where(eq(rowUpgrades.name, name))
      return 'done'
    }
    const changed = rows.flatMap((each) => {
      const event = upgraded(each.event, eventOfToday)
      return event === undefined ? [] : [sql`(${each.job_id}, ${each.seq}, ${each.at}, ${event})`]
    })
    if (changed.length > 0)
      await inner.db.execute(
        sql`insert into events (job_id, seq, at, event) values ${sql.join(changed, sql`, `)}
          on duplicate key update event = values(event)`,
      )
    await inner.db.update(rowUpgrades).set({ jobId: last.job_id, seq: last.seq }).where(eq(rowUpgrades.name, name))
    return 'more'
  })
}

/** What is wrong with plans: a row a job. */
async function upgradePlannings({ db }: Store): Promise<void> {
  const rows = await db
    .select({ jobId: plannings.jobId, faults: sql<string>`${plannings.faults}` })
    .from(plannings)
    .orderBy(asc(plannings.jobId))
  for (const { jobId, faults } of rows) {
    const text = upgraded(faults, (list) => (Array.isArray(list) ? list.map(planFaultOfToday) : list))
    if (text !== undefined) await db.execute(sql`update plannings set faults = ${text} where job_id = ${jobId}`)
  }
}

/** @returns undefined where it is of today, or cannot be read */
function upgraded(text: string, ofToday: (value: unknown) => unknown): string | undefined {
  try {
    const now = JSON.stringify(ofToday(JSON.parse(text)))
    return now === text ? undefined : now
  } catch {
    return undefined
  }
}
