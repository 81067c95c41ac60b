/** The windows that are open: one at the most on each unit, closed when no hand has touched it for long. */

import { desiredOf, loginOf } from '../../core/config/compile'
import { isDirect } from '../../core/kit/kit-card'
import { asText } from '../../core/message/message'
import type { MusterEvent } from '../../core/muster/events'
import type { ShownRecord } from '../../core/showing/record'
import { type Hand, type WindowClosed, windowIdle } from '../../core/showing/window-talk'
import { WireError } from '../../wire/errors/wire-error'
import type { Host, Lane } from '../../wire/host/host'
import type { Sessions } from '../../wire/sessions'
import type { PinCheck } from '../../wire/trust/pin'
import type { WindowOnUnit } from '../../wire/window/open-window'
import type { WindowDoor } from '../../wire/window/unit-window'
import { UnitTurns } from '../order/unit-turns'
import type { AwakeClock } from '../ports/awake-clock'
import type { Records } from '../ports/records'
import { NoWindow } from './no-window'
import { OwnLane } from './own-lane'
import { rehearse } from './rehearsal'
import { UnitShowing } from './unit-showing'
import { type FoundWay, laneToUnit } from './window-lane'
import {
  actedFor,
  fileOf,
  keep,
  keepShowing,
  knownLogin,
  onLabel,
  shownBefore,
  spokenOfUnit,
  typedValueOf,
  type WindowOn,
} from './window-values'

export interface WindowDeskParts {
  readonly records: Records
  readonly host: Host
  readonly sessions: Pick<Sessions, 'unit'>
  readonly clock: AwakeClock
  readonly turns: UnitTurns
  readonly tell: (jobId: number, event: MusterEvent) => Promise<void>
  /** When a window that no hand touches is closed. */
  readonly idle?: { readonly afterSeconds: number; readonly saidBeforeSeconds: number }
}

const idleLookMs = 1000

const showingKinds = ['show', 'means', 'state-means', 'make-card', 'rehearse'] as const
type ShowingHand = Extract<Hand, { kind: (typeof showingKinds)[number] }>
const isOfShowing = (hand: Hand): hand is ShowingHand => showingKinds.some((kind) => kind === hand.kind)

interface OpenWindow {
  readonly on: WindowOn
  readonly window: WindowOnUnit
  /** By the monotonic clock, ms. */
  touchedAt: number
  isSaidToClose: boolean
  /** Where it is to answer in the end, while it does not. */
  goal: string | undefined
  readonly mac: string
  /** Of its pages; undefined where a terminal shows its prompt. */
  readonly door: WindowDoor | undefined
  readonly lane: Lane
  readonly pin: PinCheck
  /** Whose values are put in: the unit's own, or those of an access point that is set through it. */
  valuesOf: WindowOn
  /** While somebody shows how the model is set. */
  showing: UnitShowing | undefined
  /** What of it is kept with the job. */
  keptRecord: ShownRecord | undefined
  readonly ownLane: OwnLane | undefined
  /** Resolves when all input so far has reached the page. */
  acting: Promise<void>
  close(why: WindowClosed): Promise<void>
}

export class WindowDesk {
  readonly #parts: WindowDeskParts
  readonly #open = new Map<string, Promise<OpenWindow>>()

  constructor(parts: WindowDeskParts) {
    this.#parts = parts
  }

