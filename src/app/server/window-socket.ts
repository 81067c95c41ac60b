/** The windows of the runner, over its Unix socket. */
import 'server-only'
import { type IncomingMessage, request } from 'node:http'
import { Readable } from 'node:stream'

export interface WindowQuestion {
  readonly method: 'GET' | 'POST' | 'DELETE'
  readonly jobId: number
  readonly unit: string
  /** Who opens it. */
  readonly by: string
  /** Where it answers, as somebody says; empty where nobody does. */
  readonly at: string
  readonly body?: string
  readonly signal: AbortSignal
}

/** @returns what the runner answers; 503 where no runner serves windows */
export async function askWindow({ method, jobId, unit, by, at, body, signal }: WindowQuestion): Promise<Response> {
  const socketPath = process.env.AIR_MUSTER_WINDOW_SOCKET
  if (!socketPath) return new Response(null, { status: 503 })
  const path = `/${jobId}/${encodeURIComponent(unit)}?${new URLSearchParams({ by, at })}`
  try {
    const reply = await new Promise<IncomingMessage>((resolve, reject) => {
      const asked = request({ socketPath, path, method, signal, agent: false }, resolve)
      asked.once('error', reject)
      asked.end(body)
    })
    const { statusCode = 502, headers } = reply
    if (statusCode === 204) reply.resume()
    return new Response(statusCode === 204 ? null : (Readable.toWeb(reply) as ReadableStream), {
      status: statusCode,
      headers: {
        'content-type': headers['content-type'] ?? 'application/octet-stream',
        'cache-control': 'no-store',
        // Nothing on the way may wait for more before it passes a picture on.
        'content-encoding': 'identity',
      },
    })
  } catch {
    return new Response(null, { status: 503 })
  }
}
