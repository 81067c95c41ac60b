/**
 * The terminal of a unit with a command line: it echoes what is typed, explains itself at a question mark, takes the
 * sign after Ctrl-V as it is, prints long answers by pages, and asks back.
 */
import { StringDecoder } from 'node:string_decoder'
import type { Device } from '../../device/device'
import { Refusal } from '../../device/refusal'
import { carryOut } from './commands'
import { wordsIn } from './words'

const linesOfAPage = 22
const longestLine = 2000
const literal = '\x16'
const more = '-- more --'

export class Terminal {
  readonly #device: Device
  readonly #print: (text: string) => void
  readonly #hangUp: () => void
  readonly #decoder = new StringDecoder('utf8')
  #line = ''
  #takesLiterally = false
  /** Lines that wait for a key. */
  #pages: string[] = []
  #question: { readonly onYes: () => void } | undefined

  constructor(device: Device, print: (text: string) => void, hangUp: () => void) {
    this.#device = device
    this.#print = print
    this.#hangUp = hangUp
    this.#prompt()
  }

  type(bytes: Buffer): void {
    for (const sign of this.#decoder.write(bytes)) this.#press(sign)
  }

  #press(sign: string): void {
    if (this.#pages.length > 0) {
      this.#print(`\r${' '.repeat(more.length)}\r`)
      this.#printPage(sign === 'q' ? [] : this.#pages)
    } else if (this.#takesLiterally) {
      this.#takesLiterally = false
      this.#take(sign)
    } else if (sign === literal) this.#takesLiterally = true
    else if (sign === '?' && !this.#question) this.#explain()
    else if (sign === '\r' || sign === '\n') this.#enter()
    else if (sign === '\x7f' || sign === '\b') this.#rubOut()
    else this.#take(sign)
  }

  #take(sign: string): void {
    if (this.#line.length >= longestLine) return
    this.#line += sign
    this.#print(sign)
  }

  #rubOut(): void {
    if (this.#line === '') return
    this.#line = this.#line.slice(0, -1)
    this.#print('\b \b')
  }

  #explain(): void {
    this.#print('?\r\ntell regdom call stands clock net air web old-shell reports watcher own login keep restart\r\n')
    this.#prompt()
    this.#print(this.#line)
  }

  #enter(): void {
    const line = this.#line
    this.#line = ''
    this.#print('\r\n')
    const question = this.#question
    this.#question = undefined
    if (question) {
      if (line === 'yes') return question.onYes()
      return this.#prompt()
    }
    if (line.trim() === 'bye') return this.#hangUp()
    try {
      const words = wordsIn(line)
      if (words.length === 0) return this.#prompt()
      const outcome = carryOut(this.#device, words)
      if (outcome.kind === 'printed') return this.#printPage(outcome.lines)
      this.#question = outcome
      this.#print(outcome.question)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      this.#print(error.message === 'not understood' ? 'not understood\r\n' : `no: ${error.message}\r\n`)
      this.#prompt()
    }
  }

  #printPage(lines: readonly string[]): void {
    for (const line of lines.slice(0, linesOfAPage)) this.#print(`${line}\r\n`)
    this.#pages = lines.slice(linesOfAPage)
    if (this.#pages.length > 0) this.#print(more)
    else this.#prompt()
  }

  #prompt(): void {
    this.#print(`${this.#device.configured.name} ${this.#device.changes.saved ? ':' : '#'} `)
  }
}
