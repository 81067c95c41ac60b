/**
 * HTTP or HTTPS to one unit over its lane: one connection that is kept, a pinned certificate, replies bounded in size
 * and time.
 */

import type { Socket } from 'node:net'
import { connect as connectTls, type PeerCertificate, type SecureContext, type TLSSocket } from 'node:tls'
import { Client, type Dispatcher, errors } from 'undici'
import { unnamed } from '../../core/kit/old-crypto'
import { message, messageText } from '../../core/message/message'
import { OutdatedError, plainReason, WireError } from '../errors/wire-error'
import type { Lane } from '../host/host'
import type { PinCheck } from '../trust/pin'
import { contextFor, everyOldTls, isDisagreement, oldIn } from './old-tls'

export interface HttpReply {
  readonly status: number
  readonly headers: Readonly<Record<string, string | string[] | undefined>>
  readonly text: string
}

export interface HttpQuestion {
  readonly method: 'GET' | 'HEAD' | 'POST' | 'PATCH'
  readonly path: string
  readonly headers?: Readonly<Record<string, string>>
  readonly body?: string
}

export interface HttpSettings {
  readonly scheme: 'http' | 'https'
  readonly port: number
  readonly pin: PinCheck
  readonly longestReplyMs?: number
}

const largestReply = 1024 * 1024
const defaultLongestReplyMs = 8000
const longestHandshakeMs = 8000
/** The client opens another whenever one is lost before the question went out: a hostile unit would keep it busy. */
const mostConnects = 3

/** Names of errors that say that time ran out. */
const late: ReadonlySet<string> = new Set(['AbortError', 'HeadersTimeoutError', 'BodyTimeoutError'])

export class HttpSession {
  readonly #client: Client
  readonly #longestReplyMs: number
  /** Connections that were opened for the question that is asked. */
  #connects = 0

  constructor(lane: Lane, { scheme, port, pin, longestReplyMs = defaultLongestReplyMs }: HttpSettings) {
    this.#longestReplyMs = longestReplyMs
    this.#client = new Client(`${scheme}://${lane.address}:${port}`, {
      // The client's own way of connecting knows no lanes and no pins.
      connect: (_options, done) => {
        this.#connects += 1
        const connecting =
          this.#connects > mostConnects
            ? Promise.reject(new WireError('garbled', message('hangs-up-again')))
            : scheme === 'https'
              ? pinnedTls(lane, port, pin)
              : lane.connect(port).then(watched)
        connecting.then(
          (socket) => done(null, socket),
          (error: Error) => done(error, null),
        )
      },
      maxResponseSize: largestReply,
      headersTimeout: longestReplyMs,
      bodyTimeout: longestReplyMs,
      pipelining: 1,
    })
  }

  /** @throws WireError unreachable, untrusted, timeout or garbled */
  async ask({ method, path, headers = {}, body }: HttpQuestion): Promise<HttpReply> {
    this.#connects = 0
    // One bound for all of it: a unit that drips keeps each of the client's own time-outs from running out.
    const late = new AbortController()
    const timer = setTimeout(() => late.abort(), this.#longestReplyMs)
    const what = `${method} ${path}`
    // Rejected here too: a request whose connection is never made does not hear of its signal.
    const tooLate = new Promise<never>((_resolve, reject) => {
      late.signal.addEventListener('abort', () => reject(this.#lateness(what)))
    })
    try {
      const options = { method, path, headers, body: body ?? null, signal: late.signal }
      return await Promise.race([this.#answer(options), tooLate])
    } catch (cause) {
      throw this.#explained(cause, what)
    } finally {
      clearTimeout(timer)
    }
  }

  async #answer(options: Dispatcher.RequestOptions): Promise<HttpReply> {
    const { statusCode, headers, body } = await this.#client.request(options)
    return { status: statusCode, headers, text: await body.text() }
  }

  #lateness(what: string, cause?: unknown): WireError {
    return new WireError('timeout', message('not-answered-within', { what, seconds: this.#longestReplyMs / 1000 }), {
      cause,
    })
  }

  #explained(cause: unknown, what: string): WireError {
    if (cause instanceof WireError) return cause
    const error = cause instanceof Error ? cause : new Error(String(cause))
    if (error instanceof errors.ResponseExceededMaxSizeError)
      return new WireError('garbled', message('reply-too-large', { most: largestReply / 1024 }), { cause })
    if (error instanceof errors.HTTPParserError)
      return new WireError('garbled', `no HTTP: ${plainReason(error.message)}`, { cause })
    if (late.has(error.name)) return this.#lateness(what, cause)
    return new WireError('unreachable', plainReason(error.message), { cause })
  }

  close(): void {
    this.#client.destroy().catch(() => undefined)
  }
}

/** A connection with a unit whose certificate is the pinned one. @throws WireError unreachable, untrusted */
export async function pinnedTls(lane: Lane, port: number, pin: PinCheck): Promise<TLSSocket> {
  const socket = await handshake(await lane.connect(port), contextFor(lane.old)).catch(async (error: WireError) => {
    throw (await outdated(lane, port, error)) ?? error
  })
  try {
    const old = unnamed(oldIn(socket), lane.old)
    if (old.length > 0) throw new OutdatedError(old)
    const { fingerprint256, subject } = socket.getPeerCertificate()
    await pin(fingerprint256, plainReason(subjectWords(subject)))
  } catch (error) {
    socket.destroy()
    throw error
  }
  // It may have gone while the pin was asked for. A dead socket tells nobody that it is dead a second time.
  if (socket.destroyed) throw new WireError('unreachable', message('gone-after-handshake'))
  return socket
}

/** `CN=..., O=...`; a part of which there are several stands there several times. */
function subjectWords(subject: PeerCertificate['subject'] | undefined): string {
  const parts = Object.entries(subject ?? {}).flatMap(([name, value]) => [value].flat().map((one) => `${name}=${one}`))
  return parts.join(', ')
}

/** Until somebody else listens for its errors; a unit that restarts must not bring the process down. */
function watched(socket: Socket): Socket {
  socket.on('error', () => socket.destroy())
  return socket
}

/**
 * Where nothing was agreed upon: whether something is with all that is old. Nothing is sent by it.
 * @returns undefined where that is not what stood in the way
 */
async function outdated(lane: Lane, port: number, { cause }: WireError): Promise<OutdatedError | undefined> {
  if (!(cause instanceof Error && isDisagreement(cause))) return undefined
  try {
    const socket = await handshake(await lane.connect(port), contextFor(everyOldTls))
    const old = unnamed(oldIn(socket), lane.old)
    socket.destroy()
    return old.length > 0 ? new OutdatedError(old) : undefined
  } catch {
    return undefined
  }
}

function handshake(raw: Socket, secureContext: SecureContext): Promise<TLSSocket> {
  return new Promise((resolve, reject) => {
    // Units sign their own certificates: trust is the pin, checked before a byte is sent.
    const socket = connectTls({ socket: raw, rejectUnauthorized: false, secureContext })
    const fail = (error: Error): void => {
      socket.destroy()
      reject(new WireError('unreachable', `TLS: ${plainReason(error.message)}`, { cause: error }))
    }
    socket.setTimeout(longestHandshakeMs, () => fail(new Error(messageText('handshake-too-long'))))
    const closed = (): void => fail(new Error(messageText('connection-closed')))
    socket.once('error', fail)
    socket.once('close', closed)
    socket.once('secureConnect', () => {
      socket.setTimeout(0)
      socket.removeListener('error', fail)
      socket.removeListener('close', closed)
      watched(socket)
      resolve(socket)
    })
  })
}
