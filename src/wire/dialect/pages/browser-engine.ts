/** Turns pages in Chromium: for those that are drawn by script. Everything goes through the unit's lane. */
import { TimeoutError } from 'puppeteer-core'
import type { LaneProxy } from '../../http/lane-proxy'
import { plainReason, WireError } from '../../wire-error'
import type { Credentials } from '../dialect'
import { type Entrance, type Entry, largestPage, type PageEngine, type Seen } from './engine'
import type { EngineSettings } from './forms-engine'
import { closeTab, letGo, type OpenTab, openTab } from './tabs'

const betweenTriesMs = 30

export class BrowserEngine implements PageEngine {
  readonly #settings: EngineSettings
  #opening: Promise<OpenTab> | undefined
  /** Whether the browser itself has a login, which it forgets with its context alone. */
  #authorized = false
  #base = ''
  #status = 200
  #closed = false

  constructor(settings: EngineSettings) {
    this.#settings = settings
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
    proxy.fault = undefined
    try {
      const reply = await tab.goto(new URL(path, this.#base).href, { waitUntil: 'domcontentloaded' })
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

  async submit(entries: readonly Entry[], press: string): Promise<Seen> {
    const { tab, proxy } = await this.#open()
    proxy.fault = undefined
    this.#status = 200
    try {
      const missing = await tab.evaluate(fillIn, [...entries])
      if (missing !== undefined) throw new WireError('garbled', `there is no field ${missing} on its page`)
      if (!(await tab.evaluate(pressed, press)))
        throw new WireError('garbled', `there is no button ${press} on its page`)
    } catch (error) {
      // The press leads away before it is answered.
      if (!isBetweenPages(error)) throw this.#explained(error, proxy)
    }
    return this.look()
  }

  async look(): Promise<Seen> {
    const { tab, proxy } = await this.#open()
    const end = Date.now() + this.#settings.longestReplyMs
    for (;;)
      try {
        const html = await tab.evaluate(shownHtml, largestPage)
        if (html === 'not-yet') throw new BetweenPages()
        if (html === undefined) throw new WireError('garbled', `the page is larger than ${largestPage / 1024} KiB`)
        const url = tab.url()
        // The browser's own page that says so.
        if (url.startsWith('chrome-error:')) throw proxy.fault ?? new WireError('unreachable', 'no answer')
        return { status: this.#status, html, scheme: url.startsWith('https:') ? 'https' : 'http' }
      } catch (error) {
        if (!isBetweenPages(error) || Date.now() > end) throw this.#explained(error, proxy)
        await new Promise((resolve) => setTimeout(resolve, betweenTriesMs))
      }
  }

  close(): void {
    this.#closed = true
    const done = this.#authorized ? closeTab : letGo
    void this.#opening?.then(done, () => undefined)
    this.#opening = undefined
  }

  #open(): Promise<OpenTab> {
    if (this.#closed) throw new WireError('unreachable', 'no session is open')
    this.#opening ??= this.#started()
    return this.#opening
  }

  async #started(): Promise<OpenTab> {
    const { lane, pin, longestReplyMs } = this.#settings
    const opened = await openTab(lane, pin)
    opened.tab.setDefaultTimeout(longestReplyMs)
    return opened
  }

  #explained(error: unknown, proxy: LaneProxy): WireError {
    if (error instanceof WireError) return error
    if (proxy.fault) return proxy.fault
    const cause = error instanceof Error ? error : new Error(String(error))
    if (cause instanceof TimeoutError)
      return new WireError('timeout', `no page in ${this.#settings.longestReplyMs / 1000} s`, { cause })
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

// The three below run in the page itself.

/** Puts the entries into their fields, and tells the page of it. @returns the first that is not there */
function fillIn(entries: Entry[]): string | undefined {
  const tell = (field: Element): void => {
    for (const kind of ['input', 'change']) field.dispatchEvent(new Event(kind, { bubbles: true }))
  }
  for (const entry of entries) {
    const fields = [...document.querySelectorAll(entry.at)]
    const [first] = fields
    if (!first) return entry.at
    if (entry.kind === 'tick') {
      if (first instanceof HTMLInputElement && first.checked !== entry.ticked) first.click()
    } else if (first instanceof HTMLInputElement && first.type === 'radio') {
      const chosen = fields.find((each) => each instanceof HTMLInputElement && each.value === entry.text)
      if (chosen instanceof HTMLInputElement && !chosen.checked) chosen.click()
    } else {
      // A page that keeps its own copy of a value listens to the element's own setter.
      const kind =
        first instanceof HTMLSelectElement
          ? HTMLSelectElement
          : first instanceof HTMLTextAreaElement
            ? HTMLTextAreaElement
            : HTMLInputElement
      Object.getOwnPropertyDescriptor(kind.prototype, 'value')?.set?.call(first, entry.text)
      tell(first)
    }
  }
  return undefined
}

function pressed(selector: string): boolean {
  const button = document.querySelector(selector)
  if (!(button instanceof HTMLElement)) return false
  button.click()
  return true
}

/** The page with the state of its fields in its attributes; undefined where it is too large. */
function shownHtml(most: number): string | undefined | 'not-yet' {
  // One page has gone, and the next has no root yet.
  if (!document.documentElement) return 'not-yet'
  const copy = document.documentElement.cloneNode(true)
  if (!(copy instanceof Element)) return ''
  const all = (root: Element): Element[] => [...root.querySelectorAll('input, option, textarea')]
  const copies = all(copy)
  for (const [index, field] of all(document.documentElement).entries()) {
    const twin = copies[index]
    if (field instanceof HTMLInputElement) {
      twin?.setAttribute('value', field.value)
      twin?.toggleAttribute('checked', field.checked)
    } else if (field instanceof HTMLOptionElement) twin?.toggleAttribute('selected', field.selected)
    else if (field instanceof HTMLTextAreaElement && twin) twin.textContent = field.value
  }
  for (const script of copy.querySelectorAll('script, style')) script.remove()
  const html = copy.outerHTML
  return html.length > most ? undefined : html
}
