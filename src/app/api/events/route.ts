/**
 * Server-sent events, one stream for a browser: the events of the jobs that its tabs look at, each from a number on,
 * and a pulse every second that tells how everything stands, also while the database does not answer.
 */

import { getStore } from '../../../actions/store'
import { slugSchema } from '../../../core/job/job-document'
import type { Pulse } from '../../../core/muster/pulse'
import { jobIdOf } from '../../../jobs/find-job'
import { BrokenRowError, inTime, rest, type Store } from '../../../jobs/installation'
import { eventsAfter, newestReport } from '../../../jobs/news'
import { failedOrder } from '../../../jobs/order'
import { diskNow, partsNow } from '../../server/parts'

export const dynamic = 'force-dynamic'

const lookEveryMs = 200
const pulseEveryMs = 1000
/** A database that is slower than this is said to be away, ms. */
const patienceMs = 1500
const mostJobs = 50

interface Followed {
  readonly slug: string
  id: number | undefined
  seq: number
}

/** `?after=port-ellery:120,harbour:3`: each job with the newest event that the browser has. */
function followedJobs(text: string): Followed[] {
  return text.split(',').flatMap((each) => {
    const [slug = '', seq = ''] = each.split(':')
    return slugSchema.safeParse(slug).success && /^\d{1,9}$/.test(seq)
      ? [{ slug, id: undefined, seq: Number(seq) }]
      : []
  })
}

export function GET(request: Request): Response {
  const followed = followedJobs(new URL(request.url).searchParams.get('after') ?? '').slice(0, mostJobs)
  const encoder = new TextEncoder()
  const stream = new ReadableStream({
    async start(controller) {
      const send = (event: string, data: unknown): void =>
        controller.enqueue(encoder.encode(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`))
      let pulsedAt = Number.NEGATIVE_INFINITY
      let database: Pulse['database'] = 'answers'
      let waiting: Promise<void> | undefined
      try {
        while (!request.signal.aborted) {
          // A look that hangs is not asked a second time beside itself.
          waiting ??= look(followed, send).finally(() => {
            waiting = undefined
          })
          database = await inTime(
            waiting.then(() => 'answers' as const),
            patienceMs,
            'away',
          )
          if (performance.now() - pulsedAt > pulseEveryMs) {
            pulsedAt = performance.now()
            send('pulse', await pulse(followed, database))
          }
          await rest(lookEveryMs, request.signal)
        }
        controller.close()
      } catch {
        // The browser went away: it comes back by itself and asks from where it was.
        try {
          controller.close()
        } catch {}
      }
    },
  })
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  })
}

async function look(followed: readonly Followed[], send: (event: string, data: unknown) => void): Promise<void> {
  const store = await getStore()
  for (const job of followed) {
    job.id ??= await jobIdOf(store, job.slug)
    if (job.id === undefined) continue
    const events = await readable(eventsAfter(store, job.id, job.seq))
    const last = events.at(-1)
    if (!last) continue
    job.seq = last.seq
    send('events', { job: job.slug, events })
  }
}

/** A row of one job that cannot be read is told by its own page; the others' news go on. */
async function readable<T>(reading: Promise<T[]>): Promise<T[]> {
  try {
    return await reading
  } catch (error) {
    if (error instanceof BrokenRowError) return []
    throw error
  }
}

async function pulse(followed: readonly Followed[], database: Pulse['database']): Promise<Pulse> {
  const now = Date.now()
  const [parts, disk] = await Promise.all([partsNow(now), diskNow()])
  const quiet: Pulse = { now, database, runnerSilentMs: null, wire: 'works', sweptMsAgo: null, disk, parts, failed: {} }
  return database === 'away' ? quiet : inTime(ask(followed, quiet), patienceMs, { ...quiet, database: 'away' })
}

async function ask(followed: readonly Followed[], quiet: Pulse): Promise<Pulse> {
  const store: Store = await getStore()
  const [report, failed] = await Promise.all([
    newestReport(store),
    Promise.all(
      followed.map(async ({ slug, id }) => ({
        slug,
        order: id === undefined ? undefined : await failedOrder(store, id),
      })),
    ),
  ])
  return {
    ...quiet,
    runnerSilentMs: report?.silentMs ?? null,
    wire: report?.wire ?? 'works',
    sweptMsAgo: report?.sweptMsAgo ?? null,
    failed: Object.fromEntries(
      failed.flatMap(({ slug, order }) =>
        order ? [[slug, { kind: order.kind, reason: order.reason ?? '' }] as const] : [],
      ),
    ),
  }
}
