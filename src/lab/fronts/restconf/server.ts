/**
 * RESTCONF (RFC 8040) over HTTPS in front of an access point. It listens on loopback; the wire says who reaches it.
 */
import { createHash } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import { createServer, type Server } from 'node:https'
import type { AddressInfo } from 'node:net'
import type { Duplex } from 'node:stream'
import { z } from 'zod'
import type { Device } from '../../device/device'
import { Flash } from '../../device/flash'
import { Refusal } from '../../device/refusal'
import type { Front } from '../front'
import { bodyOf } from '../request-body'
import { selfSigned } from '../self-signed'
import { carryOut } from '../yang/carry-out'
import { encode, encodeOperational } from '../yang/encode'
import { lookUp, type Node, type TreeEdit } from '../yang/tree'

const dataType = 'application/yang-data+json'
const patchType = 'application/yang-patch+json'
const patchSchema = z.object({
  'ietf-yang-patch:yang-patch': z.object({
    'patch-id': z.string(),
    edit: z
      .array(
        z.object({
          'edit-id': z.string().min(1),
          operation: z.enum(['create', 'delete', 'merge', 'remove', 'replace']),
          target: z.string(),
          value: z.record(z.string(), z.unknown()).optional(),
        }),
      )
      .min(1),
  }),
})
const operational = '/ds/ietf-datastores:operational'
const data = '/data'
const operations = '/operations/'
const longestRequest = 256 * 1024
/** A part of an image, in base64. */
const longestPart = 512 * 1024

/** RFC 8040, 7; any other is 400. */
const statusOf: Readonly<Partial<Record<Refusal['tag'], number>>> = { 'in-use': 409, 'access-denied': 403 }
const httpsPort = 443

export class RestconfServer implements Front {
  readonly #unit: Device
  readonly #server: Server
  readonly #sockets = new Set<Duplex>()
  #port = 0

