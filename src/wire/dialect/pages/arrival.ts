/**
 * Waits until a page is as it is meant: some are drawn bit by bit, come back after a while, or say that a session
 * ended.
 */

import type { At } from '../../../core/kit/page-places'
import { describesElements, type PagesDialect } from '../../../core/kit/pages-dialect'
import { message } from '../../../core/message/message'
import { plainReason, WireError } from '../../errors/wire-error'
import type { Entry, PageEngine } from './engine'
import { Page } from './page'

const firstPauseMs = 20
const longestPauseMs = 250
/** A page that tells when it changes is looked at so seldom while it does not. */
const quietMs = 500
/** A page stands when so many looks after the first have seen the same. */
const looksAlike = 2
/** So long a field may take to appear once another is filled in. */
const appearsWithinMs = 2500
/** Some answer a press after a minute: what they were told takes that long. */
const turnsWithinMs = 90_000

export class Arrival {
  readonly #engine: PageEngine
  readonly #dialect: PagesDialect
  readonly #patienceMs: number
  /** When a page was saved last, ms since 1970. */
  savedAt = 0

  constructor(engine: PageEngine, dialect: PagesDialect, patienceMs: number) {
    this.#engine = engine
    this.#dialect = dialect
    this.#patienceMs = patienceMs
  }

  /** The page as it is once what is meant is there, or as it says that the session is over. */
  async at(path: string, reach: readonly At[], ready: readonly At[], fields: readonly At[]): Promise<Page> {
    let page = await this.#onceBack(path, reach.length > 0 ? reach.slice(0, 1) : fields)
    for (const at of reach) {
      page = await this.until(page, (one) => this.isLost(one) || one.has(at))
      if (this.isLost(page)) return page
      page = await Page.of(await this.#engine.submit([], at))
    }
    // What is drawn by script is not there as soon as its page is.
    const isDrawn = (one: Page): boolean => fields.every(isSelector) || fields.some((each) => one.has(each))
    const isThere = (one: Page): boolean => this.isLost(one) || (ready.every((each) => one.has(each)) && isDrawn(one))
    const there = await this.until(page, isThere)
    if (!describesElements(this.#dialect) || this.isLost(there)) return there
    if (ready.length === 0 && fields.length === 0) return this.#drawn()
    // What its fields hold may come after them, in the place of what was put in meanwhile.
    return this.until(await Page.of(await this.#engine.settled()), isThere)
  }

  /** The page once it stands: what is drawn by script has nothing for a moment, and then more and more. */
  async #drawn(): Promise<Page> {
    let [before, same] = ['', 0]
    let page: Page | undefined
    const end = Date.now() + this.#patienceMs
    while (same < looksAlike && Date.now() < end) {
      const seen = await this.#engine.look()
      page = await Page.of(seen)
      const now = JSON.stringify(seen.facts?.map(({ use, label, text }) => [use, label, text]))
      same = now === before && (seen.facts?.length ?? 0) > 0 ? same + 1 : 0
      before = now
      await rest(longestPauseMs / 2)
    }
    if (!page) throw new WireError('timeout', message('page-not-filled'))
    return page
  }

  /**
   * Some start their service again after each page that was saved: for a moment they are away, or show a page that says
   * so in the place of every other.
   */
  async #onceBack(path: string, fields: readonly At[]): Promise<Page> {
    for (;;) {
      const maybeBack = Date.now() < this.savedAt + this.#patienceMs
      try {
        const page = await Page.of(await this.#engine.go(path))
        const selected = fields.filter(isSelector)
        const isMeant = selected.length === 0 || this.isLost(page) || selected.some((each) => page.has(each))
        if (isMeant || !maybeBack) return page
      } catch (error) {
        if (!(error instanceof WireError && error.kind === 'unreachable' && maybeBack)) throw error
      }
      await rest(longestPauseMs)
    }
  }

  /** Fills in a part of the page that stands. @returns the page once it is as it is waited for, or as it is then */
  async put(entries: readonly Entry[], isThere: (page: Page) => boolean): Promise<Page> {
    const end = Date.now() + appearsWithinMs
    let page = await Page.of(await this.#engine.submit(entries, undefined))
    while (!isThere(page) && Date.now() < end) {
      await rest(firstPauseMs * 4)
      page = await Page.of(await this.#engine.look())
    }
    return page
  }

  isLost(page: Page): boolean {
    const { lost } = this.#dialect.says
    return page.status === 401 || (lost !== undefined && page.has(lost))
  }

  /** Looks at the page that stands until it is as it is waited for. @throws WireError timeout */
  async until(first: Page, isThere: (page: Page) => boolean): Promise<Page> {
    const end = Date.now() + this.#patienceMs
    let page = first
    for (let pause = firstPauseMs; !isThere(page); pause = Math.min(pause * 2, longestPauseMs)) {
      // What was pressed may take its time: the next page is on its way then.
      const isLate = Date.now() > (this.#engine.isTurning ? end + turnsWithinMs : end)
      if (isLate) throw new WireError('timeout', message('page-called-not-filled', { title: plainReason(page.title) }))
      await Promise.all([rest(pause), this.#engine.changes?.(quietMs)])
      page = await Page.of(await this.#engine.look())
    }
    return page
  }
}

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))

const isSelector = (at: At): at is string => typeof at === 'string'
