/**
 * One NETCONF session (RFC 6241) over SSH (RFC 6242): hello on both sides, questions one after the other, answers
 * bounded in size and time, errors in the unit's own words.
 */

import type { Client, ClientChannel } from 'ssh2'
import { type Message, message } from '../../core/message/message'
import type { Credentials } from '../../core/secrets/credentials'
import { childOf, type Element, parseXml } from '../codec/xml'
import { plainReason, WireError } from '../errors/wire-error'
import type { Lane } from '../host/host'
import { connectSsh } from '../ssh/ssh-client'
import type { PinCheck } from '../trust/pin'
import { FrameReader, framed } from './framing'

export const base = 'urn:ietf:params:xml:ns:netconf:base:1.0'
const capability = 'urn:ietf:params:netconf:'
const replyMs = 20_000
const nudgeMs = 2000
const notifications = 'urn:ietf:params:xml:ns:netconf:notification:1.0'
const isNotification = /^\s*(<\?xml[^>]{0,200}\?>)?\s*<([\w.-]{1,40}:)?notification[\s>]/

/** The unit said no: what it said, beside the reason. */
export class RpcRejection extends WireError {
  constructor(tag: string, message: string) {
    super(tag === 'access-denied' ? 'refused' : 'rejected', plainReason(message) || tag)
  }
}

export class NetconfSession {
  readonly #client: Client
  readonly #channel: ClientChannel
  readonly #reader = new FrameReader()
  #asked = 0
  /** Of questions that only had it read on: nobody waits for their replies. */
  readonly #nudges = new Set<string>()
  #waiting: { resolve: (message: string) => void; reject: (error: Error) => void } | undefined
  #fault: WireError | undefined
  /** Whether its hello has come. */
  #greeted = false
  #messages: string[] = []
  #capabilities: ReadonlySet<string> = new Set()
  /** Its number with the server. */
  #id = ''
  #notified: ((event: Element) => void) | undefined
  #telling = Promise.resolve()

