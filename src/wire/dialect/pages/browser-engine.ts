/** Turns pages in Chromium: for those that are drawn by script. Everything goes through the unit's lane. */

import { TimeoutError } from 'puppeteer-core'
import type { At } from '../../../core/kit/page-places'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { seek } from '../../../core/showing/seek'
import { BrowserGoneError, plainReason, WireError } from '../../errors/wire-error'
import type { LaneProxy } from '../../http/lane-proxy'
import { inPage } from '../../page-elements/in-page'
import { type PagePicture, pictureOf } from '../../page-elements/picture'
import {
  type ActInPage,
  changed,
  fillIn,
  lookAround,
  offeredWords,
  opened,
  pressed,
  shownHtml,
  takeOffered,
  tick,
} from './acts-in-page'
import { type Entrance, type Entry, largestPage, type PageEngine, placeWords, type Seen } from './engine'
import { canSend, FetchedPages, fetchedHtml } from './fetched-pages'
import type { EngineSettings } from './forms-engine'
import { closeTab, letGo, type OpenTab, openTab } from './tabs'
import type { Traffic } from './traffic'

type Tab = OpenTab['tab']

const betweenTriesMs = 30
/** So long an element that is described may take to appear, and a list to open. */
const appearsWithinMs = 2500
const listOpensWithinMs = 2500
/** A page that never stops asking is taken as it is then. */
const settlesWithinMs = 5000
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, betweenTriesMs))

