/** What a page has asked its unit for and has no answer to yet: while there is any, more of it may be filled in. */
import type { HTTPRequest, Page as Tab } from 'puppeteer-core'

/** What may change what stands on a page. */
const kinds: ReadonlySet<string> = new Set(['document', 'xhr', 'fetch', 'script'])
/** Whatever takes longer waits for something to happen. */
const longestMs = 3000
const quietMs = 100

export class Traffic {
  /** Since when each is under way, ms since 1970. */
  readonly #open = new Map<HTTPRequest, number>()
  #endedAt = 0
  /** Whole pages: however long they take, something is under way. */
  readonly #pages = new Set<HTTPRequest>()

  constructor(tab: Tab) {
    tab.on('request', (request) => {
      if (kinds.has(request.resourceType())) this.#open.set(request, Date.now())
      if (request.isNavigationRequest()) this.#pages.add(request)
    })
    for (const end of ['requestfinished', 'requestfailed'] as const)
      tab.on(end, (request) => {
        this.#pages.delete(request)
        if (this.#open.delete(request)) this.#endedAt = Date.now()
      })
  }

  /** A page was asked for, and has not come. */
  get isTurning(): boolean {
    return this.#pages.size > 0
  }

  /** Nothing is under way, and nothing has been for a moment. */
  get isQuiet(): boolean {
    const now = Date.now()
    for (const [request, since] of this.#open) if (now > since + longestMs) this.#open.delete(request)
    return this.#open.size === 0 && now > this.#endedAt + quietMs
  }
}
