/**
 * Debian's Chromium, one for all units of a runner: started when the first page is turned, ended when nobody has
 * turned one for a while. Each unit has a context of its own behind a proxy of its own; without one there is no way
 * out of it.
 */
import { existsSync } from 'node:fs'
import { type Browser, type BrowserContext, launch } from 'puppeteer-core'
import { WireError } from '../../wire-error'

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
  // Each host has its own context already; a page that was left is not kept.
  '--disable-features=BackForwardCache,PaintHolding,IsolateOrigins,site-per-process,Translate,OptimizationHints',
  '--disable-site-isolation-trials',
  '--blink-settings=imagesEnabled=false',
  // Nothing is looked up and nothing is reached but through the proxy of a context.
  '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1',
  '--proxy-server=http://127.0.0.1:9',
  '--proxy-bypass-list=<-loopback>',
  '--force-webrtc-ip-handling-policy=disable_non_proxied_udp',
]

let running: Promise<Browser> | undefined
let contexts = 0
let idle: NodeJS.Timeout | undefined

function browser(): Promise<Browser> {
  const program = programs.find((each) => existsSync(each))
  if (!program) throw new WireError('lacking', 'Chromium, in which this model’s pages are turned')
  // Its sandbox does not run as root.
  const args = process.getuid?.() === 0 ? [...quiet, '--no-sandbox'] : quiet
  // Over a pipe: whatever ends this process ends the browser.
  running ??= launch({
    executablePath: program,
    headless: program === programs[0] ? 'shell' : true,
    acceptInsecureCerts: true,
    pipe: true,
    args,
  }).then((started) => {
    started.once('disconnected', () => {
      running = undefined
    })
    return started
  })
  running.catch(() => {
    running = undefined
  })
  return running
}

/** @param proxy  the one way out of it @throws WireError lacking, unreachable */
export async function browserContext(proxy: string): Promise<BrowserContext> {
  clearTimeout(idle)
  contexts += 1
  try {
    const started = await browser()
    return await started.createBrowserContext({ proxyServer: proxy, proxyBypassList: ['<-loopback>'] })
  } catch (cause) {
    release()
    if (cause instanceof WireError) throw cause
    throw new WireError('lacking', 'a browser that starts', { cause })
  }
}

export async function closeContext(context: BrowserContext): Promise<void> {
  await context.close().catch(() => undefined)
  release()
}

function release(): void {
  contexts -= 1
  if (contexts > 0) return
  idle = setTimeout(() => void endBrowser(), idleMs)
  idle.unref()
}

/** Ends it, where nobody has a page open in it. */
export async function endBrowser(): Promise<void> {
  if (contexts > 0 || !running) return
  const ending = running
  running = undefined
  await (await ending).close().catch(() => undefined)
}
