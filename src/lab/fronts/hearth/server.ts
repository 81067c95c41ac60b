/**
 * The pages of a Hearth: drawn by script at one address, with a legacy part in a frame, over HTTPS. Whoever signs in
 * has a token, which the page keeps, and which ends after three minutes without use.
 */
import { randomBytes } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import { createServer, type Server } from 'node:https'
import type { AddressInfo } from 'node:net'
import type { Duplex } from 'node:stream'
import { ZodError } from 'zod'
import type { Device } from '../../device/device'
import { Flash } from '../../device/flash'
import { Refusal } from '../../device/refusal'
import { change } from '../change'
import type { Front } from '../front'
import { document, input } from '../pages/html'
import { maskText } from '../pages/views'
import { bodyOf } from '../request-body'
import { selfSigned } from '../self-signed'
import { copyOf, fileParts } from './files'
import { hearthMore } from './more-pages'
import { hearthPage } from './page'
import { begin, lands, posts, viewOf, zones } from './settings'
import { manageUnits, unitsOf } from './units'
import { hearthUnits } from './units-page'
import { wordsOf } from './words'

const longestRequest = 256 * 1024
const sessionSeconds = 180
const style = `.dialog{position:fixed;top:20%;left:25%;background:#fff;border:1px solid;padding:1em;
max-height:70%;overflow:auto}
.btn,.pick{display:inline-block;border:1px solid #888;padding:2px 8px;cursor:pointer;min-width:3em;min-height:1.2em}
.list{position:fixed;top:10px;right:10px;max-height:600px;overflow:auto;background:#ffd;padding:4px 20px;cursor:pointer}
.menu{display:flex;gap:1em;list-style:none;padding:0}.wrong{color:#a00}.row label,.row span{min-width:9em}`

export class HearthServer implements Front {
  readonly #unit: Device
  readonly #flash: Flash
  readonly #server: Server
  readonly #sockets = new Set<Duplex>()
  /** Users who are signed in by their token, each with the lab time at which it was used last. */
  readonly #sessions = new Map<string, { readonly user: string; usedAt: number }>()

