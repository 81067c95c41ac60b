/**
 * HTTPS to one unit over its lane: one connection that is kept, a pinned certificate, replies bounded in size and time.
 */
import type { ClientRequest, IncomingMessage } from 'node:http'
import { Agent, request } from 'node:https'
import type { Socket } from 'node:net'
import { connect as connectTls, type TLSSocket } from 'node:tls'
import type { Lane } from '../../host/host'
import type { PinCheck } from '../../trust/pin'
import { plainReason, WireError } from '../../wire-error'

export interface HttpsReply {
  readonly status: number
  readonly headers: Readonly<Record<string, string | string[] | undefined>>
  readonly text: string
}

export interface HttpsQuestion {
  readonly method: 'GET' | 'POST' | 'PATCH'
  readonly path: string
  readonly headers?: Readonly<Record<string, string>>
  readonly body?: string
}

const largestReply = 1024 * 1024
const defaultLongestReplyMs = 8000
const longestHandshakeMs = 8000

export class HttpsSession {
  #socket: TLSSocket | undefined
  #closed = false
  /** The connection is ours from the lane on; the agent keeps it for the next request. */
  #agent: Agent
  readonly #lane: Lane
  readonly #port: number

  readonly #longestReplyMs: number

  constructor(lane: Lane, port: number, pin: PinCheck, longestReplyMs = defaultLongestReplyMs) {
    this.#longestReplyMs = longestReplyMs
    this.#lane = lane
    this.#port = port
    this.#agent = new Agent({ keepAlive: true, maxSockets: 1 })
    // The agent's own way of connecting knows no lanes and no pins.
    this.#agent.createConnection = (_options, done) => {
      this.#connect(pin).then(
        (socket) => done?.(null, socket),
        (error: Error) => done?.(error, undefined as never),
      )
      return undefined
    }
  }

  async #connect(pin: PinCheck): Promise<TLSSocket> {
    const raw = await this.#lane.connect(this.#port)
    const socket = await handshake(raw)
    try {
      await pin(socket.getPeerCertificate().fingerprint256)
    } catch (error) {
      socket.destroy()
      throw error
    }
    // It may have gone while the pin was asked for. A dead socket tells nobody that it is dead a second time.
    if (this.#closed) socket.destroy()
    if (socket.destroyed) throw new WireError('unreachable', 'the connection went away right after the handshake')
    this.#socket = socket
    return socket
  }

  /** @throws WireError unreachable, untrusted, timeout or garbled */
  ask(question: HttpsQuestion): Promise<HttpsReply> {
    return new Promise((resolve, reject) => {
      const outgoing: ClientRequest = request({
        agent: this.#agent,
        host: this.#lane.address,
        port: this.#port,
        method: question.method,
        path: question.path,
        headers: {
          ...question.headers,
          ...(question.body === undefined ? {} : { 'content-length': Buffer.byteLength(question.body) }),
        },
      })
      const fail = (error: Error): void => {
        clearTimeout(clock)
        reject(
          error instanceof WireError
            ? error
            : new WireError('unreachable', plainReason(error.message), { cause: error }),
        )
      }
      // Rejected here, not through the request: one that has no socket, or a dead one, never says that it was destroyed.
      const clock = setTimeout(() => {
        fail(
          new WireError(
            'timeout',
            `${question.method} ${question.path} was not answered in ${this.#longestReplyMs / 1000} s`,
          ),
        )
        outgoing.destroy()
      }, this.#longestReplyMs)
      outgoing.on('error', fail)
      outgoing.once('response', (incoming) => {
        readBounded(incoming).then((text) => {
          clearTimeout(clock)
          resolve({ status: incoming.statusCode ?? 0, headers: incoming.headers, text })
        }, fail)
      })
      outgoing.end(question.body)
    })
  }

  close(): void {
    this.#closed = true
    this.#agent.destroy()
    this.#socket?.destroy()
  }
}

function handshake(raw: Socket): Promise<TLSSocket> {
  return new Promise((resolve, reject) => {
    // Units sign their own certificates: trust is the pin, checked before a byte is sent.
    const socket = connectTls({ socket: raw, rejectUnauthorized: false, minVersion: 'TLSv1.2' })
    const fail = (error: Error): void => {
      socket.destroy()
      reject(new WireError('unreachable', `TLS: ${plainReason(error.message)}`, { cause: error }))
    }
    socket.setTimeout(longestHandshakeMs, () => fail(new Error('the handshake did not end in time')))
    const closed = (): void => fail(new Error('the connection was closed'))
    socket.once('error', fail)
    socket.once('close', closed)
    socket.once('secureConnect', () => {
      socket.setTimeout(0)
      socket.removeListener('error', fail)
      socket.removeListener('close', closed)
      // Between requests nobody else listens; a unit that restarts must not bring the process down.
      socket.on('error', () => socket.destroy())
      resolve(socket)
    })
  })
}

async function readBounded(incoming: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of incoming as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > largestReply) {
      incoming.destroy()
      throw new WireError('garbled', `the reply is larger than ${largestReply / 1024} KiB`)
    }
    chunks.push(chunk)
  }
  return Buffer.concat(chunks).toString('utf8')
}
