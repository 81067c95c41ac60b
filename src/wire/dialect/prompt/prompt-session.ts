/**
 * A session at a prompt, over whatever carries signs both ways: commands are typed, what the unit asks in the middle
 * is answered as its card says, and a command is over when the prompt stands there again.
 */

import type { Duplex } from 'node:stream'
import { StringDecoder } from 'node:string_decoder'
import { findAll, findFirst } from '../../../core/input/pattern'
import type { AtPrompt } from '../../../core/kit/prompt-dialect'
import { type Message, message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { plainReason, WireError } from '../../errors/wire-error'
import { type CommandSession, longestOutput, type Ran } from './session'
import { shownOn } from './shown'

/** Silence after which what stands at the end is looked at: a prompt is followed by nothing. */
const quietMs = 15
/** Answers to what it asks during one command: long output has many pages. */
const mostAnswers = 2000
/** For the greeting, and for each step of a sign-in. */
const greetingSeconds = 30
/** A sign that is not echoed within this is taken as typed. */
const echoMs = 300

const enters = { cr: '\r', lf: '\n', crlf: '\r\n' } as const

type Expected<T> = readonly { readonly sees: string; readonly is: T }[]

export class PromptSession implements CommandSession {
  readonly #channel: Duplex
  readonly #talk: AtPrompt
  readonly #end: () => void
  readonly #decoder = new StringDecoder('utf8')
  #raw = ''
  #size = 0
  #over: WireError | undefined
  /** Something came that was not looked at yet. */
  #news = false
  #wake: () => void = () => undefined

  private constructor(channel: Duplex, talk: AtPrompt, end: () => void) {
    this.#channel = channel
    this.#talk = talk
    this.#end = end
    channel.on('data', (chunk: Buffer) => this.#take(chunk))
    channel.on('error', (error: Error) => this.#ended(error.message))
    channel.on('close', () => this.#ended(message('session-closed')))
    channel.on('end', () => this.#ended(message('session-closed')))
  }

  /**
   * @param end    closes what carries the channel
   * @param login  typed where the unit asks for it; undefined where it was asked before, as in SSH
   * @throws WireError refused, timeout, unreachable or garbled
   */
  static async open(channel: Duplex, talk: AtPrompt, end: () => void, login?: Credentials): Promise<PromptSession> {
    const session = new PromptSession(channel, talk, end)
    try {
      if (login) await session.#signIn(login)
      else await session.#untilPrompt(greetingSeconds)
    } catch (error) {
      session.close()
      throw error
    }
    return session
  }

  async run(command: string, _input: string | undefined, withinSeconds: number): Promise<Ran> {
    this.#forget()
    await this.#type(command)
    const text = await this.#untilPrompt(withinSeconds)
    const [first, ...rest] = text.split('\n')
    // Most units echo what is typed.
    return { text: first === shownOn(command) ? rest.join('\n') : text, status: undefined }
  }

  close(): void {
    this.#ended(message('session-closed-here'))
    this.#channel.destroy()
    this.#end()
  }

  async #signIn({ user, password }: Credentials): Promise<void> {
    const { signIn } = this.#talk
    if (!signIn) throw new WireError('garbled', message('card-without-sign-in'))
    const expected: Expected<'user' | 'password' | 'refused'> = [
      { sees: signIn.refused, is: 'refused' },
      { sees: signIn.user, is: 'user' },
      { sees: signIn.password, is: 'password' },
    ]
    // A console that somebody left may show anything: a line of nothing makes it ask again.
    if (signIn.wakes) this.#send(enters[this.#talk.enter])
    let given = false
    for (;;) {
      const { is, text } = await this.#until(greetingSeconds, expected)
      if (is === 'prompt') return
      // After the password it asks for the user again, where it did not like it.
      if (is === 'refused' || (given && is === 'user'))
        throw new WireError('refused', plainReason(lineOf(signIn.refused, text)))
      this.#forget()
      this.#send(`${is === 'user' ? user : password}${enters[this.#talk.enter]}`)
      given ||= is === 'password'
    }
  }

  async #untilPrompt(withinSeconds: number): Promise<string> {
    return (await this.#until(withinSeconds, [])).text
  }

  /** Reads on until the prompt or something expected stands at the end; answers what is asked on the way. */
  async #until<T>(withinSeconds: number, expected: Expected<T>): Promise<{ is: T | 'prompt'; text: string }> {
    const until = performance.now() + withinSeconds * 1000
    const { ends, asks } = this.#talk
    let before = ''
    for (let answers = 0; ; ) {
      await this.#quiet(until, withinSeconds)
      const shown = shownOn(this.#raw)
      const last = shown.slice(shown.lastIndexOf('\n') + 1)
      const upTo = (at: number): string => before + shown.slice(0, shown.length - last.length + at)
      const ask = asks.find(({ sees }) => endOf(sees, last) !== undefined)
      if (ask) {
        answers += 1
        if (answers > mostAnswers) throw this.#fault('garbled', message('asks-without-end'))
        before = upTo(endOf(ask.sees, last) ?? 0)
        this.#raw = ''
        this.#send(ask.types)
        continue
      }
      const found = expected.find(({ sees }) => endOf(sees, last) !== undefined || endOf(sees, shown) !== undefined)
      if (found) return { is: found.is, text: before + shown }
      const at = endOf(ends, last)
      if (at !== undefined) return { is: 'prompt', text: upTo(at) }
    }
  }

  /** Waits until something came and nothing came after it for a moment. */
  async #quiet(until: number, withinSeconds: number): Promise<void> {
    for (;;) {
      if (this.#over) throw this.#over
      const left = until - performance.now()
      if (left <= 0) throw this.#fault('timeout', message('no-answer-within', { seconds: withinSeconds }))
      const hadNews = this.#news
      this.#news = false
      await this.#wait(hadNews ? Math.min(quietMs, left) : left)
      if (hadNews && !this.#news && !this.#over) return
    }
  }

  /** Until something comes, or so long. */
  #wait(ms: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, ms)
      this.#wake = () => {
        clearTimeout(timer)
        resolve()
      }
      if (this.#news || this.#over) this.#wake()
    })
  }

  #take(chunk: Buffer): void {
    this.#size += chunk.length
    if (this.#size > longestOutput) this.#fault('garbled', message('printed-too-much', { bytes: longestOutput }))
    else this.#raw += this.#decoder.write(chunk)
    this.#news = true
    this.#wake()
  }

  async #type(command: string): Promise<void> {
    const { enter, typed } = this.#talk
    if (typed === 'sign-by-sign')
      for (const sign of command) {
        this.#news = false
        this.#send(sign)
        await this.#wait(echoMs)
      }
    else this.#send(command)
    this.#send(enters[enter])
  }

  #send(text: string): void {
    if (this.#over) throw this.#over
    this.#channel.write(text)
  }

  #forget(): void {
    this.#raw = ''
    this.#size = 0
    this.#news = false
  }

  #fault(kind: 'garbled' | 'timeout', why: Message): WireError {
    this.#over ??= new WireError(kind, why)
    this.close()
    return this.#over
  }

  #ended(why: string | Message): void {
    this.#over ??= new WireError('unreachable', typeof why === 'string' ? plainReason(why) : why)
    this.#wake()
  }
}

/** The line that matches; the last one, where none does. */
function lineOf(pattern: string, text: string): string {
  const lines = text.trim().split('\n')
  return lines.findLast((line) => findFirst(pattern, line) !== undefined) ?? lines.at(-1) ?? ''
}

/** Where a match begins that reaches the end of the text. */
function endOf(pattern: string, text: string): number | undefined {
  return findAll(pattern, text).find(({ end, start }) => end === text.length && end > start)?.start
}
