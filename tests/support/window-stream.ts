/** The windows of a runner, as the web process has them: over a Unix socket. */
import { request } from 'node:http'
import { type Told, toldSchema } from '../../src/core/showing/window-talk'

export interface WindowStream {
  readonly status: number
  readonly told: Told[]
  pictures: number
  end(): void
}

/** @param path  of a window, as `window-server.ts` has it */
export function windowOver(socketPath: string, path: () => string) {
  /** Opens the stream of the window, and takes it apart as its format says. */
  const stream = (): Promise<WindowStream> =>
    new Promise((resolve, reject) => {
      const asked = request({ socketPath, path: path(), agent: false }, (reply) => {
        const found: WindowStream = { status: reply.statusCode ?? 0, told: [], pictures: 0, end: () => reply.destroy() }
        let kept = Buffer.alloc(0)
        reply.on('data', (chunk: Buffer) => {
          kept = Buffer.concat([kept, chunk])
          while (reply.statusCode === 200 && kept.length >= 5 && kept.length >= 5 + kept.readUInt32BE()) {
            const end = 5 + kept.readUInt32BE()
            if (kept[4] === 0) found.told.push(toldSchema.parse(JSON.parse(kept.subarray(5, end).toString())))
            else found.pictures += 1
            kept = kept.subarray(end)
          }
        })
        reply.on('error', () => undefined)
        resolve(found)
      })
      asked.once('error', reject).end()
    })
  const send = (method: 'POST' | 'DELETE', body?: unknown): Promise<number> =>
    new Promise((resolve, reject) => {
      const asked = request({ socketPath, path: path(), method, agent: false }, (reply) => {
        reply.resume().once('end', () => resolve(reply.statusCode ?? 0))
      })
      asked.once('error', reject).end(body === undefined ? undefined : JSON.stringify(body))
    })
  return { stream, send }
}
