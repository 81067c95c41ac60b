/**
 * Pages that no script draws, in a browser that others need: the page that stands in it fetches them and sends their
 * forms, with its cookies and through its lane. That costs a fraction of opening each.
 */
import type { Page as Tab } from 'puppeteer-core'
import type { At } from '../../../core/kit/page-places'
import { WireError } from '../../errors/wire-error'
import type { PageElements } from '../../page-elements/page-elements'
import type { Entry, Seen } from './engine'
import { type Submission, submissionOf } from './form-data'

interface Request {
  readonly url: string
  readonly method: 'GET' | 'POST'
  readonly body: Submission['body'] | null
  /** The page that leads there, where that is not the one that stands: some units heed it. */
  readonly from: string | null
}

interface Reply {
  readonly status: number
  readonly html: string
  /** Where it came from, after all that led on. */
  readonly url: string
}

/** Whether a form can be sent without a browser: all of it is selected, and nothing has to be opened first. */
export const canSend = (entries: readonly Entry[], press: At | undefined): press is string =>
  typeof press === 'string' && entries.every(({ at, kind }) => typeof at === 'string' && kind !== 'choose')

export class FetchedPages {
  readonly #ask: (request: Request) => Promise<Reply | undefined>
  #stands: { readonly url: string; readonly seen: Seen } | undefined

  /** @param ask  undefined where nothing came that may be read; throws WireError */
  constructor(ask: (request: Request) => Promise<Reply | undefined>) {
    this.#ask = ask
  }

  /** Whether the page in a tab is one of a unit's, which may ask for others. */
  static mayAsk(tab: Tab): boolean {
    return /^https?:/.test(tab.url())
  }

  /** Undefined while the page that stands is the browser's own. */
  get url(): string | undefined {
    return this.#stands?.url
  }

  get seen(): Seen | undefined {
    return this.#stands?.seen
  }

  leave(): void {
    this.#stands = undefined
  }

  /** @returns undefined where the page has to be opened: it may lead elsewhere, or tell by a status what is wrong */
  async go(path: string): Promise<Seen | undefined> {
    this.leave()
    const reply = await this.#ask({ url: path, method: 'GET', body: null, from: null }).catch((error: unknown) => {
      // Whoever opens it waits where a unit is away for a moment.
      if (error instanceof WireError && error.kind === 'unreachable') return undefined
      throw error
    })
    return reply && reply.status < 400 ? this.#standing(reply) : undefined
  }

  /** The page that stands, as it is now. @throws WireError unreachable where it is not there any more */
  again(): Promise<Seen> {
    return this.#mustAsk({ url: this.url ?? '', method: 'GET', body: null, from: null })
  }

  async submit(entries: readonly Entry[], press: string): Promise<Seen> {
    const { method, action, body = null, query } = await submissionOf(this.seen?.html ?? '', entries, press)
    const url = new URL(action, this.url)
    url.hash = ''
    if (query !== undefined) url.search = query
    return this.#mustAsk({ url: url.href, method, body, from: this.url ?? null })
  }

  /** Draws it in the tab that fetched it, for whoever wants to see it. */
  async shownIn(tab: Tab): Promise<void> {
    if (this.seen) await tab.setContent(this.seen.html, { waitUntil: 'domcontentloaded' })
  }

  async #mustAsk(request: Request): Promise<Seen> {
    const reply = await this.#ask(request)
    if (!reply) throw new WireError('unreachable', 'no answer')
    const { pathname } = new URL(request.url)
    if (reply.status >= 500) throw new WireError('garbled', `${pathname}: HTTP ${reply.status}`)
    return this.#standing(reply)
  }

  #standing({ status, html, url }: Reply): Seen {
    const seen: Seen = { status, html, scheme: url.startsWith('https:') ? 'https' : 'http' }
    this.#stands = { url, seen }
    return seen
  }
}

/** Runs in the page: nothing outside it is there. @param asked  with the most signs of a page, and a patience in ms */
export async function fetchedHtml(
  _elements: PageElements,
  { url, method, body, from, most, patience }: Request & { readonly most: number; readonly patience: number },
): Promise<Reply | 'late' | 'failed'> {
  try {
    const sent = body ? { body: body.text, headers: { 'content-type': body.type } } : {}
    const led = from === null ? {} : { referrer: from }
    const reply = await fetch(url, {
      method,
      ...sent,
      ...led,
      cache: 'no-store',
      signal: AbortSignal.timeout(patience),
    })
    const html = await reply.text()
    if (html.length > most || new URL(reply.url).origin !== location.origin) return 'failed'
    return { status: reply.status, html, url: reply.url }
  } catch (error) {
    return error instanceof Error && error.name === 'TimeoutError' ? 'late' : 'failed'
  }
}