  private constructor(unit: Device, flash: Flash, certificate: { readonly key: string; readonly cert: string }) {
    this.#unit = unit
    this.#flash = flash
    this.#server = createServer(certificate, (request, response) => void this.#serve(request, response))
    this.#server.on('connection', (socket: Duplex) => {
      this.#sockets.add(socket)
      socket.once('close', () => this.#sockets.delete(socket))
    })
    this.#server.on('tlsClientError', (_error, socket) => socket.destroy())
  }

  static async listen(unit: Device, flash = new Flash(undefined, unit.identity.mac)): Promise<HearthServer> {
    const certificate = flash.memory.certificate ?? (await selfSigned(unit))
    flash.remember({ certificate })
    const front = new HearthServer(unit, flash, certificate)
    await new Promise<void>((resolve) => front.#server.listen(0, '127.0.0.1', resolve))
    return front
  }

  loopbackPort(port: number): number | undefined {
    return port === 443 ? (this.#server.address() as AddressInfo).port : undefined
  }

  dropConnections(): void {
    this.#sessions.clear()
    for (const socket of this.#sockets) socket.destroy()
  }

  async renewIdentity(): Promise<void> {
    const certificate = await selfSigned(this.#unit)
    this.#flash.remember({ certificate })
    this.#server.setSecureContext(certificate)
    this.dropConnections()
  }

  async close(): Promise<void> {
    this.dropConnections()
    await new Promise<unknown>((resolve) => this.#server.close(resolve))
  }

  /** Nobody has made its admin yet. */
  get #isNew(): boolean {
    return this.#unit.configured.country === null
  }

  async #serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'https://unit')
    const [, kind, name = ''] = /^\/(api|old)\/(\w+)$/.exec(pathname) ?? []
    try {
      const body = request.method === 'POST' ? await bodyOf(request, longestRequest, 'That is too much.') : undefined
      if (kind === 'api')
        return answer(response, 200, await this.#api(name, body === undefined ? undefined : JSON.parse(body), request))
      if (kind === 'old') return this.#old(searchParams.get('token') ?? '', body, response)
      show(response, this.#page())
    } catch (error) {
      if (error instanceof NotSignedIn) return answer(response, 401, {})
      const reason =
        error instanceof Refusal
          ? error.message
          : error instanceof ZodError
            ? (error.issues[0]?.message ?? '')
            : 'It did not understand.'
      answer(response, 400, { reason })
    }
  }

  #page(): string {
    const { maker, model } = this.#unit.sheet
    const title = `${maker} ${model}`
    const parts = [wordsOf(this.#unit.firmware), this.#isNew, title, { lands: Object.keys(lands), zones }]
    const given = JSON.stringify(parts).replaceAll('<', '\\u003c')
    const script = `(${hearthPage.toString()})(...${given}, ${hearthUnits.toString()}, ${hearthMore.toString()})`
    return document(title, `<style>${style}</style><script>${script}</script>`)
  }

  async #api(name: string, body: unknown, request: IncomingMessage): Promise<unknown> {
    if (name === 'begin') {
      if (!this.#isNew) throw new Refusal('invalid-value', 'It has its administrator.')
      begin(this.#unit, body)
      return {}
    }
    if (name === 'enter') return this.#enter(body as { user?: unknown; word?: unknown })
    const user = this.#holder(String(request.headers['x-token']))
    if (name === 'clients') return { names: [] }
    if (name === 'copy') return copyOf(this.#unit)
    if (name === 'all') return { ...viewOf(this.#unit), units: unitsOf(this.#unit) }
    if (name === 'word') {
      const { before, next } = body as { before: string; next: string }
      if (!this.#unit.accepts(user, before)) throw new Refusal('invalid-value', 'That is not your password.')
      if (next.length < 10 || next.length > 32) throw new Refusal('invalid-value', 'A password has 10 to 32 signs.')
      this.#unit.configure(this.#unit.configured, new Map([[user, next]]))
    } else if (name === 'effect') this.#unit.apply()
    else if (name in fileParts) fileParts[name as keyof typeof fileParts](this.#unit, body)
    else if (name in manageUnits) manageUnits[name as keyof typeof manageUnits](this.#unit, body)
    else if (name === 'discard') this.#unit.configure(this.#unit.effective)
    else if (name === 'restart') setImmediate(() => this.#unit.restart())
    else {
      const post = Object.hasOwn(posts, name) ? posts[name] : undefined
      if (!post) throw new Refusal('unknown-element', 'There is no such thing.')
      change(this.#unit, post(this.#unit, body))
    }
    return {}
  }

  #enter({ user, word }: { user?: unknown; word?: unknown }): { token: string } {
    const who = String(user)
    if (who === '' || !this.#unit.accepts(who, String(word)))
      throw new Refusal('access-denied', 'Wrong name or password.')
    const token = randomBytes(16).toString('hex')
    this.#sessions.set(token, { user: who, usedAt: this.#unit.clock.now() })
    return { token }
  }

  #holder(token: string): string {
    const session = this.#sessions.get(token)
    const now = this.#unit.clock.now()
    if (!session || now - session.usedAt > sessionSeconds * 1000) {
      this.#sessions.delete(token)
      throw new NotSignedIn('')
    }
    session.usedAt = now
    return session.user
  }

  /** The part that nobody has drawn anew: a form of its own, in a frame. */
  #old(token: string, body: string | undefined, response: ServerResponse): void {
    this.#holder(token)
    let said = ''
    if (body !== undefined) {
      change(this.#unit, posts.wired?.(this.#unit, Object.fromEntries(new URLSearchParams(body))) ?? {})
      // What it says fades, and the page around it is drawn anew then.
      const fades =
        'setTimeout(() => { document.getElementById("said").remove(); parent.dispatchEvent(new ' +
        'Event("hashchange")) }, 1500)'
      said = `<p id="said">Noted.</p><script>${fades}</script>`
    }
    const { wired, gateway, nameServers } = this.#unit.configured
    const way = (value: string, label: string, chosen: boolean): string =>
      `<p><label><input type="radio" name="way" value="${value}"${chosen ? ' checked' : ''}> ${label}</label></p>`
    const fields =
      way('own', 'Fixed address', wired.method === 'static') +
      way('given', 'Address from the network', wired.method === 'dhcp') +
      input({ name: 'number', label: 'Address', value: wired.address ?? '' }) +
      input({ name: 'mask', label: 'Netmask', value: maskText(wired.prefix) }) +
      input({ name: 'router', label: 'Router', value: gateway ?? '' }) +
      input({ name: 'resolvers', label: 'Name servers', value: nameServers.join(' ') }) +
      input({ name: 'tag', label: 'VLAN', value: wired.vlan === null ? '' : String(wired.vlan) })
    const form = `<form method="post">${fields}<button>Note it</button></form>`
    show(response, document('Wired', said + form))
  }
}

class NotSignedIn extends Error {
  override readonly name = 'NotSignedIn'
}

function answer(response: ServerResponse, status: number, data: unknown): void {
  response.writeHead(status, { 'content-type': 'application/json', 'cache-control': 'no-store' })
  response.end(JSON.stringify(data))
}

function show(response: ServerResponse, html: string): void {
  response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' })
  response.end(html)
}
