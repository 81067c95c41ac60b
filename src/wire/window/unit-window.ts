/**
 * The window on a unit's own pages: Chromium turns them through the unit's lane, its pictures go out as they change,
 * and what hands do comes in. What no picture shows is told: choices of a list, dialogs, a login that HTTP asks for.
 *
 * In: a lane, a pin, the door of the pages, hands. Out: JPEG pictures of `windowSize`, and `Told`.
 */
import type { BrowserContext, CDPSession, Dialog, Page } from 'puppeteer-core'
import { z } from 'zod'
import { jsonIn } from '../../core/input/json'
import { type Hand, optionSchema, type Told, type WindowClosed, windowSize } from '../../core/showing/window-talk'
import { browserContext, closeContext } from '../chromium'
import type { Lane } from '../host/host'
import { LaneProxy } from '../http/lane-proxy'
import type { PinCheck } from '../trust/pin'
import { plainReason, WireError } from '../wire-error'
import { choicesBinding, tellChoices } from './page-choices'
import { sendInput } from './page-input'

export interface WindowDoor {
  readonly scheme: 'http' | 'https'
  readonly port: number
}

export interface Onlooker {
  /** @returns once it can take another: pictures come as fast as the slowest takes them */
  picture(jpeg: Buffer): Promise<void> | void
  told(told: Told): void
}

type PageHand = Exclude<Hand, { kind: 'put-in' }>
/** Hands that a page may wait for. */
const answers: ReadonlySet<Hand['kind']> = new Set(['answer', 'choose', 'login', 'go', 'back', 'reload'])
const mostHeld = 500
const pictureQuality = 80
const longestTextChars = 4000
const choicesTold = z.object({
  number: z.int().min(1),
  multiple: z.boolean(),
  options: z.array(optionSchema).max(5000),
  x: z.number(),
  y: z.number(),
  width: z.number(),
})

/** Something that the page waits for. */
type Open =
  | { readonly of: 'dialog'; readonly dialog: Dialog }
  | { readonly of: 'choices'; readonly context: number; readonly number: number; readonly session: CDPSession }
  | { readonly of: 'login'; readonly request: string; readonly session: CDPSession }

export class UnitWindow {
  readonly #lane: Lane
  readonly #proxy: LaneProxy
  readonly #context: BrowserContext
  readonly #door: WindowDoor
  readonly #onlookers = new Set<Onlooker>()
  readonly #open = new Map<number, Open>()
  #questions = 0
  #page: Page | undefined
  #session: CDPSession | undefined
  #lastPicture: Buffer | undefined
  /** What somebody who begins to look has to be told. */
  #standing = new Map<string, Told>()
  #isClosed = false
  /** Hands that wait until a choice is made. */
  #held: PageHand[] | undefined

  private constructor(lane: Lane, proxy: LaneProxy, context: BrowserContext, door: WindowDoor) {
    this.#lane = lane
    this.#proxy = proxy
    this.#context = context
    this.#door = door
  }

  /** @throws WireError lacking, unreachable */
  static async open(lane: Lane, pin: PinCheck, door: WindowDoor): Promise<UnitWindow> {
    const proxy = await LaneProxy.open(lane, pin)
    let context: BrowserContext | undefined
    try {
      context = await browserContext(proxy.url, 'seen')
      const window = new UnitWindow(lane, proxy, context, door)
      await window.#show(await context.newPage())
      context.on('targetcreated', (target) => void window.#another(target.page()))
      window.#go(window.#home)
      return window
    } catch (error) {
      if (context) await closeContext(context, 'seen')
      proxy.close()
      if (error instanceof WireError) throw error
      throw new WireError('unreachable', plainReason(String(error).split('\n')[0] ?? ''), { cause: error })
    }
  }

  get #home(): string {
    return `${this.#door.scheme}://${this.#lane.address}:${this.#door.port}/`
  }

