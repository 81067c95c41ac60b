/**
 * A terminal on a unit that has no pages: a shell over SSH, or what its Telnet or console port says.
 *
 * In: a lane, a pin, the door of the prompt, hands. Out: what the unit prints, as `Told`, and its question for a login.
 */

import type { Duplex } from 'node:stream'
import { StringDecoder } from 'node:string_decoder'
import type { Client } from 'ssh2'
import { asText, messageText } from '../../core/message/message'
import { type Told, terminalSize, type WindowClosed } from '../../core/showing/window-talk'
import { OutdatedError, plainReason, WireError } from '../errors/wire-error'
import type { Lane } from '../host/host'
import { connectSsh } from '../ssh/ssh-client'
import { overTelnet } from '../telnet/telnet'
import type { PinCheck } from '../trust/pin'
import { type Onlooker, Onlookers } from './onlookers'
import type { UnitHand, WindowOnUnit } from './open-window'

export interface TerminalDoor {
  readonly over: 'ssh' | 'telnet' | 'tcp'
  readonly port: number
}

/** Somebody who begins to look is told so much of what was printed before, characters. */
const keptChars = 100_000
/** What is printed at once is told in pieces. */
const pieceChars = 8000

export class UnitTerminal implements WindowOnUnit {
  readonly #lane: Lane
  readonly #pin: PinCheck
  readonly #door: TerminalDoor
  readonly #onlookers = new Onlookers()
  #channel: Duplex | undefined
  #client: Client | undefined
  #printed = ''
  #question = 0
  #isAsking = false
  #isClosed = false

  private constructor(lane: Lane, pin: PinCheck, door: TerminalDoor) {
    this.#lane = lane
    this.#pin = pin
    this.#door = door
  }

  /** Asks for a login where SSH does; a prompt over Telnet or a console asks for it itself. */
  static async open(lane: Lane, pin: PinCheck, door: TerminalDoor): Promise<UnitTerminal> {
    const terminal = new UnitTerminal(lane, pin, door)
    terminal.tell({ kind: 'terminal', ...door, ...terminalSize })
    await terminal.#begin()
    return terminal
  }

  watch(onlooker: Onlooker): () => void {
    return this.#onlookers.add(onlooker, inPieces(this.#printed))
  }

  tell(told: Told): void {
    this.#onlookers.tell(told)
  }

  act(hand: UnitHand): void {
    if (this.#isClosed) return
    if (hand.kind === 'text') this.#channel?.write(hand.text)
    else if (hand.kind === 'login' && hand.question === this.#question) void this.#signIn(hand)
    else if (hand.kind === 'answer' && hand.question === this.#question) this.#settle()
    else if (hand.kind === 'reload' || hand.kind === 'go') void this.#begin()
  }

  putIn(text: string): void {
    this.#channel?.write(text)
  }

  async give(): Promise<void> {
    // No file goes through a terminal.
  }

  async noteHands(): Promise<void> {
    // What is typed at a prompt is no act on an element of a page.
  }

  async close(why: WindowClosed): Promise<void> {
    if (this.#isClosed) return
    this.#isClosed = true
    this.tell({ kind: 'closed', why })
    this.#onlookers.clear()
    this.#hangUp()
  }

  async #begin(): Promise<void> {
    this.#hangUp()
    if (this.#door.over === 'ssh') return this.#ask()
    try {
      const socket = await this.#lane.connect(this.#door.port)
      this.#carries(this.#door.over === 'telnet' ? overTelnet(socket, terminalSize) : socket)
    } catch (error) {
      this.#failed(error)
    }
  }

  #ask(): void {
    if (this.#isAsking) return
    this.#isAsking = true
    this.#question += 1
    this.tell({ kind: 'wants-login', question: this.#question, realm: 'SSH' })
  }

  #settle(): void {
    this.#isAsking = false
    this.tell({ kind: 'settled', question: this.#question })
  }

  async #signIn({ user, password }: { user: string; password: string }): Promise<void> {
    this.#settle()
    try {
      const client = await connectSsh(this.#lane, this.#door.port, { user, password }, this.#pin)
      if (this.#isClosed) return void client.destroy()
      this.#client = client
      client.on('error', (error) => this.#over(error.message))
      const { columns: cols, rows } = terminalSize
      client.shell({ term: 'xterm', cols, rows }, (error, channel) => {
        if (error) this.#failed(error)
        else this.#carries(channel)
      })
    } catch (error) {
      this.#failed(error)
      // Another login may open it.
      if (error instanceof WireError && error.kind === 'refused') this.#ask()
    }
  }

  #carries(channel: Duplex): void {
    if (this.#isClosed) return void channel.destroy()
    this.#channel = channel
    const decoder = new StringDecoder('utf8')
    channel.on('data', (bytes: Buffer) => {
      if (channel === this.#channel) this.#print(decoder.write(bytes))
    })
    channel.on('error', (error: Error) => channel === this.#channel && this.#over(error.message))
    channel.on('close', () => channel === this.#channel && this.#over(messageText('unit-closed-session')))
  }

  #print(text: string): void {
    this.#printed = (this.#printed + text).slice(-keptChars)
    for (const told of inPieces(text)) this.tell(told)
  }

  #over(why: string): void {
    this.#hangUp()
    this.#failed(new WireError('unreachable', plainReason(why)))
  }

  #hangUp(): void {
    const [channel, client] = [this.#channel, this.#client]
    this.#channel = this.#client = undefined
    channel?.destroy()
    client?.destroy()
  }

  #failed(error: unknown): void {
    if (this.#isClosed) return
    const reason = (error instanceof WireError ? asText(error.told) : plainReason(String(error))).slice(0, 300)
    const kind = error instanceof WireError ? error.kind : 'unreachable'
    const code = kind === 'untrusted' || kind === 'outdated' || kind === 'refused' ? kind : 'unreachable'
    this.tell({ kind: 'failed', code, reason, ...(error instanceof OutdatedError ? { old: [...error.old] } : {}) })
  }
}

function inPieces(text: string): Told[] {
  const pieces: Told[] = []
  for (let at = 0; at < text.length; at += pieceChars)
    pieces.push({ kind: 'prints', text: text.slice(at, at + pieceChars) })
  return pieces
}
