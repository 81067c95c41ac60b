/**
 * Debian's Chromium, two for all units of a runner: one in which musters turn pages that nobody looks at, and one whose
 * pages people see. Each is started when the first page is turned, and ended when nobody has turned one for a while.
 * Each unit has a context of its own behind a proxy of its own; without one there is no way out of it.
 */

import { existsSync } from 'node:fs'
import { type Browser, type BrowserContext, launch } from 'puppeteer-core'
import { message } from '../../core/message/message'
import { WireError } from '../errors/wire-error'

/** The one without windows first: it does a page with a third less of work. */
const programs = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'] as const
const idleMs = 10_000

const quiet = [
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-dev-shm-usage',
  '--disable-extensions',
  '--mute-audio',
  // Many tabs are worked at once, and none of them is looked at.
  '--disable-background-timer-throttling',
  '--disable-backgrounding-occluded-windows',
  '--disable-renderer-backgrounding',
  // Each host has its own context already. A page that was left is not kept, and the next one takes over its frame: a
  // new frame for each page costs a third of the work of turning it.
  `--disable-features=${[
    'BackForwardCache',
    'PaintHolding',
    'IsolateOrigins',
    'site-per-process',
    'Translate',
    'OptimizationHints',
    'RenderDocument',
    'ProactivelySwapBrowsingInstance',
    'SpareRendererForSitePerProcess',
  ].join(',')}`,
  '--disable-site-isolation-trials',
  // Nothing is looked up and nothing is reached but through the proxy of a context.
  '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1',
  '--proxy-server=http://127.0.0.1:9',
  '--proxy-bypass-list=<-loopback>',
  '--force-webrtc-ip-handling-policy=disable_non_proxied_udp',
]

/** `unseen` leaves pictures out: nobody looks at them. */
export type Purpose = 'unseen' | 'seen'
const more: Readonly<Record<Purpose, readonly string[]>> = {
  unseen: ['--blink-settings=imagesEnabled=false'],
  seen: [],
}

/** Browsers that are started for one context, before it is said that none starts. */
const mostStarts = 3

class OneBrowser {
  #running: Promise<Browser> | undefined
  #contexts = 0
  #idle: NodeJS.Timeout | undefined

  constructor(readonly purpose: Purpose) {}

  #browser(): Promise<Browser> {
    if (this.#running) return this.#running
    const program = programs.find((each) => existsSync(each))
    if (!program) return Promise.reject(new WireError('lacking', message('needs-chromium')))
    // Its sandbox does not run as root.
    const args = [...quiet, ...more[this.purpose], ...(process.getuid?.() === 0 ? ['--no-sandbox'] : [])]
    // Over a pipe: whatever ends this process ends the browser.
    const starting = launch({
      executablePath: program,
      headless: program === programs[0] ? 'shell' : true,
      acceptInsecureCerts: true,
      // Whoever shows a page says how large it is.
      ...(this.purpose === 'seen' ? { defaultViewport: null } : {}),
      pipe: true,
      args,
    })
    this.#running = starting
    const forget = (): void => this.#forget(starting)
    starting.then((started) => void started.once('disconnected', forget), forget)
    return starting
  }

  /** The next who asks starts another. */
  #forget(gone: Promise<Browser>): void {
    if (this.#running === gone) this.#running = undefined
  }

  async context(proxy: string): Promise<BrowserContext> {
    clearTimeout(this.#idle)
    this.#contexts += 1
    for (let tried = 1; ; tried += 1) {
      const starting = this.#browser()
      try {
        const started = await starting
        return await started.createBrowserContext({ proxyServer: proxy, proxyBypassList: ['<-loopback>'] })
      } catch (cause) {
        // One that was killed as it started, or since, is no fault of this laptop: the next may live.
        if (!(cause instanceof WireError) && tried < mostStarts) {
          this.#forget(starting)
          continue
        }
        this.release()
        if (cause instanceof WireError) throw cause
        throw new WireError('lacking', message('needs-starting-browser'), { cause })
      }
    }
  }

  release(): void {
    this.#contexts -= 1
    if (this.#contexts > 0) return
    this.#idle = setTimeout(() => void this.end(), idleMs)
    this.#idle.unref()
  }

  async end(): Promise<void> {
    if (this.#contexts > 0 || !this.#running) return
    const ending = this.#running
    this.#running = undefined
    await (await ending).close().catch(() => undefined)
  }
}

const browsers: Readonly<Record<Purpose, OneBrowser>> = {
  unseen: new OneBrowser('unseen'),
  seen: new OneBrowser('seen'),
}

/** @param proxy  the one way out of it @throws WireError lacking, unreachable */
export function browserContext(proxy: string, purpose: Purpose = 'unseen'): Promise<BrowserContext> {
  return browsers[purpose].context(proxy)
}

export async function closeContext(context: BrowserContext, purpose: Purpose = 'unseen'): Promise<void> {
  await context.close().catch(() => undefined)
  browsers[purpose].release()
}

/** Ends them, where nobody has a page open in them. */
export async function endBrowser(): Promise<void> {
  await Promise.all(Object.values(browsers).map((browser) => browser.end()))
}