  /** Pictures and words from now on, and how it stands. @returns the way to look no more */
  watch(onlooker: Onlooker): () => void {
    this.#onlookers.add(onlooker)
    for (const told of this.#standing.values()) onlooker.told(told)
    if (this.#lastPicture) void onlooker.picture(this.#lastPicture)
    return () => this.#onlookers.delete(onlooker)
  }

  tell(told: Told): void {
    if (told.kind === 'at') this.#standing.delete('failed')
    if (told.kind === 'at' || told.kind === 'failed') this.#standing.set(told.kind, told)
    if ('question' in told) {
      if (told.kind === 'settled') this.#standing.delete(`${told.question}`)
      else this.#standing.set(`${told.question}`, told)
    }
    for (const onlooker of this.#onlookers) onlooker.told(told)
  }

  /**
   * In the order in which they come. None waits for the one before, since a press may open a dialog that has to be
   * answered; but what is chosen from a list is chosen before anything is pressed.
   */
  act(hand: PageHand): void {
    if (this.#isClosed) return
    if (this.#held && !answers.has(hand.kind)) {
      if (this.#held.length < mostHeld) this.#held.push(hand)
      return
    }
    const quietly = (sent: Promise<unknown> | undefined): void => void sent?.catch(() => undefined)
    switch (hand.kind) {
      case 'pointer':
      case 'wheel':
      case 'key':
      case 'text':
        return quietly(this.#session && sendInput(this.#session, hand))
      case 'go':
        return this.#go(this.#within(hand.address))
      case 'back':
        return quietly(this.#page?.goBack())
      case 'reload':
        return quietly(this.#page?.reload())
      case 'answer':
      case 'choose':
      case 'login':
        return quietly(this.#answer(hand))
    }
  }

  async close(why: WindowClosed): Promise<void> {
    if (this.#isClosed) return
    this.#isClosed = true
    this.tell({ kind: 'closed', why })
    this.#onlookers.clear()
    await closeContext(this.#context, 'seen')
    this.#proxy.close()
  }

  /** An address of this unit: what is typed without a host is a path. Undefined where it is of another host. */
  #within(address: string): string | undefined {
    const url = URL.canParse(address, this.#home) ? new URL(address, this.#home) : undefined
    const isOurs = url?.hostname === this.#lane.address && (url.protocol === 'http:' || url.protocol === 'https:')
    return isOurs ? url.href : undefined
  }

  #go(address: string | undefined): void {
    if (address === undefined)
      return this.tell({ kind: 'failed', code: 'elsewhere', reason: 'a window shows this unit alone' })
    this.#proxy.fault = undefined
    this.#session
      ?.send('Page.navigate', { url: address })
      .then(({ errorText }) => errorText !== undefined && this.#failed(errorText))
      .catch((error: unknown) => this.#failed(error))
  }

  #failed(error: unknown): void {
    if (this.#isClosed) return
    const { fault } = this.#proxy
    const text = error instanceof Error ? error.message : String(error)
    // Another address was gone to meanwhile, or what came is a file that is kept.
    if (!fault && /ERR_ABORTED|frame was detached|Target closed/i.test(text)) return
    const reason = plainReason(fault?.reason ?? text.split('\n')[0] ?? '').slice(0, longestTextChars)
    this.tell({ kind: 'failed', code: fault?.kind === 'untrusted' ? 'untrusted' : 'unreachable', reason })
  }

  /** A page that the one before has opened is shown in its place, until it is closed. */
  async #another(opening: Promise<Page | null>): Promise<void> {
    const page = await opening.catch(() => null)
    const before = this.#page
    if (!page || page === before || this.#isClosed) return
    page.once('close', () => {
      if (before && !before.isClosed() && !this.#isClosed) this.#show(before).catch(() => undefined)
    })
    await this.#show(page).catch(() => undefined)
  }

  async #show(page: Page): Promise<void> {
    await this.#session?.send('Page.stopScreencast').catch(() => undefined)
    this.#page = page
    const session = await page.createCDPSession()
    await session.send('Emulation.setDeviceMetricsOverride', { ...windowSize, deviceScaleFactor: 1, mobile: false })
    this.#session = session
    session.on('Page.screencastFrame', ({ data, sessionId }) => void this.#picture(session, data, sessionId))
    session.on('Page.javascriptDialogClosed', () => this.#settleAll('dialog'))
    session.on('Page.frameNavigated', ({ frame }) => {
      if (frame.parentId !== undefined) return
      this.#settleAll('choices')
      void this.#arrived(page)
    })
    // What it is called is known when its head is there, or when a script says so.
    for (const moment of ['Page.domContentEventFired', 'Page.loadEventFired', 'Page.navigatedWithinDocument'] as const)
      session.on(moment, () => void this.#arrived(page))
    session.on('Runtime.bindingCalled', ({ name, payload, executionContextId }) => {
      if (name === choicesBinding) this.#choices(session, executionContextId, payload)
    })
    session.on('Fetch.requestPaused', ({ requestId }) => {
      session.send('Fetch.continueRequest', { requestId }).catch(() => undefined)
    })
    session.on('Fetch.authRequired', ({ requestId, authChallenge }) => {
      const realm = authChallenge.realm.slice(0, longestTextChars)
      this.#ask({ of: 'login', request: requestId, session }, (question) => ({ kind: 'wants-login', question, realm }))
    })
    page.on('dialog', (dialog) => this.#dialog(dialog))
    session.on('Page.fileChooserOpened', () => this.tell({ kind: 'cannot', what: 'give-file', name: '' }))
    session.on('Page.downloadWillBegin', ({ suggestedFilename }) =>
      this.tell({ kind: 'cannot', what: 'keep-download', name: suggestedFilename.slice(0, 300) }),
    )
    await session.send('Page.enable')
    await session.send('Page.setInterceptFileChooserDialog', { enabled: true })
    await session.send('Page.setDownloadBehavior', { behavior: 'deny' })
    await session.send('Runtime.enable')
    await session.send('Runtime.addBinding', { name: choicesBinding })
    await page.evaluateOnNewDocument(tellChoices, choicesBinding)
    await session.send('Fetch.enable', { handleAuthRequests: true })
    await session.send('Page.startScreencast', {
      format: 'jpeg',
      quality: pictureQuality,
      maxWidth: windowSize.width,
      maxHeight: windowSize.height,
      everyNthFrame: 1,
    })
    // A page that another has opened may be there already.
    page.evaluate(tellChoices, choicesBinding).catch(() => undefined)
    void this.#arrived(page)
  }

  async #picture(session: CDPSession, data: string, sessionId: number): Promise<void> {
    const jpeg = Buffer.from(data, 'base64')
    this.#lastPicture = jpeg
    await Promise.all([...this.#onlookers].map((onlooker) => onlooker.picture(jpeg)))
    await session.send('Page.screencastFrameAck', { sessionId }).catch(() => undefined)
  }

  async #arrived(page: Page): Promise<void> {
    const title = await page.title().catch(() => '')
    const address = page.url().slice(0, longestTextChars)
    // The browser's own page for what could not be had.
    if (/^(chrome-error:|about:)/.test(address) || page !== this.#page) return
    const at: Told = { kind: 'at', address, title: title.slice(0, 300) }
    if (JSON.stringify(at) !== JSON.stringify(this.#standing.get('at'))) this.tell(at)
  }

  #ask(open: Open, told: (question: number) => Told): void {
    this.#questions += 1
    this.#open.set(this.#questions, open)
    this.tell(told(this.#questions))
  }

  #dialog(dialog: Dialog): void {
    const kind = dialog.type()
    const of = kind === 'beforeunload' ? 'leave' : kind
    const words = dialog.message().slice(0, longestTextChars)
    const preset = dialog.defaultValue().slice(0, longestTextChars)
    this.#ask({ of: 'dialog', dialog }, (question) => ({
      ...{ kind: 'asks', question, of, words },
      ...(of === 'prompt' ? { preset } : {}),
    }))
  }

  #choices(session: CDPSession, context: number, payload: string): void {
    const parsed = choicesTold.safeParse(jsonIn(payload))
    if (!parsed.success) return
    this.#settleAll('choices')
    const { number, multiple, options, x, y, width } = parsed.data
    const within = (value: number, most: number): number => Math.min(most, Math.max(0, value))
    this.#ask({ of: 'choices', context, number, session }, (question) => ({
      ...{ kind: 'choices', question, multiple, options },
      x: within(x, windowSize.width),
      y: within(y, windowSize.height),
      width: within(width, windowSize.width),
    }))
  }

  async #answer(hand: Extract<Hand, { kind: 'answer' | 'choose' | 'login' }>): Promise<void> {
    const open = this.#open.get(hand.question)
    if (!open) return
    this.#open.delete(hand.question)
    this.tell({ kind: 'settled', question: hand.question })
    if (open.of === 'dialog' && hand.kind === 'answer')
      await (hand.says === 'yes' ? open.dialog.accept(hand.text) : open.dialog.dismiss())
    if (open.of === 'choices' && hand.kind === 'choose') {
      const expression = `globalThis.${choicesBinding}Chosen?.(${open.number}, ${JSON.stringify(hand.options)})`
      this.#held = []
      const chosen = open.session.send('Runtime.evaluate', { expression, contextId: open.context })
      await chosen.finally(() => {
        const held = this.#held ?? []
        this.#held = undefined
        for (const each of held) this.act(each)
      })
    }
    if (open.of === 'login')
      await open.session.send('Fetch.continueWithAuth', {
        requestId: open.request,
        authChallengeResponse:
          hand.kind === 'login'
            ? { response: 'ProvideCredentials', username: hand.user, password: hand.password }
            : { response: 'CancelAuth' },
      })
  }

  /** The page waits no more: it was left, or answered by itself. */
  #settleAll(of: Open['of']): void {
    for (const [question, open] of this.#open) {
      if (open.of !== of) continue
      this.#open.delete(question)
      this.tell({ kind: 'settled', question })
    }
  }
}
