/** Runners report here, so that people can see whether anybody works. The database's own clock tells how long ago. */
import { asc, sql } from 'drizzle-orm'
import type { Store } from './open'
import { runners } from './schema'

export interface RunnerReport {
  readonly id: string
  /** How long ago it was last seen, ms. */
  readonly silentMs: number
  /** Whether what it reaches the wire by answers it. */
  readonly wire: 'works' | 'away'
  /** How long ago it last swept the bench, ms. */
  readonly sweptMsAgo: number | null
}

const now = sql`utc_timestamp(3)`
const msAgo = (column: typeof runners.seenAt | typeof runners.sweptAt) =>
  sql<number | null>`timestampdiff(microsecond, ${column}, ${now}) div 1000`

export async function reportRunner(
  store: Store,
  id: string,
  host: string,
  report: { wire: RunnerReport['wire']; sweptMsAgo: number | null },
): Promise<void> {
  const sweptAt =
    report.sweptMsAgo === null
      ? null
      : sql`utc_timestamp(3) - interval ${Math.round(report.sweptMsAgo) * 1000} microsecond`
  const fields = { host, wire: report.wire, seenAt: now, sweptAt: sweptAt }
  await store.db
    .insert(runners)
    .values({ id, ...fields })
    .onDuplicateKeyUpdate({ set: fields })
}

/** The report of whichever runner was seen last. */
export async function newestReport(store: Store): Promise<RunnerReport | undefined> {
  const [row] = await store.db
    .select({ id: runners.id, silentMs: msAgo(runners.seenAt), wire: runners.wire, sweptMsAgo: msAgo(runners.sweptAt) })
    .from(runners)
    .orderBy(asc(msAgo(runners.seenAt)))
    .limit(1)
  return (
    row && {
      ...row,
      silentMs: Number(row.silentMs),
      sweptMsAgo: row.sweptMsAgo === null ? null : Number(row.sweptMsAgo),
    }
  )
}
