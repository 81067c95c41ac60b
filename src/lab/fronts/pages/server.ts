/**
 * Web pages in front of a small access point: plain HTTP until it was set up for the first time, HTTPS from then on.
 * It listens on loopback; the wire says who reaches it.
 */
import { createHash } from 'node:crypto'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { createServer as createSecureServer, type Server as SecureServer } from 'node:https'
import type { AddressInfo } from 'node:net'
import type { Duplex } from 'node:stream'
import type { Device } from '../../device/device'
import type { DeviceRadio } from '../../device/device-settings'
import { Flash } from '../../device/flash'
import { Refusal } from '../../device/refusal'
import type { Front } from '../front'
import { bodyOf } from '../request-body'
import { selfSigned } from '../self-signed'
import { document, escaped, input, select, tick } from './html'
import { changePassword, posts, saveNetwork, saveRadio } from './posts'
import { Seat } from './seat'
import { channelList, networkView, radioNames, radioView, stateView, views } from './views'

const longestRequest = 64 * 1024
const cookieName = 'seat'
/** Seconds that it collects channels for, before it lists them. */
const collectingSeconds = 1

type Scheme = 'http' | 'https'
interface Asked {
  readonly request: IncomingMessage
  readonly response: ServerResponse
  readonly scheme: Scheme
  readonly path: string
  readonly form: URLSearchParams
  readonly host: string
}

export class PagesServer implements Front {
  readonly #unit: Device
  readonly #flash: Flash
  readonly #seat: Seat
  readonly #plain: Server
  readonly #secure: SecureServer
  readonly #sockets = new Set<Duplex>()
  /** Lab time at which the channels of a band are there. */
  #listed = new Map<string, number>()