export class BrowserEngine implements PageEngine {
  readonly #settings: EngineSettings
  #opening: Promise<OpenTab> | undefined
  #tab: Tab | undefined
  /** Whether the browser itself has a login, which it forgets with its context alone. */
  #authorized = false
  #base = ''
  #status = 200
  #traffic: Traffic | undefined
  #closed = false
  /** The page that stands, where it was fetched. */
  readonly #fetched = new FetchedPages(async (request) => {
    const { tab, proxy } = await this.#open()
    proxy.fault = undefined
    try {
      const reply = await inPage(tab, fetchedHtml, { ...request, most: largestPage, patience: this.#patience })
      if (reply === 'late')
        throw new WireError('timeout', message('no-page-within', { seconds: this.#patience / 1000 }))
      if (reply === 'failed' && proxy.fault) throw proxy.fault
      return reply === 'failed' ? undefined : reply
    } catch (error) {
      throw this.#explained(error, proxy)
    }
  })

  constructor(settings: EngineSettings) {
    this.#settings = settings
  }

  get isTurning(): boolean {
    return this.#traffic?.isTurning === true
  }

  get #patience(): number {
    return this.#settings.longestReplyMs
  }

  get #scheme(): 'http' | 'https' {
    return this.#base.startsWith('https:') ? 'https' : 'http'
  }

  enter({ scheme, port }: Entrance): void {
    this.#base = `${scheme}://${this.#settings.lane.address}:${port}`
  }

  async authorize({ user, password }: Credentials): Promise<void> {
    const { tab } = await this.#open()
    this.#authorized = true
    await tab.authenticate({ username: user, password })
  }

  async go(path: string): Promise<Seen> {
    const { tab, proxy } = await this.#open()
    this.#fetched.leave()
    proxy.fault = undefined
    try {
      const next = new URL(path, this.#base)
      const isThere = isSamePage(tab.url(), next)
      const gone = await tab.goto(next.href, { waitUntil: 'domcontentloaded' })
      // A route after # is drawn by a page that is there already, and may show what nobody has saved: it is loaded
      // anew.
      const reply = isThere && next.hash !== '' ? await tab.reload({ waitUntil: 'domcontentloaded' }) : gone
      this.#status = reply?.status() ?? 200
      if (this.#status >= 500) throw new WireError('garbled', `${path}: HTTP ${this.#status}`)
    } catch (error) {
      // What it shows to whoever is not let in is not shown by the browser.
      if (String(error).includes('ERR_INVALID_AUTH_CREDENTIALS')) return { status: 401, html: '', scheme: this.#scheme }
      throw this.#explained(error, proxy)
    }
    const seen = await this.look()
    // Led on to another door, it goes on there.
    this.#base = new URL(tab.url()).origin
    return seen
  }

  async fetch(path: string): Promise<Seen | undefined> {
    const { tab } = await this.#open()
    return FetchedPages.mayAsk(tab) ? this.#fetched.go(path) : undefined
  }

  async submit(entries: readonly Entry[], press: At | undefined): Promise<Seen> {
    const { tab, proxy } = await this.#open()
    const fetched = this.#fetched.url
    if (fetched !== undefined) {
      if (canSend(entries, press)) return this.#fetched.submit(entries, press)
      // What only a browser does is done on the page itself.
      await this.go(fetched)
    }
    proxy.fault = undefined
    this.#status = 200
    try {
      for (const entry of entries) await this.#put(tab, entry)
      if (press !== undefined) await this.#act(tab, press, 'button', pressed)
    } catch (error) {
      // The press leads away before it is answered.
      if (!isBetweenPages(error)) throw this.#explained(error, proxy)
    }
    return this.look()
  }

  async settled(): Promise<Seen> {
    const { traffic } = await this.#open()
    if (this.#fetched.seen) return this.#fetched.seen
    const end = Date.now() + settlesWithinMs
    do await pause()
    while (!traffic.isQuiet && Date.now() < end)
    return this.look()
  }

  async #put(tab: Tab, entry: Entry): Promise<void> {
    const { at } = entry
    if (entry.kind === 'tick') return this.#act(tab, at, 'field', tick, entry.ticked)
    if (entry.kind === 'text') return this.#act(tab, at, 'field', fillIn, entry.text)
    await this.#act(tab, at, 'field', opened)
    const end = Date.now() + listOpensWithinMs
    for (;;) {
      const offered = await inPage(tab, offeredWords)
      const chosen = offered.findIndex((words) => entry.means(words))
      if (chosen >= 0 && (await inPage(tab, takeOffered, chosen))) return
      if (Date.now() > end) {
        await tab.keyboard.press('Escape')
        throw new WireError('rejected', message('choice-not-offered', { choice: entry.said }))
      }
      await pause()
    }
  }

  /**
   * Acts on an element, once it is there: some appear when another is filled in.
   * @param act  runs in the page @throws WireError garbled where it does not appear
   */
  async #act(tab: Tab, at: At, what: 'field' | 'button', act: ActInPage, value: string | boolean = ''): Promise<void> {
    const end = Date.now() + (typeof at === 'string' ? 0 : appearsWithinMs)
    for (;;) {
      const place = typeof at === 'string' ? at : seek(await inPage(tab, lookAround), at).found?.seen
      const isDone = place !== undefined && (await inPage(tab, act, place, value))
      if (isDone) return
      if (Date.now() > end) throw new WireError('garbled', message('not-on-page', { what, place: placeWords(at) }))
      await pause()
    }
  }

  async look(): Promise<Seen> {
    const { tab, proxy } = await this.#open()
    if (this.#fetched.url !== undefined) return this.#fetched.again()
    let end = Date.now() + this.#settings.longestReplyMs
    for (;;) {
      const began = Date.now()
      try {
        const facts = this.#settings.describes ? await inPage(tab, lookAround) : undefined
        const html = await inPage(tab, shownHtml, largestPage)
        if (html === 'not-yet') throw new BetweenPages()
        if (html === undefined) throw new WireError('garbled', message('page-too-large', { most: largestPage / 1024 }))
        const url = tab.url()
        // The browser's own page that says so.
        if (url.startsWith('chrome-error:')) throw proxy.fault ?? new WireError('unreachable', 'no answer')
        const scheme = url.startsWith('https:') ? 'https' : 'http'
        return { status: this.#status, html, scheme, ...(facts ? { facts } : {}) }
      } catch (error) {
        // A page that is about to be left answers nothing until it is: that time is not the next one's.
        end += Date.now() - began
        if (!isBetweenPages(error) || Date.now() > end) throw this.#explained(error, proxy)
        await pause()
      }
    }
  }

  async changes(withinMs: number): Promise<void> {
    const { tab } = await this.#open()
    if (this.#fetched.seen) return
    // A page that is being left has changed.
    await inPage(tab, changed, withinMs).catch(() => undefined)
  }

  async picture(secrets: readonly string[]): Promise<PagePicture | undefined> {
    const opened = await this.#opening
    // Of a page that is not there any more, or not yet, there is none.
    if (!opened) return undefined
    return this.#fetched.shownIn(opened.tab).then(
      () => pictureOf(opened.tab, secrets),
      () => undefined,
    )
  }

  close(): void {
    this.#closed = true
    const done = this.#authorized ? closeTab : letGo
    void this.#opening?.then(done, () => undefined)
    this.#opening = undefined
  }

  #open(): Promise<OpenTab> {
    if (this.#closed) throw new WireError('unreachable', message('no-session-open'))
    this.#opening ??= this.#started()
    return this.#opening
  }

  async #started(): Promise<OpenTab> {
    const { lane, pin, longestReplyMs } = this.#settings
    const opened = await openTab(lane, pin)
    this.#tab = opened.tab
    opened.tab.setDefaultTimeout(longestReplyMs)
    this.#traffic = opened.traffic
    return opened
  }

  #explained(error: unknown, proxy: LaneProxy): WireError {
    if (error instanceof WireError) return error
    if (this.#tab && !this.#tab.browser().connected) return new BrowserGoneError(error)
    if (proxy.fault) return proxy.fault
    const cause = error instanceof Error ? error : new Error(String(error))
    if (cause instanceof TimeoutError)
      return new WireError('timeout', message('no-page-within', { seconds: this.#settings.longestReplyMs / 1000 }), {
        cause,
      })
    return new WireError('unreachable', plainReason(cause.message.split('\n')[0] ?? ''), { cause })
  }
}

class BetweenPages extends Error {
  override readonly name = 'BetweenPages'
}

/** One page is gone and the next is not there yet. */
function isBetweenPages(error: unknown): boolean {
  if (error instanceof BetweenPages) return true
  return (
    error instanceof Error &&
    !(error instanceof WireError) &&
    /Execution context was destroyed|Cannot find context|frame was detached|Execution context is not available/i.test(
      error.message,
    )
  )
}

const isSamePage = (now: string, { origin, pathname, search }: URL): boolean => {
  const at = URL.canParse(now) ? new URL(now) : undefined
  return at?.origin === origin && at.pathname === pathname && at.search === search
}
