/**
 * A proxy on loopback through which a browser reaches one unit and nobody else: every other host gets nothing. It
 * speaks TLS with the unit itself, so that the certificate is the pinned one before a byte is sent.
 */
import { createServer, type IncomingMessage, request, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo, Socket } from 'node:net'
import type { Duplex } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { TLSSocket } from 'node:tls'
import { generate } from 'selfsigned'
import { WireError } from '../errors/wire-error'
import type { Lane } from '../host/host'
import type { PinCheck } from '../trust/pin'
import { pinnedTls } from './http-session'

/** Between the browser and this proxy alone, on loopback: it proves nothing and has to be there. */
let ownCertificate: Promise<{ key: string; cert: string }> | undefined
function certificate(): Promise<{ key: string; cert: string }> {
  ownCertificate ??= generate([{ name: 'commonName', value: 'lane' }], { keyType: 'ec', algorithm: 'sha256' }).then(
    ({ private: key, cert }) => ({ key, cert }),
  )
  return ownCertificate
}

export class LaneProxy {
  readonly #lane: Lane
  readonly #pin: PinCheck
  readonly #server: Server
  readonly #sockets = new Set<Duplex>()
  /** Why the unit was not reached last: the browser does not tell. */
  fault: WireError | undefined

  private constructor(lane: Lane, pin: PinCheck) {
    this.#lane = lane
    this.#pin = pin
    this.#server = createServer((asked, reply) => void this.#forward(asked, reply))
    this.#server.on('connect', (asked, socket) => void this.#tunnel(asked, socket))
    this.#server.on('connection', (socket) => this.#hold(socket))
  }

  static async open(lane: Lane, pin: PinCheck): Promise<LaneProxy> {
    const proxy = new LaneProxy(lane, pin)
    await new Promise<void>((resolve) => proxy.#server.listen(0, '127.0.0.1', resolve))
    return proxy
  }

  get url(): string {
    return `http://127.0.0.1:${(this.#server.address() as AddressInfo).port}`
  }

  close(): void {
    this.#server.close()
    for (const socket of this.#sockets) socket.destroy()
  }

  #hold(socket: Duplex): void {
    this.#sockets.add(socket)
    socket.once('close', () => this.#sockets.delete(socket))
    socket.on('error', () => socket.destroy())
  }

  /** Plain HTTP: the whole address stands in the request (RFC 9112, 3.2.2). */
  async #forward(asked: IncomingMessage, reply: ServerResponse): Promise<void> {
    const url = URL.canParse(asked.url ?? '') ? new URL(asked.url ?? '') : undefined
    if (url?.protocol !== 'http:' || url.hostname !== this.#lane.address) return void reply.writeHead(403).end()
    try {
      const socket = await this.#lane.connect(url.port === '' ? 80 : Number(url.port))
      this.#hold(socket)
      const { 'proxy-connection': _hop, ...headers } = asked.headers
      const onwards = request({
        createConnection: () => socket,
        method: asked.method,
        path: `${url.pathname}${url.search}`,
        headers: { ...headers, connection: 'close' },
      })
      onwards.on('response', (answer) => {
        reply.writeHead(answer.statusCode ?? 502, answer.headers)
        // What the unit leaves half said is not waited for.
        pipeline(answer, reply).catch(() => reply.destroy())
      })
      onwards.on('error', () => reply.destroy())
      asked.pipe(onwards)
    } catch (error) {
      this.#failed(error)
      reply.destroy()
    }
  }

  /** HTTPS, RFC 9110, 9.3.6: what the browser encrypts is opened here and encrypted anew for the unit. */
  async #tunnel(asked: IncomingMessage, socket: Duplex): Promise<void> {
    const [host, port] = (asked.url ?? '').split(':')
    if (host !== this.#lane.address) return void socket.end('HTTP/1.1 403 Forbidden\r\n\r\n')
    try {
      const unit = await pinnedTls(this.#lane, Number(port), this.#pin)
      this.#hold(unit)
      socket.write('HTTP/1.1 200 Connected\r\n\r\n')
      const browser = new TLSSocket(socket as Socket, { isServer: true, ...(await certificate()) })
      this.#hold(browser)
      browser.pipe(unit)
      unit.pipe(browser)
      unit.once('close', () => browser.destroy())
      browser.once('close', () => unit.destroy())
    } catch (error) {
      this.#failed(error)
      socket.destroy()
    }
  }

  #failed(error: unknown): void {
    this.fault = error instanceof WireError ? error : new WireError('unreachable', String(error))
  }
}
