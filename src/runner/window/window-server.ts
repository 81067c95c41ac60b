/**
 * Windows over a Unix socket that our own user alone opens: the web process passes on what goes through it.
 * `GET /JOB/UNIT?by=NAME&at=ADDRESS` opens a window and streams it, `POST` brings hands, `DELETE` closes it.
 */
import { chmodSync, rmSync } from 'node:fs'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { z } from 'zod'
import { ipv4Schema } from '../../core/address/ipv4'
import { jsonIn } from '../../core/input/json'
import { handSchema, streamHeadBytes, streamKind, type Told, type WindowRefusal } from '../../core/showing/window-talk'
import { NoWindow } from './no-window'
import type { WindowDesk } from './window-desk'
import type { WindowOn } from './window-values'

const mostHandsBytes = 256 * 1024
const handsSchema = z.array(handSchema).max(500)

/** @param path  of the socket; what an earlier runner has left there is taken away */
export async function serveWindows(desk: WindowDesk, path: string): Promise<Server> {
  rmSync(path, { force: true })
  const server = createServer((request, response) => {
    answer(desk, request, response).catch(() => response.destroy())
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(path, resolve)
  })
  chmodSync(path, 0o600)
  return server
}

async function answer(desk: WindowDesk, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const url = new URL(request.url ?? '/', 'http://window')
  const on = windowOf(url)
  if (!on) return void response.writeHead(404).end()
  if (request.method === 'GET') return stream(desk, on, url.searchParams, response)
  if (request.method === 'DELETE') {
    await desk.close(on)
    return void response.writeHead(204).end()
  }
  const hands = handsSchema.safeParse(await jsonOf(request))
  if (!hands.success) return void response.writeHead(400).end()
  response.writeHead((await desk.act(on, hands.data)) ? 204 : 410).end()
}

function windowOf({ pathname }: URL): WindowOn | undefined {
  const [, job = '', unit = ''] = pathname.split('/')
  return /^\d{1,15}$/.test(job) && unit !== '' ? { jobId: Number(job), unit: decodeURIComponent(unit) } : undefined
}

async function stream(desk: WindowDesk, on: WindowOn, asked: URLSearchParams, response: ServerResponse): Promise<void> {
  const at = ipv4Schema.safeParse(asked.get('at')).data
  let window: Awaited<ReturnType<WindowDesk['window']>>
  try {
    window = await desk.window(on, asked.get('by') ?? '', at)
  } catch (error) {
    if (!(error instanceof NoWindow)) throw error
    const refusal: WindowRefusal = error.refusal
    return void response.writeHead(409, { 'content-type': 'application/json' }).end(JSON.stringify(refusal))
  }
  response.writeHead(200, { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' })
  const send = (kind: number, content: Buffer): boolean => {
    const head = Buffer.alloc(streamHeadBytes)
    head.writeUInt32BE(content.length)
    head.writeUInt8(kind, 4)
    response.write(head)
    return response.write(content)
  }
  const stop = window.watch({
    told: (told: Told) => {
      send(streamKind.told, Buffer.from(JSON.stringify(told)))
      if (told.kind === 'closed') response.end()
    },
    // The next picture waits until this one is on its way: a slow reader gets fewer, and no old ones.
    picture: (jpeg) => {
      if (response.destroyed || send(streamKind.picture, jpeg)) return
      return new Promise<void>((resolve) => {
        response.once('drain', resolve)
        response.once('close', resolve)
      })
    },
  })
  response.once('close', stop)
}

async function jsonOf(request: IncomingMessage): Promise<unknown> {
  const parts: Buffer[] = []
  let bytes = 0
  for await (const part of request as AsyncIterable<Buffer>) {
    bytes += part.length
    if (bytes > mostHandsBytes) return undefined
    parts.push(part)
  }
  return jsonIn(Buffer.concat(parts).toString('utf8'))
}
