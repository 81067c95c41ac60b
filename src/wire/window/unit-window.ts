/**
 * The window on a unit's own pages: Chromium turns them through the unit's lane, its pictures go out as they change,
 * and what hands do comes in. What no picture shows is told: choices of a list, dialogs, a login that HTTP asks for.
 *
 * In: a lane, a pin, the door of the pages, hands. Out: JPEG pictures of `windowSize`, and `Told`.
 */

import type { BrowserContext, CDPSession, Page } from 'puppeteer-core'
import { jsonIn } from '../../core/input/json'
import type { Described } from '../../core/kit/page-element'
import { asText, messageText } from '../../core/message/message'
import { type Noted, notedSchema, type ProtocolLogin, protocolLogins } from '../../core/showing/noted'
import { type Hand, type Told, type WindowClosed, windowSize } from '../../core/showing/window-talk'
import { browserContext, closeContext } from '../browser/chromium'
import { OutdatedError, plainReason, WireError } from '../errors/wire-error'
import type { Lane } from '../host/host'
import { LaneProxy } from '../http/lane-proxy'
import type { PinCheck } from '../trust/pin'
import { type Box, beginNoting, placeOn } from './noting'
import { type Onlooker, Onlookers } from './onlookers'
import type { UnitHand, WindowOnUnit } from './open-window'
import { choicesBinding, tellChoices } from './page-choices'
import { type KeepFile, type PageFile, PageFiles } from './page-files'
import { handsBinding } from './page-hands'
import { sendInput } from './page-input'
import { longestTextChars, PageQuestions } from './page-questions'

/** A frame loses the listeners of the empty page that it begins with: whoever is told twice tells once. */
function tellInFrames(page: Page): void {
  for (const frame of page.frames()) frame.evaluate(tellChoices, choicesBinding).catch(() => undefined)
}

export interface WindowDoor {
  readonly scheme: 'http' | 'https'
  readonly port: number
}

/** Hands that a page may wait for. */
const answers: ReadonlySet<Hand['kind']> = new Set(['answer', 'choose', 'login', 'go', 'back', 'reload'])
const mostHeld = 500
const pictureQuality = 80
/** Of the modifiers of a hand. */
const controlKey = 2

export class UnitWindow implements WindowOnUnit {
  readonly #lane: Lane
  readonly #proxy: LaneProxy
  readonly #context: BrowserContext
  readonly #door: WindowDoor
  readonly #onlookers = new Onlookers()
  readonly #questions = new PageQuestions((told) => this.tell(told))
  #files: PageFiles | undefined
  #page: Page | undefined
  #session: CDPSession | undefined
  #isClosed = false
  /** Told what hands do, while they show how the model is set. */
  #note: ((noted: Noted | ProtocolLogin) => void) | undefined
  /** How the protocol itself has asked who is there. */
  #login: ProtocolLogin | undefined
  /** Hands that wait until a choice is made. */
  #held: UnitHand[] | undefined

  private constructor(lane: Lane, proxy: LaneProxy, context: BrowserContext, door: WindowDoor) {
    this.#lane = lane
    this.#proxy = proxy
    this.#context = context
    this.#door = door
  }

