/** Runners report here, so that people can see whether anybody works. */
import { desc } from 'drizzle-orm'
import type { Store } from './open'
import { runners } from './schema'

export interface RunnerReport {
  /** When any runner was last seen. */
  readonly seenAt: Date
  /** When it last swept the bench. */
  readonly sweptAt: Date | null
}

export async function reportRunner(store: Store, id: string, host: string, report: { seenAt: Date; sweptAt: Date | null }): Promise<void> {
  await store.db
    .insert(runners)
    .values({ id, host, ...report })
    .onDuplicateKeyUpdate({ set: report })
}

/** The newest report of any runner. */
export async function newestReport(store: Store): Promise<RunnerReport | undefined> {
  const [row] = await store.db.select({ seenAt: runners.seenAt, sweptAt: runners.sweptAt }).from(runners).orderBy(desc(runners.seenAt)).limit(1)
  return row
}
