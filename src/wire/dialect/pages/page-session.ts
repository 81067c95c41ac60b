/**
 * One signed-in session with a unit's pages: it enters by the safer door, answers what is asked at the first time,
 * signs in again where the session ended, and leaves what it opened.
 */
import type { UnitConfig } from '../../../core/config/unit-config'
import type { DirectCard } from '../../../core/kit/kit-card'
import { entrancesOf, type PageFill, type PagesDialect } from '../../../core/kit/pages-dialect'
import type { Lane } from '../../host/host'
import type { PinCheck } from '../../trust/pin'
import { plainReason, WireError } from '../../wire-error'
import type { Credentials } from '../dialect'
import type { Entry, PageEngine, Seen } from './engine'
import { openEngine } from './open-engine'
import { Page } from './page'

type PagesCard = DirectCard & { readonly dialect: PagesDialect }

/** A reply is waited for as long as on any unit; a slow one three times as long. */
const patienceMs = { usual: 8000, slow: 24_000 } as const
const firstPauseMs = 20
const longestPauseMs = 250
/** Pages that may be asked at a first sign-in, one after the other. */
const mostAsked = 8

/** Sessions that are being left, by lane: where a unit takes one at a time, the next waits for it. */
const leaving = new WeakMap<Lane, Promise<void>>()

export class PageSession {
  readonly #lane: Lane
  readonly #card: PagesCard
  readonly #desired: UnitConfig | undefined
  readonly #engine: PageEngine
  readonly #patienceMs: number
  #entered: Seen | undefined
  /** The same, as long as nothing else was done. */
  #fresh: Seen | undefined
  /** Pages of settings as they were read: where nobody else can be signed in, they stay so until one is saved. */
  readonly #read = new Map<string, Page>()
  #credentials: Credentials | undefined
  /** When a page was saved last, ms since 1970. */
  #savedAt = 0

  constructor(lane: Lane, card: PagesCard, pin: PinCheck, desired: UnitConfig | undefined) {
    this.#lane = lane
    this.#card = card
    this.#desired = desired
    this.#patienceMs = card.does.slow ? patienceMs.slow : patienceMs.usual
    this.#engine = openEngine(card.dialect, lane, pin, this.#patienceMs)
  }

