/**
 * Tabs of Chromium, each in a context of its own behind the proxy of one lane. A muster signs in to a unit several
 * times: a tab that was let go is taken up by the next session over the same lane, with nothing left in it of the one
 * before.
 */
import type { BrowserContext, Page as Tab } from 'puppeteer-core'
import { browserContext, closeContext } from '../../browser/chromium'
import { BrowserGoneError, plainReason, WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import { LaneProxy } from '../../http/lane-proxy'
import type { PinCheck } from '../../trust/pin'
import { Traffic } from './traffic'

export interface OpenTab {
  readonly lane: Lane
  readonly pin: PinCheck
  readonly proxy: LaneProxy
  readonly context: BrowserContext
  readonly tab: Tab
  readonly traffic: Traffic
}

/** So long a tab waits for the next session. */
const restsMs = 3000
/** Tabs that were let go; undefined where one could not be made clean. */
const resting = new Map<Lane, Promise<OpenTab | undefined>>()

/** @throws WireError lacking, unreachable */
export async function openTab(lane: Lane, pin: PinCheck): Promise<OpenTab> {
  const rested = resting.get(lane)
  resting.delete(lane)
  const opened = await rested
  if (opened && opened.pin === pin && !opened.tab.isClosed()) return opened
  if (opened) await closeTab(opened)
  const proxy = await LaneProxy.open(lane, pin)
  let context: BrowserContext | undefined
  try {
    context = await browserContext(proxy.url)
    const tab = await context.newPage()
    // A field is entered and left also where no window shows it.
    await tab.emulateFocusedPage(true)
    // It asks "are you sure?": yes.
    tab.on('dialog', (dialog) => void dialog.accept().catch(() => undefined))
    return { lane, pin, proxy, context, tab, traffic: new Traffic(tab) }
  } catch (error) {
    const isGone = context?.browser().connected === false
    if (context) await closeContext(context)
    proxy.close()
    if (isGone) throw new BrowserGoneError(error)
    if (error instanceof WireError) throw error
    throw new WireError('unreachable', plainReason(String(error).split('\n')[0] ?? ''), { cause: error })
  }
}

/** Nobody works in it any more: it waits for the next session. */
export function letGo(opened: OpenTab): void {
  const { lane } = opened
  if (resting.has(lane)) return void closeTab(opened)
  const clean = cleaned(opened)
  resting.set(lane, clean)
  const late = setTimeout(() => {
    if (resting.get(lane) !== clean) return
    resting.delete(lane)
    void clean.then((tab) => tab && closeTab(tab))
  }, restsMs)
  late.unref()
}

/** Whoever signed in is forgotten: cookies, storage, caches, workers; then the page itself, so that nothing goes on. */
async function cleaned(opened: OpenTab): Promise<OpenTab | undefined> {
  const { tab } = opened
  try {
    const { origin } = new URL(tab.url())
    const session = await tab.createCDPSession()
    await session.send('Network.clearBrowserCookies')
    // What a page keeps for its tab alone is of no origin's storage.
    await tab.evaluate(() => sessionStorage.clear()).catch(() => undefined)
    if (origin !== 'null') await session.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' })
    await session.detach()
    await tab.goto('about:blank')
    return opened
  } catch {
    await closeTab(opened)
    return undefined
  }
}

export async function closeTab({ context, proxy }: OpenTab): Promise<void> {
  await closeContext(context)
  proxy.close()
}
