/**
 * Server-sent events, one stream for a browser: the events of the jobs that its tabs look at, each from a number on,
 * and a pulse every second that tells how everything stands, also while the database does not answer.
 */
import { getStore } from '../../../actions/store'
import { slugSchema } from '../../../core/job/job-document'
import type { Pulse } from '../../../core/muster/pulse'
import { inTime, rest } from '../../../jobs/installation'
import { newsFrom } from '../../../jobs/news'
import { NewsDesk } from '../../server/news-desk'
import { diskNow, partsNow } from '../../server/parts'

export const dynamic = 'force-dynamic'

/** A database that is slower than this is said to be away, ms. */
const patienceMs = 1500
const mostJobs = 50
const never = new AbortController().signal

const news = newsFrom(getStore)
const desk = new NewsDesk({
  newsOf: news.newsOf,
  orAway: (looking) =>
    inTime(
      looking.then(() => 'answers' as const),
      patienceMs,
      'away',
    ),
  pulse,
  rest: (ms) => rest(ms, never),
  now: () => performance.now(),
})

/** `?after=port-ellery:120,harbour:3`: each job with the newest event that the browser has. */
function followedJobs(text: string): Map<string, number> {
  const jobs = text.split(',').flatMap((each): [string, number][] => {
    const [slug = '', seq = ''] = each.split(':')
    return slugSchema.safeParse(slug).success && /^\d{1,9}$/.test(seq) ? [[slug, Number(seq)]] : []
  })
  return new Map(jobs.slice(0, mostJobs))
}

export function GET(request: Request): Response {
  const followed = followedJobs(new URL(request.url).searchParams.get('after') ?? '')
  const encoder = new TextEncoder()
  const stream = new ReadableStream({
    start(controller) {
      const send = (event: string, data: unknown): void =>
        controller.enqueue(encoder.encode(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`))
      const follower = {
        followed,
        tell: (job: string, events: unknown) => send('events', { job, events }),
        pulse: (told: Pulse) => send('pulse', told),
      }
      news.lookAnew()
      desk.follow(follower, request.signal)
      request.signal.addEventListener('abort', () => {
        try {
          controller.close()
        } catch {}
      })
    },
  })
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  })
}

async function pulse(slugs: readonly string[], database: Pulse['database']): Promise<Pulse> {
  const now = Date.now()
  const [parts, disk] = await Promise.all([partsNow(now), diskNow()])
  const quiet: Pulse = { now, database, runnerSilentMs: null, wire: 'works', sweptMsAgo: null, disk, parts, failed: {} }
  if (database === 'away') return quiet
  const asked = news.workOn(slugs).then((work) => ({ ...quiet, ...work }))
  return inTime(asked, patienceMs, { ...quiet, database: 'away' })
}