  get #dialect(): PagesDialect {
    return this.#card.dialect
  }

  /** Login of this session. @throws WireError unreachable where nobody is signed in */
  get credentials(): Credentials {
    if (!this.#credentials) throw new WireError('unreachable', 'no session is open')
    return this.#credentials
  }

  set credentials(login: Credentials) {
    this.#credentials = login
  }

  /** What it shows to whoever comes. */
  async frontPage(): Promise<Page> {
    return Page.of(await this.#enter())
  }

  /** @throws WireError refused; occupied where somebody else is signed in */
  async signIn(login: Credentials): Promise<void> {
    await leaving.get(this.#lane)
    const front = await this.#enter()
    // Whatever is not printed on its label goes over no wire in the clear, where the unit can do better.
    const { factory } = this.#card
    if (front.scheme === 'http' && this.#dialect.scheme === 'http-first' && login.password !== factory.login.password)
      throw new WireError('refused', 'it speaks plain HTTP, over which this password does not go')
    const { signIn } = this.#dialect
    if (signIn.by === 'form') await this.#signInByForm(signIn, login)
    else {
      await this.#engine.authorize(login)
      const { status } = await this.#engine.go(signIn.page)
      if (status === 401 || status === 403) throw new WireError('refused', `sign-in refused (${status})`)
    }
    this.#credentials = login
  }

  async #signInByForm(form: Extract<PagesDialect['signIn'], { by: 'form' }>, login: Credentials): Promise<void> {
    await this.#until(Page.of(await this.#front(form.page)), (one) => {
      throwIfOccupied(one, form.occupied)
      return one.has(form.user) && one.has(form.password)
    })
    const entries: Entry[] = [
      { at: form.user, kind: 'text', text: login.user },
      { at: form.password, kind: 'text', text: login.password },
    ]
    let last = Page.of(await this.#engine.submit(entries, form.press))
    for (let asked = 0; asked <= mostAsked; asked += 1) {
      const page = await this.#until(last, (one) => {
        if (one.has(form.refused)) throw new WireError('refused', reasonAt(one, form.refused, 'sign-in refused'))
        throwIfOccupied(one, form.occupied)
        // Once it was told where it stands, it may ask who is there anew.
        return form.asks.some(({ sees }) => one.has(sees)) || asked > 0 || !one.has(form.password)
      })
      const question = form.asks.find(({ sees }) => page.has(sees))
      if (!question && page.has(form.password)) {
        last = Page.of(await this.#engine.submit(entries, form.press))
        continue
      }
      if (!question) return
      const next = await this.#engine.submit(this.entries(page, question.fills), question.press)
      last = await this.#until(Page.of(next), (one) => !one.has(question.sees))
    }
    throw new WireError('garbled', 'it asks and asks at the first sign-in')
  }

  /** A page, once all is there that is to be; where the session has ended, after signing in again. */
  async open(path: string, ready: readonly string[] = [], fields: readonly string[] = []): Promise<Page> {
    await leaving.get(this.#lane)
    const page = await this.#onceBack(path, fields)
    if (!this.#isLost(page)) return this.#ready(page, ready)
    this.forget('all')
    await this.signIn(this.credentials)
    const again = Page.of(await this.#engine.go(path))
    if (this.#isLost(again)) throw new WireError('refused', 'it ends each session at once')
    return this.#ready(again, ready)
  }

  /**
   * Some start their service again after each page that was saved: for a moment they are away, or show a page that says
   * so in the place of every other.
   * @param fields  one of them is on the page that is meant
   */
  async #onceBack(path: string, fields: readonly string[]): Promise<Page> {
    for (;;) {
      const maybeBack = Date.now() < this.#savedAt + this.#patienceMs
      try {
        const page = Page.of(await this.#engine.go(path))
        const isMeant = fields.length === 0 || this.#isLost(page) || fields.some((each) => page.has(each))
        if (isMeant || !maybeBack) return page
      } catch (error) {
        if (!(error instanceof WireError && error.kind === 'unreachable' && maybeBack)) throw error
      }
      await new Promise((resolve) => setTimeout(resolve, longestPauseMs))
    }
  }

  /** A page of settings, as it was read in this session or is now. */
  async settings(path: string, ready: readonly string[], fields: readonly string[]): Promise<Page> {
    const known = this.#read.get(path)
    if (known) return known
    const page = await this.open(path, ready, fields)
    if (this.#card.does.sessions === 'one') this.#read.set(path, page)
    return page
  }

  /** Something was saved: what was read of this page holds no more, or of all. */
  forget(path: string | 'all'): void {
    if (path === 'all') this.#read.clear()
    else this.#read.delete(path)
  }

  /** @throws WireError rejected with its words, where it was not saved */
  async save(entries: readonly Entry[], press: string): Promise<void> {
    const { saved, refused } = this.#dialect.says
    const next = Page.of(await this.#engine.submit(entries, press))
    await this.#until(next, (page) => {
      if (page.has(refused)) throw new WireError('rejected', reasonAt(page, refused, 'it did not save'))
      if (this.#isLost(page)) throw new WireError('unreachable', 'the session ended while a page was saved')
      return page.has(saved)
    })
    this.#savedAt = Date.now()
  }

  async press(entries: readonly Entry[], press: string): Promise<void> {
    const page = Page.of(await this.#engine.submit(entries, press))
    const { refused } = this.#dialect.says
    if (page.has(refused)) throw new WireError('rejected', reasonAt(page, refused, 'it would not'))
  }

  /** What a card puts into the fields of a page. */
  entries(page: Page, fills: readonly PageFill[]): Entry[] {
    return fills.map((fill): Entry => {
      if ('types' in fill) return { at: fill.at, kind: 'text', text: fill.types }
      if ('ticks' in fill) return { at: fill.at, kind: 'tick', ticked: fill.ticks }
      const { setting, ...place } = fill
      const value = (this.#desired?.unit as Readonly<Record<string, unknown>> | undefined)?.[setting]
      if (value === undefined) throw new WireError('rejected', `it asks for what nobody said: ${setting}`)
      return page.entry(setting, value, place)
    })
  }

  /** Leaves the unit, so that the next may come. */
  close(): void {
    const { signOut } = this.#dialect
    if (!this.#credentials || signOut === undefined) return this.#engine.close()
    this.#credentials = undefined
    const left = this.#engine
      .go(signOut)
      .then(
        () => undefined,
        () => undefined,
      )
      .finally(() => this.#engine.close())
    leaving.set(this.#lane, left)
  }

  /** The page on which one signs in; where it has just been opened, as it stands. */
  async #front(path: string): Promise<Seen> {
    const front = this.#fresh
    this.#fresh = undefined
    return front ?? this.#engine.go(path)
  }

  /** By the first door that opens. */
  async #enter(): Promise<Seen> {
    if (this.#entered) return this.#entered
    const { signIn } = this.#dialect
    let last: unknown
    for (const entrance of entrancesOf(this.#dialect, this.#card.factory.port)) {
      this.#engine.enter(entrance)
      try {
        this.#entered = this.#fresh = await this.#engine.go(signIn.page)
        return this.#entered
      } catch (error) {
        if (!(error instanceof WireError && error.kind === 'unreachable')) throw error
        last = error
      }
    }
    throw last
  }

  #isLost(page: Page): boolean {
    const { lost } = this.#dialect.says
    return page.status === 401 || (lost !== undefined && page.has(lost))
  }

  #ready(first: Page, selectors: readonly string[]): Promise<Page> {
    return this.#until(first, (page) => selectors.every((selector) => page.has(selector)))
  }

  /** Looks at the page that stands until it is as it is waited for. @throws WireError timeout */
  async #until(first: Page, isThere: (page: Page) => boolean): Promise<Page> {
    const end = Date.now() + this.#patienceMs
    let page = first
    for (let pause = firstPauseMs; !isThere(page); pause = Math.min(pause * 2, longestPauseMs)) {
      if (Date.now() > end) throw new WireError('timeout', `its page "${plainReason(page.title)}" did not fill in`)
      await new Promise((resolve) => setTimeout(resolve, pause))
      page = Page.of(await this.#engine.look())
    }
    return page
  }
}

function throwIfOccupied(page: Page, occupied: string | undefined): void {
  if (occupied !== undefined && page.has(occupied))
    throw new WireError('occupied', reasonAt(page, occupied, 'somebody else is signed in'))
}

const reasonAt = (page: Page, at: string, otherwise: string): string =>
  plainReason(page.text({ at }) ?? '') || otherwise