  /**
   * The window on a unit, opened where none is.
   * @param by  who opens it
   * @param at  where somebody says that it answers, where nobody has seen it
   * @throws NoWindow
   */
  async window(on: WindowOn, by: string, at?: string): Promise<WindowOnUnit> {
    const key = UnitTurns.key(on.jobId, on.unit)
    const known = this.#open.get(key)
    if (known) return (await known).window
    const opening = this.#opened(on, key, by, at)
    this.#open.set(key, opening)
    opening.catch(() => this.#open.delete(key))
    return (await opening).window
  }

  /**
   * Hands reach the page in the order in which they come, also where one has to be looked up first: a value that was
   * put in would go into the field that is entered next.
   * @returns whether there is a window for it
   */
  async act(on: WindowOn, hands: readonly Hand[]): Promise<boolean> {
    const open = await this.#open.get(UnitTurns.key(on.jobId, on.unit))?.catch(() => undefined)
    if (!open) return false
    this.#touched(open)
    const acted = open.acting.then(async () => {
      for (const hand of hands) await this.#actOne(on, open, hand)
    })
    open.acting = acted.catch(() => undefined)
    await acted
    return true
  }

  async #actOne(on: WindowOn, open: OpenWindow, hand: Hand): Promise<void> {
    const { window, mac } = open
    if (isOfShowing(hand)) return this.#show(on, open, hand)
    if (hand.kind === 'act-for') return this.#actFor(on, open, hand.unit)
    if (hand.kind === 'own-lane') return this.#ownLane(open)
    if (hand.kind === 'login-as') return this.#loginAs(on, open, hand)
    if (hand.kind === 'give') return window.give(hand.question, await fileOf(this.#parts, on, hand.file))
    if (hand.kind !== 'put-in' && hand.kind !== 'put-in-label') return window.act(hand)
    const text = await (hand.kind === 'put-in'
      ? typedValueOf(this.#parts, open.valuesOf, hand)
      : onLabel(this.#parts, on.jobId, mac))
    if (hand.kind === 'put-in') open.showing?.putIn(hand)
    if (text === undefined) return
    window.putIn(text)
  }

  async #actFor(on: WindowOn, open: OpenWindow, unit: string | null): Promise<void> {
    open.valuesOf = { ...on, unit: unit ?? on.unit }
    open.window.tell({ kind: 'acting-for', unit })
    open.showing?.actFor(await actedFor(this.#parts, on, open.valuesOf))
  }

  async #loginAs(on: WindowOn, { window }: OpenWindow, hand: Extract<Hand, { kind: 'login-as' }>): Promise<void> {
    const login = await knownLogin(this.#parts, on, hand.as)
    if (login) window.act({ kind: 'login', question: hand.question, ...login })
  }

  async #ownLane(open: OpenWindow): Promise<void> {
    const address = await open.ownLane?.open(() => this.#touched(open))
    if (address !== undefined) open.window.tell({ kind: 'own-lane', address })
  }

  #touched(open: OpenWindow): void {
    open.touchedAt = this.#parts.clock.monotonic()
    open.isSaidToClose = false
  }

  async close({ jobId, unit }: WindowOn): Promise<void> {
    const open = await this.#open.get(UnitTurns.key(jobId, unit))?.catch(() => undefined)
    await open?.close('by-hand')
  }

  async closeAll(): Promise<void> {
    const all = await Promise.allSettled(this.#open.values())
    await Promise.all(all.map((each) => each.status === 'fulfilled' && each.value.close('ended')))
  }

  /** Closes what was left open, until the signal is given. */
  async watchIdle(signal: AbortSignal): Promise<void> {
    const { clock, idle = windowIdle } = this.#parts
    while (!signal.aborted) {
      for (const opening of this.#open.values()) {
        const open = await opening.catch(() => undefined)
        if (!open) continue
        await this.#hasMoved(open)
        await this.#keepShown(open)
        const left = idle.afterSeconds - (clock.monotonic() - open.touchedAt) / 1000
        if (left <= 0) await open.close('idle')
        else if (left <= idle.saidBeforeSeconds && !open.isSaidToClose) {
          open.isSaidToClose = true
          open.window.tell({ kind: 'closing', inSeconds: Math.ceil(left) })
        }
      }
      await clock.rest(idleLookMs, signal)
    }
    await this.closeAll()
  }

  /** Says so once, when somebody has given the unit its planned address. */
  async #hasMoved(open: OpenWindow): Promise<void> {
    const { goal: address, mac } = open
    if (address === undefined) return
    // A laptop that does not reach the wire asks again.
    const macs = await this.#parts.host.arp(address).catch((): string[] => [])
    if (!macs.includes(mac)) return
    open.goal = undefined
    open.window.tell({ kind: 'moved', address })
  }

  async #show(on: WindowOn, open: OpenWindow, hand: ShowingHand): Promise<void> {
    const { window } = open
    if (hand.kind === 'means') return open.showing?.answer(hand)
    if (hand.kind === 'state-means') return open.showing?.sayState(hand)
    if (hand.kind === 'make-card') return open.showing?.makeCard()
    // It takes a while and is not waited for: its result is told.
    if (hand.kind === 'rehearse') return void this.#rehearse(on, open).catch(() => undefined)
    if (!hand.on) {
      await this.#keepShown(open)
      open.showing = undefined
      return window.noteHands(undefined)
    }
    if (hand.anew) open.showing = undefined
    if (open.showing) return
    const of = await spokenOfUnit(this.#parts, on)
    if (!of) return
    const { login } = of.card.factory
    const { mac, lane, door } = open
    if (!door) return
    const subject = { model: of.unit.model, mac, address: lane.address, ...door, factory: login, spoken: of.spoken }
    const before = hand.anew ? undefined : await shownBefore(this.#parts, on, mac)
    open.showing = new UnitShowing(subject, (told) => window.tell(told), before)
    open.showing.actFor(await actedFor(this.#parts, on, open.valuesOf))
    await window.noteHands(open.showing.note)
  }

  /** Nothing of what was shown is lost with the window, or with this runner. */
  async #keepShown(open: OpenWindow): Promise<void> {
    const record = open.showing?.record
    if (!record || record === open.keptRecord) return
    open.keptRecord = record
    await keepShowing(this.#parts, open.on, open.mac, record)
  }

  /** Reads the unit by its card, where it has one that turns pages; nothing is written. */
  async #rehearse(on: WindowOn, { window, lane, pin }: OpenWindow): Promise<void> {
    const of = await spokenOfUnit(this.#parts, on)
    if (!of) return
    const { asking, card } = of
    if (!isDirect(card)) return
    const { user, password = '' } = loginOf(asking)
    const login = { user, password }
    window.tell(await rehearse(this.#parts.sessions, { lane, pin, card, desired: desiredOf(asking), login }))
  }

  async #opened(on: WindowOn, key: string, by: string, at: string | undefined): Promise<OpenWindow> {
    const { turns, clock, tell } = this.#parts
    const giveBack = turns.take(key, by)
    if (!giveBack) throw new NoWindow({ code: 'being-mustered' })
    let lane: Lane | undefined
    try {
      const found = await laneToUnit(this.#parts, on, at)
      lane = found.lane
      const window = await this.#windowOn(found, on)
      await tell(on.jobId, { kind: 'window', unit: on.unit, state: 'opened', by })
      const wayThere = lane
      const door = 'scheme' in found.door ? found.door : undefined
      const ownLane = door && new OwnLane(lane, door)
      let closing: Promise<void> | undefined
      const close = (why: WindowClosed): Promise<void> => {
        closing ??= (async () => {
          this.#open.delete(key)
          await this.#keepShown(open)
          await window.close(why)
          ownLane?.close()
          await wayThere.close()
          giveBack()
          await tell(on.jobId, { kind: 'window', unit: on.unit, state: 'closed', by, why })
        })()
        return closing
      }
      const goal = found.planned === lane.address ? undefined : found.planned
      const { pin } = found
      const how = { on, mac: lane.mac, door, lane, pin, goal }
      const open: OpenWindow = {
        ...how,
        window,
        touchedAt: clock.monotonic(),
        isSaidToClose: false,
        ownLane,
        valuesOf: on,
        showing: undefined,
        keptRecord: undefined,
        acting: Promise.resolve(),
        close,
      }
      return open
    } catch (error) {
      await lane?.close()
      giveBack()
      if (error instanceof WireError)
        throw new NoWindow({ code: 'wire', kind: error.kind, reason: asText(error.told).slice(0, 500) })
      throw error
    }
  }

  /** Loaded when the first of its kind is opened: what drives a browser is large. */
  async #windowOn({ lane, pin, door, mac }: FoundWay, on: WindowOn): Promise<WindowOnUnit> {
    if ('over' in door) {
      const { UnitTerminal } = await import('../../wire/window/unit-terminal')
      return UnitTerminal.open(lane, pin, door)
    }
    const { UnitWindow } = await import('../../wire/window/unit-window')
    return UnitWindow.open(lane, pin, door, (file) => keep(this.#parts, on, mac, file))
  }
}
