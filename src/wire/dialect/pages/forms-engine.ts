/** Turns pages without a browser: plain HTTP, cookies, redirects within the unit, forms as they stand. */

import { CookieJar } from 'tough-cookie'
import type { At } from '../../../core/kit/page-places'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import { type HttpReply, HttpSession } from '../../http/http-session'
import type { PinCheck } from '../../trust/pin'
import { bestDigest, type Challenge, challengesIn, digestAnswer } from './digest'
import type { Entrance, Entry, PageEngine, Seen } from './engine'
import { submissionOf } from './form-data'
import { parsed } from './parsed'

export interface EngineSettings {
  readonly lane: Lane
  readonly pin: PinCheck
  readonly by: 'form' | 'basic' | 'digest'
  readonly longestReplyMs: number
  /** Whether the card describes elements as a person would: then what is seen on each page is told. */
  readonly describes?: boolean
}

const mostRedirects = 8
const standardPorts = { http: 80, https: 443 } as const

interface Request {
  readonly method: 'GET' | 'POST'
  readonly url: URL
  readonly body?: { readonly type: string; readonly text: string } | undefined
}

export class FormsEngine implements PageEngine {
  /** Whoever asks for a page here has it when it is there. */
  readonly isTurning = false
  readonly #settings: EngineSettings
  readonly #sessions = new Map<string, HttpSession>()
  readonly #cookies = new CookieJar(undefined, { looseMode: true })
  #base: URL
  #credentials: Credentials | undefined
  #challenge: Challenge | undefined
  #answered = 0
  /** The page that stands, and where it came from. */
  #html = ''
  #url: URL

  constructor(settings: EngineSettings) {
    this.#settings = settings
    this.#url = this.#base = new URL(`https://${settings.lane.address}/`)
  }

  enter({ scheme, port }: Entrance): void {
    this.#url = this.#base = new URL(`${scheme}://${this.#settings.lane.address}:${port}/`)
  }

  async authorize(credentials: Credentials): Promise<void> {
    this.#credentials = credentials
    this.#challenge = undefined
  }

  go(path: string): Promise<Seen> {
    return this.#follow({ method: 'GET', url: new URL(path, this.#base) })
  }

  async submit(entries: readonly Entry[], press: At | undefined): Promise<Seen> {
    if (press === undefined) throw new WireError('garbled', message('form-sent-by-press'))
    const { method, action, body, query } = await submissionOf(this.#html, entries, press)
    const url = this.#within(action === '' ? this.#url.href : action)
    url.hash = ''
    if (query !== undefined) url.search = query
    return this.#follow({ method, url, body })
  }

  settled(): Promise<Seen> {
    return this.look()
  }

  async look(): Promise<Seen> {
    // A page that will lead on by itself is followed, as a browser would.
    const page = await parsed(this.#html)
    const refresh = page('meta[http-equiv="refresh" i]').first().attr('content') ?? ''
    const onwards = /^\s*\d+\s*[;,]\s*url\s*=\s*['"]?([^'"]+)/i.exec(refresh)?.[1]
    return this.#follow({ method: 'GET', url: onwards === undefined ? this.#url : this.#within(onwards) })
  }

  close(): void {
    for (const session of this.#sessions.values()) session.close()
    this.#sessions.clear()
  }

  async #follow(first: Request): Promise<Seen> {
    let request = first
    for (let step = 0; step <= mostRedirects; step += 1) {
      const reply = await this.#ask(request)
      const { location } = reply.headers
      if (reply.status < 300 || reply.status >= 400 || typeof location !== 'string') return this.#stands(request, reply)
      const url = this.#within(location, request.url)
      // RFC 9110, 15.4: after 307 and 308 the same request goes to the new place, else it is asked for.
      request = reply.status === 307 || reply.status === 308 ? { ...request, url } : { method: 'GET', url }
    }
    throw new WireError('garbled', message('pages-lead-on'))
  }

  #stands({ url }: Request, { status, text }: HttpReply): Seen {
    if (status >= 500) throw new WireError('garbled', `${url.pathname}: HTTP ${status}`)
    if (url.protocol !== this.#base.protocol || url.port !== this.#base.port) this.#base = new URL('/', url)
    this.#url = url
    this.#html = text
    return { status, html: text, scheme: url.protocol === 'https:' ? 'https' : 'http' }
  }

  /** @throws WireError garbled where it leads away from the unit */
  #within(target: string, from = this.#url): URL {
    const url = URL.canParse(target, from) ? new URL(target, from) : undefined
    if (!url || url.hostname !== this.#settings.lane.address || !/^https?:$/.test(url.protocol))
      throw new WireError('garbled', message('page-leads-elsewhere'))
    return url
  }

  async #ask(request: Request): Promise<HttpReply> {
    const reply = await this.#once(request)
    const challenge = bestDigest(challengesIn(reply.headers['www-authenticate']))
    const isAsked = reply.status === 401 && this.#settings.by === 'digest' && this.#credentials && challenge
    if (!isAsked || (this.#challenge && challenge.fields.stale?.toLowerCase() !== 'true')) return reply
    this.#challenge = challenge
    this.#answered = 0
    return this.#once(request)
  }

  async #once({ method, url, body }: Request): Promise<HttpReply> {
    const path = `${url.pathname}${url.search}`
    const cookie = await this.#cookies.getCookieString(url.href)
    const authorization = this.#authorization(method, path)
    const headers = {
      accept: 'text/html, application/xhtml+xml',
      ...(cookie === '' ? {} : { cookie }),
      ...(authorization === undefined ? {} : { authorization }),
      ...(body === undefined ? {} : { 'content-type': body.type, referer: this.#url.href, origin: this.#url.origin }),
    }
    const reply = await this.#session(url).ask({ method, path, headers, ...(body ? { body: body.text } : {}) })
    const set = reply.headers['set-cookie'] ?? []
    for (const each of (typeof set === 'string' ? [set] : set).slice(0, 50))
      await this.#cookies.setCookie(each.slice(0, 4096), url.href, { loose: true, ignoreError: true })
    return reply
  }

  #authorization(method: string, path: string): string | undefined {
    const { by } = this.#settings
    if (!this.#credentials || by === 'form') return undefined
    const { user, password } = this.#credentials
    if (by === 'basic') return `Basic ${Buffer.from(`${user}:${password}`).toString('base64')}`
    if (!this.#challenge) return undefined
    this.#answered += 1
    return digestAnswer(this.#challenge, this.#credentials, { method, path, count: this.#answered })
  }

  #session(url: URL): HttpSession {
    const scheme = url.protocol === 'https:' ? 'https' : 'http'
    const port = url.port === '' ? standardPorts[scheme] : Number(url.port)
    const key = `${scheme} ${port}`
    const known = this.#sessions.get(key)
    if (known) return known
    const { lane, pin, longestReplyMs } = this.#settings
    const session = new HttpSession(lane, { scheme, port, pin, longestReplyMs })
    this.#sessions.set(key, session)
    return session
  }
}
