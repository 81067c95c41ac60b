/**
 * RESTCONF (RFC 8040) over HTTPS in front of an access point. It listens on loopback; the wire says who reaches it.
 */
import type { IncomingMessage, ServerResponse } from 'node:http'
import { createServer, type Server } from 'node:https'
import type { AddressInfo } from 'node:net'
import type { Duplex } from 'node:stream'
import { generate } from 'selfsigned'
import {
  type YangEdit,
  type YangError,
  type YangPatchStatus,
  yangDataType,
  yangPatchSchema,
  yangPatchType,
} from '../../wire/codec/yang-patch'
import { Flash } from '../flash'
import type { AccessPoint } from './access-point'
import { DatastoreError } from './datastore'
import { interfaceState, operationalData } from './operational'

const longestRequest = 256 * 1024

export class RestconfServer {
  readonly #unit: AccessPoint
  readonly #server: Server
  readonly #sockets = new Set<Duplex>()
  #port = 0

  private constructor(
    unit: AccessPoint,
    private readonly flash: Flash,
    key: string,
    cert: string,
  ) {
    this.#unit = unit
    this.#server = createServer({ key, cert }, (request, response) => void this.#serve(request, response))
    this.#server.on('connection', (socket) => {
      this.#sockets.add(socket)
      socket.once('close', () => this.#sockets.delete(socket))
    })
    this.#server.on('tlsClientError', (_error, socket) => socket.destroy())
  }

  /** Starts to listen, with a certificate that the unit signed itself. */
  static async listen(unit: AccessPoint, flash = new Flash(undefined, unit.identity.mac)): Promise<RestconfServer> {
    const certificate = flash.memory.certificate ?? (await selfSigned(unit))
    flash.remember({ certificate })
    const server = new RestconfServer(unit, flash, certificate.key, certificate.cert)
    await new Promise<void>((resolve) => server.#server.listen(0, '127.0.0.1', resolve))
    server.#port = (server.#server.address() as AddressInfo).port
    return server
  }

  get port(): number {
    return this.#port
  }

  /** What a restart, a pulled cable or a new address does to connections. */
  dropConnections(): void {
    for (const socket of this.#sockets) socket.destroy()
  }

  /** What a reset does on much equipment: it signs itself another certificate. */
  async renewCertificate(): Promise<void> {
    const certificate = await selfSigned(this.#unit)
    this.flash.remember({ certificate })
    this.#server.setSecureContext(certificate)
    this.dropConnections()
  }

  close(): Promise<void> {
    this.dropConnections()
    return new Promise((resolve) => this.#server.close(() => resolve()))
  }

  async #serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
    try {
      if (!this.#authorized(request)) {
        response.setHeader('www-authenticate', `Basic realm="${this.#unit.sheet.maker} ${this.#unit.sheet.model}"`)
        return send(response, 401, errors({ 'error-type': 'protocol', 'error-tag': 'access-denied' }))
      }
      const url = new URL(request.url ?? '/', 'https://unit')
      const path = decodePath(url.pathname)
      if (request.method === 'GET' && path.startsWith('/restconf/data'))
        return this.#get(response, path.slice('/restconf/data'.length), url.searchParams.get('content') ?? 'all')
      if (request.method === 'PATCH' && path === '/restconf/data')
        return this.#patch(response, request, await body(request))
      if (request.method === 'POST' && path.startsWith('/restconf/operations/'))
        return this.#operate(response, path.slice('/restconf/operations/'.length))
      send(
        response,
        404,
        errors({ 'error-type': 'protocol', 'error-tag': 'invalid-value', 'error-message': 'there is nothing here' }),
      )
    } catch (error) {
      const fault =
        error instanceof DatastoreError
          ? error
          : new DatastoreError('malformed-message', error instanceof Error ? error.message : 'not understood')
      send(response, fault.tag === 'in-use' ? 409 : 400, errors(fault.toError()))
    }
  }

  #authorized(request: IncomingMessage): boolean {
    const [scheme, encoded] = (request.headers.authorization ?? '').split(' ')
    if (scheme !== 'Basic' || !encoded) return false
    const text = Buffer.from(encoded, 'base64').toString('utf8')
    const colon = text.indexOf(':')
    return colon > 0 && this.#unit.accepts(text.slice(0, colon), text.slice(colon + 1))
  }

  #get(response: ServerResponse, path: string, content: string): void {
    if (path === '/air-muster-wireless:wireless-state')
      return send(response, 200, { 'air-muster-wireless:wireless-state': this.#unit.air() })
    if (path === `/ietf-interfaces:interfaces/interface=${this.#unit.sheet.managementInterface}`)
      return send(response, 200, { 'ietf-interfaces:interface': [interfaceState(this.#unit)] })
    if (path === '')
      return send(response, 200, {
        'ietf-restconf:data': content === 'config' ? this.#unit.configuration : operationalData(this.#unit),
      })
    send(
      response,
      404,
      errors({ 'error-type': 'protocol', 'error-tag': 'invalid-value', 'error-message': `there is no ${path}` }),
    )
  }

  #patch(response: ServerResponse, request: IncomingMessage, text: string): void {
    if (!request.headers['content-type']?.startsWith(yangPatchType)) {
      return send(
        response,
        415,
        errors({
          'error-type': 'protocol',
          'error-tag': 'invalid-value',
          'error-message': `a change comes as ${yangPatchType}`,
        }),
      )
    }
    const patch = yangPatchSchema.parse(JSON.parse(text))['ietf-yang-patch:yang-patch']
    const fault = this.#tryEdits(patch.edit)
    const status: YangPatchStatus['ietf-yang-patch:yang-patch-status'] = fault
      ? { 'patch-id': patch['patch-id'], errors: { error: [fault.toError()] } }
      : { 'patch-id': patch['patch-id'], ok: [null] }
    send(response, fault ? (fault.tag === 'in-use' ? 409 : 400) : 200, { 'ietf-yang-patch:yang-patch-status': status })
  }

  #tryEdits(edits: readonly YangEdit[]): DatastoreError | undefined {
    try {
      this.#unit.edit(edits)
      return undefined
    } catch (error) {
      if (error instanceof DatastoreError) return error
      throw error
    }
  }

  #operate(response: ServerResponse, operation: string): void {
    const operations: Readonly<Record<string, () => void>> = {
      'air-muster-wireless:apply': () => this.#unit.apply(),
      'ietf-system:system-restart': () => this.#unit.restart(),
    }
    const operate = Object.hasOwn(operations, operation) ? operations[operation] : undefined
    if (!operate)
      return send(response, 404, errors({ 'error-type': 'protocol', 'error-tag': 'operation-not-supported' }))
    response.once('finish', () => setImmediate(operate))
    response.writeHead(204).end()
  }
}

async function selfSigned(unit: AccessPoint): Promise<{ key: string; cert: string }> {
  const { private: key, cert } = await generate([{ name: 'commonName', value: unit.identity.serial }], {
    keyType: 'ec',
    algorithm: 'sha256',
  })
  return { key, cert }
}

function decodePath(path: string): string {
  return path.replace(/\/$/, '')
}

function errors(error: YangError): unknown {
  return { 'ietf-restconf:errors': { error: [error] } }
}

function send(response: ServerResponse, status: number, value: unknown): void {
  response.writeHead(status, { 'content-type': yangDataType }).end(JSON.stringify(value))
}

async function body(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > longestRequest) throw new DatastoreError('malformed-message', 'the request is too large')
    chunks.push(chunk)
  }
  return Buffer.concat(chunks).toString('utf8')
}
