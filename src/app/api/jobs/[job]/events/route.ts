/** Server-sent events: the job's events from a number on, and a pulse that tells whether a runner works. */

import { eventsAfter } from '../../../../../store/events'
import { findJob } from '../../../../../store/jobs'
import { newestReport } from '../../../../../store/runners'
import { getStore } from '../../../../server/store'

export const dynamic = 'force-dynamic'

const lookEveryMs = 200
const pulseEveryMs = 2000

export async function GET(request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const store = await getStore()
  const job = await findJob(store, (await params).job)
  if (!job) return new Response('There is no such job.', { status: 404 })
  // A browser that reconnects says by itself what it saw last.
  const asked = request.headers.get('last-event-id') ?? new URL(request.url).searchParams.get('after') ?? '0'
  let seq = /^\d{1,12}$/.test(asked) ? Number(asked) : 0
  const encoder = new TextEncoder()

  const stream = new ReadableStream({
    async start(controller) {
      let pulsedAt = 0
      const send = (text: string): void => controller.enqueue(encoder.encode(text))
      try {
        while (!request.signal.aborted) {
          const events = await eventsAfter(store, job.id, seq)
          const last = events.at(-1)
          if (last) {
            seq = last.seq
            send(`id: ${seq}\nevent: events\ndata: ${JSON.stringify(events)}\n\n`)
          }
          if (Date.now() - pulsedAt > pulseEveryMs) {
            pulsedAt = Date.now()
            const report = await newestReport(store)
            send(`event: pulse\ndata: ${JSON.stringify({ runnerSeenAt: report?.seenAt.getTime() ?? null, sweptAt: report?.sweptAt?.getTime() ?? null, now: Date.now() })}\n\n`)
          }
          await new Promise((resolve) => setTimeout(resolve, lookEveryMs))
        }
        controller.close()
      } catch {
        // The browser went away, or the database did: the browser comes back by itself and asks from where it was.
        try {
          controller.close()
        } catch {}
      }
    },
  })
  return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' } })
}