  private constructor(client: Client, channel: ClientChannel) {
    this.#client = client
    this.#channel = channel
    channel.on('data', (bytes: Buffer) => this.#heard(bytes))
    channel.on('close', () => this.#fail(new WireError('unreachable', message('closed-session'))))
    client.on('close', () => this.#fail(new WireError('unreachable', message('closed-connection'))))
    client.on('error', (cause) => this.#fail(new WireError('unreachable', plainReason(cause.message), { cause })))
  }

  /** @throws WireError */
  static async open(lane: Lane, port: number, login: Credentials, pin: PinCheck): Promise<NetconfSession> {
    const client = await connectSsh(lane, port, login, pin)
    try {
      const channel = await new Promise<ClientChannel>((resolve, reject) => {
        // One that goes away meanwhile may just restart: that says nothing of what it has.
        const gone = (why: string | Message): void => reject(new WireError('unreachable', why))
        client.once('error', (error) => gone(plainReason(error.message)))
        client.once('close', () => gone(message('closed-connection')))
        client.subsys('netconf', (cause, opened) =>
          cause
            ? reject(
                new WireError('garbled', message('no-netconf-there', { told: plainReason(cause.message) }), { cause }),
              )
            : resolve(opened),
        )
      })
      const session = new NetconfSession(client, channel)
      await session.#hello()
      return session
    } catch (error) {
      client.on('error', () => undefined)
      client.destroy()
      throw error
    }
  }

  /** Whether a capability of RFC 6241 was announced, such as `candidate:1.0`. */
  can(name: string): boolean {
    return this.#capabilities.has(`${capability}capability:${name}`)
  }

  get id(): string {
    return this.#id
  }

  /**
   * Has it tell what happens, between the replies (RFC 5277, 2.1 and 6), where it can.
   * @returns whether it does
   */
  async subscribe(notified: (event: Element) => void): Promise<boolean> {
    if (!this.can('notification:1.0') || !this.can('interleave:1.0')) return false
    this.#notified = notified
    await this.rpc(`<create-subscription xmlns="${notifications}"/>`)
    return true
  }

  async #hello(): Promise<void> {
    const ours = ['base:1.0', 'base:1.1'].map((each) => `<capability>${capability}${each}</capability>`)
    this.#send(
      '<?xml version="1.0" encoding="UTF-8"?><hello ' +
        `xmlns="${base}"><capabilities>${ours.join('')}</capabilities></hello>`,
    )
    const hello = await parseXml(await this.#message())
    if (hello.name !== 'hello' || hello.namespace !== base) throw new WireError('garbled', message('says-no-hello'))
    this.#id = childOf(hello, 'session-id')?.text.trim() ?? ''
    const told = childOf(hello, 'capabilities')?.children.map(({ text }) => text.trim()) ?? []
    this.#capabilities = new Set(told)
    if (!['base:1.0', 'base:1.1'].some((each) => this.#capabilities.has(`${capability}${each}`)))
      throw new WireError('garbled', message('speaks-another-netconf'))
  }

  /**
   * @param operation  XML of the operation
   * @returns          the reply @throws RpcRejection where it says no, WireError
   */
  async rpc(operation: string): Promise<Element> {
    const id = this.#ask(operation)
    const nudge = id === '1' ? setTimeout(() => this.#nudge(), nudgeMs) : undefined
    try {
      for (;;) {
        const reply = await parseXml(await this.#message())
        // RFC 5277: one may come in between, where an earlier client has asked for them.
        if (reply.name === 'notification') continue
        if (reply.name !== 'rpc-reply' || reply.namespace !== base)
          throw new WireError('garbled', message('does-not-reply'))
        const to = reply.attributes['message-id'] ?? ''
        if (this.#nudges.delete(to)) continue
        if (to !== id) throw new WireError('garbled', message('replies-to-another'))
        const rejection = rejectionIn(reply)
        if (rejection) throw rejection
        return reply
      }
    } finally {
      clearTimeout(nudge)
    }
  }

  /** @returns the number of the question */
  #ask(operation: string): string {
    this.#asked += 1
    const id = String(this.#asked)
    this.#send(`<?xml version="1.0" encoding="UTF-8"?><rpc message-id="${id}" xmlns="${base}">${operation}</rpc>`)
    return id
  }

  /**
   * Some servers (Debian's netconfd is one) read a first question that comes in one piece with our hello only when more
   * comes. Questions may follow each other without waiting (RFC 6241, 2.1): a small one has them read on.
   */
  #nudge(): void {
    if (this.#fault) return
    this.#nudges.add(this.#ask('<get><filter type="subtree"><none xmlns="urn:air-muster:none"/></filter></get>'))
  }

  close(): void {
    this.#fault ??= new WireError('unreachable', message('session-closed'))
    this.#client.end()
  }

  #send(message: string): void {
    if (this.#fault) throw this.#fault
    this.#channel.write(framed(message, this.#reader.framing))
  }

  #message(): Promise<string> {
    const next = this.#messages.shift()
    if (next !== undefined) return Promise.resolve(next)
    if (this.#fault) return Promise.reject(this.#fault)
    return new Promise((resolve, reject) => {
      const late = setTimeout(
        () => this.#fail(new WireError('timeout', message('no-reply-within', { seconds: replyMs / 1000 }))),
        replyMs,
      )
      const settled =
        <T>(settle: (value: T) => void) =>
        (value: T) => {
          clearTimeout(late)
          this.#waiting = undefined
          settle(value)
        }
      this.#waiting = { resolve: settled(resolve), reject: settled(reject) }
    })
  }

  #heard(bytes: Buffer): void {
    if (this.#fault) return
    try {
      this.#reader.take(bytes)
      for (let message = this.#reader.next(); message !== undefined; message = this.#reader.next()) {
        // RFC 6242, 4.1: its hello decides how all that follows is framed, on both sides. Ours went out before.
        if (this.#notified && isNotification.test(message)) this.#tell(message)
        else if (this.#waiting) this.#waiting.resolve(message)
        else this.#messages.push(message)
        if (!this.#greeted && message.includes(`${capability}base:1.1`)) this.#reader.framing = 'chunks'
        this.#greeted = true
      }
    } catch (error) {
      this.#fail(error instanceof WireError ? error : new WireError('garbled', message('frames-unreadable')))
    }
  }

  /** Events reach who asked for them in the order in which they came. */
  #tell(text: string): void {
    this.#telling = this.#telling.then(async () => {
      try {
        const event = await parseXml(text)
        this.#notified?.(event)
      } catch (error) {
        this.#fail(error instanceof WireError ? error : new WireError('garbled', message('events-unreadable')))
      }
    })
  }

  #fail(error: WireError): void {
    this.#fault ??= error
    this.#waiting?.reject(this.#fault)
    if (error.kind !== 'unreachable') this.#client.destroy()
  }
}

/** The first error that is more than a warning. */
function rejectionIn(reply: Element): RpcRejection | undefined {
  const textOf = (error: Element, name: string): string => childOf(error, name)?.text.trim() ?? ''
  const error = reply.children.find((each) => each.name === 'rpc-error' && textOf(each, 'error-severity') !== 'warning')
  return error && new RpcRejection(textOf(error, 'error-tag') || 'operation-failed', textOf(error, 'error-message'))
}
