/**
 * One signed-in session with a unit's pages: it enters by the safer door, answers what is asked at the first time,
 * signs in again where the session ended, and leaves what it opened.
 */

import type { Clear, Config } from '../../../core/config/unit-config'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { At, PageFill, Way } from '../../../core/kit/page-places'
import { entrancesOf, isScripted, type PagesDialect } from '../../../core/kit/pages-dialect'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import type { PagePicture } from '../../page-elements/picture'
import type { PinCheck } from '../../trust/pin'
import { Arrival } from './arrival'
import { type Entry, type PageEngine, placeWords, type Seen } from './engine'
import { answerFirst, signInByForm, type Turning } from './form-sign-in'
import { openEngine } from './open-engine'
import { Page } from './page'
import { throwIfRejected } from './refusals'

type PagesCard = DirectCard & { readonly dialect: PagesDialect }

/** A reply is waited for as long as on any unit; a slow one three times as long. */
const patienceMs = { usual: 8000, slow: 24_000 } as const

/**
 * A page that was opened so short a time ago, and on which nothing was done since, is not opened again: what a unit is,
 * what it does and what waits in it often stand on one page.
 */
const sameMomentMs = 100

/** Sessions that are being left, by lane: where a unit takes one at a time, the next waits for it. */
const leaving = new WeakMap<Lane, Promise<void>>()

export class PageSession {
  readonly #lane: Lane
  readonly #card: PagesCard
  readonly #desired: Config<Clear> | undefined
  readonly #engine: PageEngine
  readonly #arrival: Arrival
  #entered: Seen | undefined
  /** The same, as long as nothing else was done. */
  #fresh: Seen | undefined
  /** Pages of settings as they were read: where nobody else can be signed in, they stay so until one is saved. */
  readonly #read = new Map<string, Page>()
  /** What the unit shows now, as long as nothing is done on it; until when, ms since 1970. */
  #shown: { readonly key: string; readonly page: Page; readonly until: number } | undefined
  #credentials: Credentials | undefined
  #made: Credentials | undefined

  constructor(lane: Lane, card: PagesCard, pin: PinCheck, desired: Config<Clear> | undefined) {
    this.#lane = lane
    this.#card = card
    this.#desired = desired
    const patience = card.does.slow ? patienceMs.slow : patienceMs.usual
    this.#engine = openEngine(card.dialect, lane, pin, patience)
    this.#arrival = new Arrival(this.#engine, card.dialect, patience)
  }