  private constructor(unit: Device, flash: Flash, key: string, cert: string) {
    this.#unit = unit
    this.#flash = flash
    this.#seat = new Seat(unit.clock)
    this.#plain = createServer((request, response) => void this.#serve(request, response, 'http'))
    this.#secure = createSecureServer(
      { key, cert },
      (request, response) => void this.#serve(request, response, 'https'),
    )
    for (const server of [this.#plain, this.#secure])
      server.on('connection', (socket: Duplex) => {
        this.#sockets.add(socket)
        socket.once('close', () => this.#sockets.delete(socket))
      })
    this.#secure.on('tlsClientError', (_error, socket) => socket.destroy())
  }

  static async listen(unit: Device, flash = new Flash(undefined, unit.identity.mac)): Promise<PagesServer> {
    const certificate = flash.memory.certificate ?? (await selfSigned(unit))
    flash.remember({ certificate })
    const front = new PagesServer(unit, flash, certificate.key, certificate.cert)
    for (const server of [front.#plain, front.#secure])
      await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    return front
  }

  /** Nobody has said yet where it stands: it has not been set up. */
  get #isNew(): boolean {
    return this.#unit.configured.country === null
  }

  loopbackPort(port: number): number | undefined {
    const portOf = (server: Server): number => (server.address() as AddressInfo).port
    if (port === 443) return this.#isNew ? undefined : portOf(this.#secure)
    if (port === 80) return this.#unit.effective.httpsOnly ? undefined : portOf(this.#plain)
    return undefined
  }

  dropConnections(): void {
    this.#seat.leave()
    this.#listed = new Map()
    for (const socket of this.#sockets) socket.destroy()
  }

  async renewIdentity(): Promise<void> {
    const certificate = await selfSigned(this.#unit)
    this.#flash.remember({ certificate })
    this.#secure.setSecureContext(certificate)
    this.dropConnections()
  }

  async close(): Promise<void> {
    this.dropConnections()
    for (const server of [this.#plain, this.#secure]) await new Promise<unknown>((resolve) => server.close(resolve))
  }

  async #serve(request: IncomingMessage, response: ServerResponse, scheme: Scheme): Promise<void> {
    const host = (request.headers.host ?? '').split(':')[0] ?? ''
    const url = new URL(request.url ?? '/', `${scheme}://${host || 'unit'}`)
    if (scheme === 'http' && !this.#isNew)
      return void response.writeHead(301, { location: `https://${host}${url.pathname}` }).end()
    try {
      const form =
        request.method === 'POST'
          ? new URLSearchParams(await bodyOf(request, longestRequest, 'That is too much.'))
          : new URLSearchParams()
      this.#answer({ request, response, scheme, path: url.pathname, form, host })
    } catch (error) {
      const reason = error instanceof Refusal ? error.message : 'It did not understand.'
      send(response, 'Not saved', `<p class="wrong">${escaped(reason)}</p>`)
    }
  }

  #answer(asked: Asked): void {
    const { request, response, path } = asked
    const token = new RegExp(`${cookieName}=([0-9a-f]+)`).exec(request.headers.cookie ?? '')?.[1]
    if (path === '/enter' && request.method === 'POST') return this.#enter(asked)
    const user = this.#seat.holder(token)
    if (user === undefined) return this.#front(response)
    if (path === '/leave') {
      this.#seat.leave()
      return this.#front(response)
    }
    if (this.#isNew) return this.#welcome(asked)
    if (request.method === 'POST') return this.#save(asked, user)
    this.#show(asked)
  }

  #front(response: ServerResponse, wrong = ''): void {
    const { maker, model } = this.#unit.sheet
    const form =
      '<form id="enter" method="post" ' +
      `action="/enter">${input({ name: 'who', label: 'Name', value: '' })}` +
      `${input({ name: 'word', label: 'Password', value: '', type: 'password' })}<button ` +
      'name="go" value="in">Enter</button></form>'
    send(response, `${maker} ${model}`, `${wrong === '' ? '' : `<p class="wrong">${wrong}</p>`}${form}`)
  }

  #enter({ response, form, scheme, host }: Asked): void {
    const user = form.get('who') ?? ''
    if (!this.#unit.accepts(user, form.get('word') ?? ''))
      return this.#front(response, 'It knows nobody by this name and password.')
    const token = this.#seat.take(user)
    if (token === undefined)
      return send(response, 'Taken', '<p class="occupied">Somebody else is signed in. One at a time.</p>')
    const secure = scheme === 'https' ? '; Secure' : ''
    response.setHeader('set-cookie', `${cookieName}=${token}; Path=/; HttpOnly; SameSite=Lax${secure}`)
    response.writeHead(303, { location: `${scheme}://${host}/state` }).end()
  }

  /** What it asks whoever comes first; then it speaks HTTPS. */
  #welcome({ request, response, form, host }: Asked): void {
    if (request.method === 'POST' && this.#seat.spend(form.get('ticket'))) {
      if (!form.has('agreed')) throw new Refusal('data-missing', 'Agree to the terms first.')
      const country = form.get('land') ?? ''
      this.#unit.configure({ ...this.#unit.configured, country })
      return void response.writeHead(303, { location: `https://${host}/state` }).end()
    }
    const lands = ['AU', 'CA', 'DE', 'GB', 'NZ', 'US']
    send(
      response,
      'Welcome',
      this.#form(
        '/welcome',
        select('land', 'Country', [['', 'choose'], ...lands.map((each): [string, string] => [each, each])], '') +
          select(
            'tongue',
            'Language',
            [
              ['', 'choose'],
              ['en', 'English'],
              ['mi', 'Māori'],
            ],
            '',
          ) +
          tick('agreed', 'I agree to the terms', false),
        'welcome',
      ),
    )
  }

  #form(action: string, fields: string, id = 'page'): string {
    return (
      `<form id="${id}" method="post" action="${action}"><input type="hidden" name="ticket" ` +
      `value="${this.#seat.newTicket()}">${fields}<button name="save" value="page">Save this ` +
      'page</button></form>'
    )
  }

  #show({ response, path }: Asked): void {
    const view = Object.hasOwn(views, path) ? views[path] : undefined
    if (view) return send(response, path, this.#form(path, view(this.#unit)))
    if (path === '/state') return send(response, 'State', stateView(this.#unit, this.#mark()))
    if (path === '/effect')
      return send(response, 'Changes', this.#form('/effect', '<p>Put all saved pages into effect?</p>'))
    if (path === '/restart') return send(response, 'Restart', this.#form('/restart', '<p>Start again?</p>'))
    const radio = this.#radioAt(path)
    if (!radio) return send(response, 'Not here', '<p class="wrong">There is no such page.</p>', 404)
    if (radio.rest === '') {
      const blocks = this.#listedChannels(radio.radio)
      return send(response, path, this.#form(path, radioView(radio.radio, blocks, this.#unit)))
    }
    if (radio.rest === 'channels') return this.#sendChannels(response, radio.radio)
    const slot = this.#slotOf(radio.rest)
    const net = this.#unit.configured.networks.find(({ id }) => id === `${radio.radio.band}-${slot}`)
    send(response, path, this.#form(path, networkView(net)))
  }

  #save({ response, path, form }: Asked, user: string): void {
    if (!this.#seat.spend(form.get('ticket')))
      throw new Refusal('invalid-value', 'This page was saved before. Open it again.')
    if (path === '/effect' || path === '/restart') {
      response.once('finish', () =>
        setImmediate(() => (path === '/effect' ? this.#unit.apply() : this.#unit.restart())),
      )
      return send(response, 'Wait', '<p class="countdown">It works. Leave it powered.</p>')
    }
    const post = Object.hasOwn(posts, path) ? posts[path] : undefined
    const radio = this.#radioAt(path)
    if (post) post(this.#unit, form)
    else if (path === '/access') changePassword(this.#unit, user, form)
    else if (radio?.rest === '') saveRadio(this.#unit, radio.radio, form)
    else if (radio) saveNetwork(this.#unit, radio.radio.band, this.#slotOf(radio.rest), form)
    else throw new Refusal('unknown-element', 'There is no such page.')
    send(response, 'Saved', `<p class="saved">Saved. It waits to be put into effect.</p><a href="${path}">Back</a>`)
  }

  #radioAt(path: string): { radio: DeviceRadio; rest: string } | undefined {
    const [, name = '', rest = ''] = /^\/air\/(low|high)(?:\/(.+))?$/.exec(path) ?? []
    const radio = this.#unit.configured.radios.find(({ band }) => band === radioNames.get(name))
    return radio && { radio, rest }
  }

  #slotOf(rest: string): number {
    const slot = Number(/^net\/(\d)$/.exec(rest)?.[1] ?? Number.NaN)
    if (!(slot >= 1 && slot <= (this.#unit.sheet.slots ?? 0)))
      throw new Refusal('unknown-element', 'There is no such page.')
    return slot
  }

  /** The channels of a radio, once it has collected them. */
  #listedChannels({ band }: DeviceRadio) {
    const now = this.#unit.clock.now()
    const at = this.#listed.get(band) ?? now + collectingSeconds * 1000
    this.#listed.set(band, at)
    return now < at ? undefined : this.#unit.channels(band)
  }

  #sendChannels(response: ServerResponse, radio: DeviceRadio): void {
    const give = (): void => {
      const blocks = this.#listedChannels(radio)
      if (blocks)
        response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(channelList(radio, blocks)))
      else this.#unit.clock.after(collectingSeconds / 5, give)
    }
    give()
  }

  #mark(): string {
    return createHash('sha256').update(JSON.stringify(this.#unit.configured)).digest('hex').slice(0, 12)
  }
}

function send(response: ServerResponse, title: string, inner: string, status = 200): void {
  response.writeHead(status, { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' })
  response.end(document(title, inner))
}