  /** @param keep  given what the pages offer as a file @throws WireError lacking, unreachable */
  static async open(lane: Lane, pin: PinCheck, door: WindowDoor, keep: KeepFile): Promise<UnitWindow> {
    const proxy = await LaneProxy.open(lane, pin)
    let context: BrowserContext | undefined
    let files: PageFiles | undefined
    try {
      context = await browserContext(proxy.url, 'seen')
      const window = new UnitWindow(lane, proxy, context, door)
      files = await PageFiles.open(context, keep, (told) => window.tell(told))
      window.#files = files
      await window.#show(await context.newPage())
      context.on('targetcreated', (target) => void window.#another(target.page()))
      window.#go(window.#home)
      return window
    } catch (error) {
      if (context) await closeContext(context, 'seen')
      files?.close()
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
    return this.#onlookers.add(onlooker)
  }

  /** From now on what hands do is told as acts on elements. @param note  undefined for no more */
  async noteHands(note: ((noted: Noted | ProtocolLogin) => void) | undefined): Promise<void> {
    this.#note = note
    if (this.#login) note?.(this.#login)
    if (note && this.#page) await beginNoting(this.#page)
  }

  /** Where an element is in the picture; undefined where it is not there. */
  async placeOf(at: Described): Promise<Box | undefined> {
    return this.#page && placeOn(this.#page, at)
  }

  tell(told: Told): void {
    this.#onlookers.tell(told)
  }

  /**
   * In the order in which they come. None waits for the one before, since a press may open a dialog that has to be
   * answered; but what is chosen from a list is chosen before anything is pressed.
   */
  act(hand: UnitHand): void {
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
      case 'choose':
        return quietly(this.#choose(hand))
      case 'answer':
      case 'login':
        return quietly(this.#questions.answer(hand))
    }
  }

  /** It takes the place of what stands in the field that is entered. */
  putIn(text: string): void {
    for (const phase of ['down', 'up'] as const)
      this.act({ kind: 'key', phase, key: 'a', code: 'KeyA', modifiers: controlKey })
    if (text === '') this.act({ kind: 'key', phase: 'down', key: 'Delete', code: 'Delete', modifiers: 0 })
    else this.act({ kind: 'text', text })
  }

  /** A page that wants a file is given one, or none. */
  async give(question: number, file: PageFile | undefined): Promise<void> {
    if (this.#isClosed) return
    await this.#questions.give(question, file && (await this.#files?.lay(file)))
  }

  /** What hands do meanwhile is done once the choice is made. */
  async #choose(hand: Extract<Hand, { kind: 'choose' }>): Promise<void> {
    this.#held = []
    await this.#questions.answer(hand).finally(() => {
      const held = this.#held ?? []
      this.#held = undefined
      for (const each of held) this.act(each)
    })
  }

  async close(why: WindowClosed): Promise<void> {
    if (this.#isClosed) return
    this.#isClosed = true
    this.tell({ kind: 'closed', why })
    this.#onlookers.clear()
    await closeContext(this.#context, 'seen')
    this.#files?.close()
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
      return this.tell({ kind: 'failed', code: 'elsewhere', reason: messageText('window-of-one-unit') })
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
    const reason = (fault ? asText(fault.told) : plainReason(text.split('\n')[0] ?? '')).slice(0, longestTextChars)
    const code = fault?.kind === 'untrusted' || fault?.kind === 'outdated' ? fault.kind : 'unreachable'
    this.tell({ kind: 'failed', code, reason, ...(fault instanceof OutdatedError ? { old: [...fault.old] } : {}) })
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
    session.on('Page.javascriptDialogClosed', () => this.#questions.settleAll('dialog'))
    session.on('Page.frameNavigated', ({ frame }) => {
      if (frame.parentId !== undefined) return tellInFrames(page)
      for (const of of ['choices', 'file'] as const) this.#questions.settleAll(of)
      void this.#arrived(page)
    })
    // What it is called is known when its head is there, or when a script says so.
    for (const moment of ['Page.domContentEventFired', 'Page.loadEventFired', 'Page.navigatedWithinDocument'] as const)
      session.on(moment, () => void this.#arrived(page))
    session.on('Runtime.bindingCalled', ({ name, payload, executionContextId }) => {
      if (name === choicesBinding) this.#questions.choices(session, executionContextId, payload)
      if (name === handsBinding) this.#noted(payload)
    })
    session.on('Fetch.requestPaused', ({ requestId }) => {
      session.send('Fetch.continueRequest', { requestId }).catch(() => undefined)
    })
    session.on('Fetch.authRequired', ({ requestId, authChallenge }) => {
      this.#login = protocolLogins.find((each) => each === authChallenge.scheme.toLowerCase())
      if (this.#login) this.#note?.(this.#login)
      this.#questions.login(session, requestId, authChallenge.realm)
    })
    page.on('dialog', (dialog) => this.#questions.dialog(dialog))
    session.on('Page.fileChooserOpened', ({ backendNodeId }) => {
      if (backendNodeId !== undefined) this.#questions.file(session, backendNodeId)
    })
    await session.send('Page.enable')
    await session.send('Page.setInterceptFileChooserDialog', { enabled: true })
    await session.send('Runtime.enable')
    for (const name of [choicesBinding, handsBinding]) await session.send('Runtime.addBinding', { name })
    await page.evaluateOnNewDocument(tellChoices, choicesBinding)
    if (this.#note) await beginNoting(page)
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
    await this.#onlookers.show(jpeg)
    await session.send('Page.screencastFrameAck', { sessionId }).catch(() => undefined)
  }

  #noted(payload: string): void {
    const noted = notedSchema.safeParse(jsonIn(payload))
    if (noted.success) this.#note?.(noted.data)
  }

  async #arrived(page: Page): Promise<void> {
    const title = await page.title().catch(() => '')
    const address = page.url().slice(0, longestTextChars)
    // The browser's own page for what could not be had.
    if (/^(chrome-error:|about:)/.test(address) || page !== this.#page) return
    const at: Told = { kind: 'at', address, title: title.slice(0, 300) }
    if (!this.#onlookers.isStanding(at)) this.tell(at)
  }
}