  get #dialect(): PagesDialect {
    return this.#card.dialect
  }

  /** Login of this session. @throws WireError unreachable where nobody is signed in */
  get credentials(): Credentials {
    if (!this.#credentials) throw new WireError('unreachable', message('no-session-open'))
    return this.#credentials
  }

  set credentials(login: Credentials) {
    this.#credentials = login
  }

  /** What it shows to whoever comes. */
  async frontPage(): Promise<Page> {
    return Page.of(await this.#enter())
  }

  /**
   * @param toBe  the login that is made where nobody has made one yet
   * @throws WireError refused; occupied where somebody else is signed in
   */
  async signIn(login: Credentials, toBe?: Credentials): Promise<void> {
    await leaving.get(this.#lane)
    this.#shown = undefined
    const front = await this.#enter()
    // Whatever is not printed on its label goes over no wire in the clear, where the unit can do better.
    const { factory } = this.#card
    if (front.scheme === 'http' && this.#dialect.scheme === 'http-first' && login.password !== factory.login.password)
      throw new WireError('refused', message('plain-http-refused'))
    const { signIn } = this.#dialect
    this.#made = undefined
    if (signIn.by === 'form') {
      const isFactory = login.user === factory.login.user && login.password === factory.login.password
      const { says } = this.#dialect
      this.#made = await answerFirst(this.#turning, { form: signIn, says, toBe: isFactory ? toBe : undefined })
      await signInByForm(this.#turning, signIn, this.#made ?? login)
    } else {
      await this.#engine.authorize(login)
      const { status } = await this.#engine.go(signIn.page)
      if (status === 401 || status === 403) throw new WireError('refused', `sign-in refused (${status})`)
    }
    this.#credentials = this.#made ?? login
  }

  readonly #turning: Turning = {
    front: async (path, as) => {
      const front = (as === 'anew' ? undefined : this.#fresh) ?? (await this.#engine.go(path))
      if (as !== 'looked-at') this.#fresh = as === 'anew' ? front : undefined
      return Page.of(front)
    },
    submit: async (entries, press) => Page.of(await this.#engine.submit(entries, press)),
    settled: async () => Page.of(await this.#engine.settled()),
    until: (first, isThere) => this.#arrival.until(first, isThere),
    entries: (page, fills, toBe) => this.entries(page, fills, toBe),
  }

  /** The login that was made at the last sign-in; undefined where it had one. */
  get made(): Credentials | undefined {
    return this.#made
  }

  /**
   * A page, once all is there that is to be; where the session has ended, after signing in again.
   * @param fields  one of them is on the page that is meant
   */
  async open(to: Way | string, ready: readonly At[] = [], fields: readonly At[] = []): Promise<Page> {
    await leaving.get(this.#lane)
    const way = typeof to === 'string' ? { path: to, reach: [] } : to
    const key = wayKey(way)
    const shown = this.#shown
    this.#shown = undefined
    const isShown = shown?.key === key && Date.now() < shown.until && ready.every((each) => shown.page.has(each))
    const fetched = isShown ? undefined : await this.#fetched(way, ready, fields)
    const page = isShown ? shown.page : (fetched ?? (await this.#opened(way, ready, fields)))
    this.#shown = isShown ? shown : { key, page, until: Date.now() + sameMomentMs }
    return page
  }

  /** Undefined where it is drawn by a script, or is not as it is meant: opened, it may be. */
  async #fetched({ path, reach }: Way, ready: readonly At[], fields: readonly At[]): Promise<Page | undefined> {
    if (reach.length > 0 || isScripted(this.#dialect, path)) return undefined
    const seen = await this.#engine.fetch?.(path)
    const page = seen && (await Page.of(seen))
    if (!page || this.#arrival.isLost(page) || !ready.every((each) => page.has(each))) return undefined
    return fields.length === 0 || fields.some((each) => page.has(each)) ? page : undefined
  }

  async #opened({ path, reach }: Way, ready: readonly At[], fields: readonly At[]): Promise<Page> {
    const page = await this.#arrival.at(path, reach, ready, fields)
    if (!this.#arrival.isLost(page)) return page
    this.forget('all')
    await this.signIn(this.credentials)
    const again = await this.#arrival.at(path, reach, ready, fields)
    if (this.#arrival.isLost(again)) throw new WireError('refused', message('ends-each-session'))
    return again
  }

  /** A page of settings, as it was read in this session or is now. */
  async settings(way: Way, ready: readonly At[], fields: readonly At[]): Promise<Page> {
    const key = wayKey(way)
    const known = this.#read.get(key)
    if (known) return known
    const page = await this.open(way, ready, fields)
    if (this.#card.does.sessions === 'one') this.#read.set(key, page)
    return page
  }

  /** Something was saved: what was read of this page holds no more, or of all. */
  forget(way: Way | 'all'): void {
    if (way === 'all') this.#read.clear()
    else this.#read.delete(wayKey(way))
  }

  /** Presses something of the page that stands, and says how the page is then. */
  async turn(at: At, isThere: (page: Page) => boolean): Promise<Page> {
    this.#shown = undefined
    return this.#arrival.until(await Page.of(await this.#engine.submit([], at)), isThere)
  }

  /** @throws WireError rejected with its words, where it was not saved */
  async save(entries: readonly Entry[], { press, confirms, saved, savedWhenGone }: Saves): Promise<void> {
    this.#shown = undefined
    const { says } = this.#dialect
    const said = saved ?? (savedWhenGone === undefined ? says.saved : undefined)
    const isQuiet = said === undefined && savedWhenGone === undefined
    const isSaid = (one: Page): boolean =>
      said === undefined ? savedWhenGone === undefined || !one.has(savedWhenGone) : one.has(said)
    const sent = async (values: readonly Entry[], at: At | undefined): Promise<Page> => {
      const seen = await this.#engine.submit(values, at)
      return Page.of(isQuiet ? await this.#engine.settled() : seen)
    }
    let page = await sent(entries, press)
    const asked = new Set<At>()
    for (;;) {
      const open = confirms.filter((each) => !asked.has(each))
      page = await this.#arrival.until(page, (one) => {
        throwIfRejected(one, says.refused, message('did-not-save'))
        if (this.#arrival.isLost(one)) throw new WireError('unreachable', message('session-ended-saving'))
        return open.some((each) => one.has(each)) || isSaid(one)
      })
      const confirm = open.find((each) => page.has(each))
      if (confirm === undefined) break
      asked.add(confirm)
      page = await sent([], confirm)
    }
    this.#arrival.savedAt = Date.now()
  }

  /** Whether more of a page may appear when some of it is filled in. */
  get showsMore(): boolean {
    return this.#dialect.engine === 'browser'
  }

  /** Fills in a part of the page that stands. @returns the page once it is as it is waited for, or as it is then */
  put(entries: readonly Entry[], isThere: (page: Page) => boolean): Promise<Page> {
    this.#shown = undefined
    return this.#arrival.put(entries, isThere)
  }

  async press(entries: readonly Entry[], { press, confirms }: Pressing): Promise<void> {
    this.#shown = undefined
    let page = await Page.of(await this.#engine.submit(entries, press))
    for (const confirm of confirms) {
      await this.#arrival.until(page, (one) => one.has(confirm))
      page = await Page.of(await this.#engine.submit([], confirm))
    }
    throwIfRejected(page, this.#dialect.says.refused, message('would-not'))
  }

  /** What a card puts into the fields of a page. @param toBe  the login that is being made */
  entries(page: Page, fills: readonly PageFill[], toBe?: Credentials): Entry[] {
    return fills.map((fill): Entry => {
      if ('types' in fill) return page.plainEntry(fill.at, fill.types)
      if ('ticks' in fill) return { at: fill.at, kind: 'tick', ticked: fill.ticks }
      const { setting, ...place } = fill
      if (toBe && setting === 'admin.user') return { at: fill.at, kind: 'text', text: toBe.user }
      if (toBe && setting === 'admin.password') return { at: fill.at, kind: 'text', text: toBe.password }
      const value = (this.#desired?.unit as Readonly<Record<string, unknown>> | undefined)?.[setting]
      if (value === undefined) throw new WireError('rejected', message('asks-unknown', { setting }))
      return page.entry(setting, value, place)
    })
  }

  /** Undefined where nothing draws its pages. */
  async picture(secrets: readonly string[]): Promise<PagePicture | undefined> {
    return this.#engine.picture?.(secrets)
  }

  /** Leaves the unit, so that the next may come. */
  close(): void {
    const { signOut } = this.#dialect
    if (!this.#credentials || signOut === undefined) return this.#engine.close()
    this.#credentials = undefined
    const left = this.#leave(signOut).finally(() => this.#engine.close())
    leaving.set(this.#lane, left)
  }

  async #leave(signOut: string): Promise<void> {
    try {
      const isPlain = !isScripted(this.#dialect, signOut)
      if (!isPlain || !(await this.#engine.fetch?.(signOut))) await this.#engine.go(signOut)
    } catch {
      // It is gone, and so is its session.
    }
  }

  /** By the first door that opens. */
  async #enter(): Promise<Seen> {
    if (this.#entered) return this.#entered
    const { signIn } = this.#dialect
    let last: unknown
    for (const entrance of entrancesOf(this.#dialect, this.#card.factory.port)) {
      this.#engine.enter(entrance)
      try {
        // A door that is shut is found by a connection: a browser draws a page of its own that says so.
        ;(await this.#lane.connect(entrance.port)).destroy()
        this.#entered = this.#fresh = await this.#engine.go(signIn.page)
        return this.#entered
      } catch (error) {
        if (!(error instanceof WireError && error.kind === 'unreachable')) throw error
        last = error
      }
    }
    throw last
  }
}

/** How something is saved: what is pressed, what may ask back, and how it is known to have been taken. */
export interface Saves {
  /** Undefined where each field is saved as it is left. */
  readonly press?: At | undefined
  readonly confirms: readonly At[]
  readonly saved?: At | undefined
  readonly savedWhenGone?: At | undefined
}

export interface Pressing {
  readonly press: At
  readonly confirms: readonly At[]
}

const wayKey = ({ path, reach }: Way): string => [path, ...reach.map(placeWords)].join(' > ')