  private constructor(
    unit: Device,
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
  static async listen(unit: Device, flash = new Flash(undefined, unit.identity.mac)): Promise<RestconfServer> {
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

  loopbackPort(port: number): number | undefined {
    return port === httpsPort ? this.#port : undefined
  }

  dropConnections(): void {
    for (const socket of this.#sockets) socket.destroy()
  }

  async renewIdentity(): Promise<void> {
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
      if (request.url === '/.well-known/host-meta') return hostMeta(response, this.#unit.sheet.root)
      const user = this.#userOf(request)
      if (user === undefined) {
        response.setHeader('www-authenticate', `Basic realm="${this.#unit.sheet.maker} ${this.#unit.sheet.model}"`)
        return send(response, 401, errors({ 'error-type': 'protocol', 'error-tag': 'access-denied' }))
      }
      const url = new URL(request.url ?? '/', 'https://unit')
      const { root } = this.#unit.sheet
      const path = url.pathname.startsWith(`${root}/`) ? decodePath(url.pathname.slice(root.length)) : ''
      if (request.method === 'GET' && path.startsWith(operational))
        return this.#get(response, path.slice(operational.length), encodeOperational(this.#unit, firstStep(path)))
      const reads = request.method === 'GET' || request.method === 'HEAD'
      if (reads && path.startsWith(data)) {
        // RFC 8040, 3.4.1.2: another tag for any other configuration, whether it is shown or not.
        response.setHeader('etag', `"${tagOf(this.#unit.configured)}"`)
        if (request.method === 'HEAD') return void response.writeHead(200, { 'content-type': dataType }).end()
        const config = encode(this.#unit.configured, this.#unit.sheet, 'as-shown')
        const all =
          url.searchParams.get('content') === 'config' ? config : { ...encodeOperational(this.#unit), ...config }
        return this.#get(response, path.slice(data.length), all)
      }
      if (!reads && !this.#unit.mayChange(user))
        throw new Refusal('access-denied', `${user} may look, and change nothing`)
      if (request.method === 'PATCH' && path === data)
        return this.#patch(response, request, await bodyOf(request, longestRequest, 'the request is too large'))
      if (request.method === 'POST' && path.startsWith(operations)) {
        const given = await bodyOf(request, longestPart, 'the part is too large')
        return this.#operate(response, path.slice(operations.length), given)
      }
      send(response, 404, noSuch('there is nothing here'))
    } catch (error) {
      const fault =
        error instanceof Refusal
          ? error
          : new Refusal('malformed-message', error instanceof Error ? error.message : 'not understood')
      send(response, statusOf[fault.tag] ?? 400, errors(errorOf(fault)))
    }
  }

  /** Who asks; undefined where that is nobody of its own. */
  #userOf(request: IncomingMessage): string | undefined {
    const [scheme, encoded] = (request.headers.authorization ?? '').split(' ')
    if (scheme !== 'Basic' || !encoded) return undefined
    const text = Buffer.from(encoded, 'base64').toString('utf8')
    const colon = text.indexOf(':')
    const user = text.slice(0, Math.max(colon, 0))
    return user !== '' && this.#unit.accepts(user, text.slice(colon + 1)) ? user : undefined
  }

  #get(response: ServerResponse, path: string, tree: Node): void {
    if (path === '') return send(response, 200, { 'ietf-restconf:data': tree })
    const found = lookUp(tree, path)
    if (found === undefined) return send(response, 404, noSuch(`there is no ${path}`))
    // RFC 8040, 4.3: wrapped in its name; an entry of a list in an array of one.
    const last = path.split('/').at(-1) ?? ''
    const isEntry = last.includes('=')
    const name = last.split('=')[0] ?? ''
    const module =
      path
        .split('/')
        .findLast((step) => step.includes(':'))
        ?.split(':')[0] ?? ''
    send(response, 200, { [name.includes(':') ? name : `${module}:${name}`]: isEntry ? [found] : found })
  }

  #patch(response: ServerResponse, request: IncomingMessage, text: string): void {
    if (!request.headers['content-type']?.startsWith(patchType))
      return send(response, 415, noSuch(`a change comes as ${patchType}`))
    const patch = patchSchema.parse(JSON.parse(text))['ietf-yang-patch:yang-patch']
    const tag = `"${tagOf(this.#unit.configured)}"`
    if ((request.headers['if-match'] ?? tag) !== tag)
      return send(response, 412, errors({ 'error-type': 'protocol', 'error-tag': 'operation-failed' }))
    const fault = this.#tryEdits(patch.edit)
    response.setHeader('etag', `"${tagOf(this.#unit.configured)}"`)
    send(response, fault ? (fault.tag === 'in-use' ? 409 : 400) : 200, {
      'ietf-yang-patch:yang-patch-status': {
        'patch-id': patch['patch-id'],
        ...(fault ? { errors: { error: [errorOf(fault)] } } : { ok: [null] }),
      },
    })
  }

  #tryEdits(edits: readonly TreeEdit[]): Refusal | undefined {
    try {
      carryOut(this.#unit, edits)
      return undefined
    } catch (error) {
      if (error instanceof Refusal) return error
      throw error
    }
  }

  /** @returns what is done once it has answered */
  #firmware(operation: string, given: string): (() => void) | undefined {
    const { image, offset, content } = partSchema.parse(JSON.parse(given))['air-muster-firmware:input']
    if (operation.endsWith(':install-image')) return this.#unit.install(image)
    if (offset === undefined || content === undefined) throw new Refusal('data-missing', 'a part has content and place')
    this.#unit.takeImagePart(image, offset, Buffer.from(content, 'base64'))
    return undefined
  }

  #operate(response: ServerResponse, operation: string, given: string): void {
    const { sheet } = this.#unit
    if (sheet.timing.image !== undefined && operation.startsWith('air-muster-firmware:')) {
      const afterwards = this.#firmware(operation, given)
      if (afterwards) response.once('finish', () => setImmediate(afterwards))
      return void response.writeHead(204).end()
    }
    const operations: Readonly<Record<string, () => void>> = {
      ...(sheet.applies === 'staged' ? { 'air-muster-wireless:apply': () => this.#unit.apply() } : {}),
      ...(sheet.saves === 'on-command' ? { 'air-muster-wireless:save': () => this.#unit.save() } : {}),
      'ietf-system:system-restart': () => this.#unit.restart(),
    }
    const operate = Object.hasOwn(operations, operation) ? operations[operation] : undefined
    if (!operate)
      return send(response, 404, errors({ 'error-type': 'protocol', 'error-tag': 'operation-not-supported' }))
    response.once('finish', () => setImmediate(operate))
    response.writeHead(204).end()
  }
}

const partSchema = z.object({
  'air-muster-firmware:input': z.object({
    image: z.string(),
    offset: z.number().optional(),
    content: z.base64().optional(),
  }),
})

/** RFC 8040, 3.1. */
function hostMeta(response: ServerResponse, root: string): void {
  const xrd = `<XRD xmlns="http://docs.oasis-open.org/ns/xri/xrd-1.0"><Link rel="restconf" href="${root}"/></XRD>`
  response.writeHead(200, { 'content-type': 'application/xrd+xml' }).end(xrd)
}

function tagOf(settings: object): string {
  return createHash('sha256').update(JSON.stringify(settings)).digest('hex')
}

/** The top-level container that a path of the operational datastore begins with; undefined for the whole. */
function firstStep(path: string): string | undefined {
  return path.slice(operational.length).split('/')[1]
}

function decodePath(path: string): string {
  return path.replace(/\/$/, '')
}

function errors(error: object): unknown {
  return { 'ietf-restconf:errors': { error: [error] } }
}

function errorOf({ tag, path, message }: Refusal): object {
  return {
    'error-type': 'application',
    'error-tag': tag,
    ...(path === undefined ? {} : { 'error-path': path }),
    'error-message': message,
  }
}

function noSuch(message: string): unknown {
  return errors({ 'error-type': 'protocol', 'error-tag': 'invalid-value', 'error-message': message })
}

function send(response: ServerResponse, status: number, value: unknown): void {
  response.writeHead(status, { 'content-type': dataType }).end(JSON.stringify(value))
}
