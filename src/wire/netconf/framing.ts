/** Framing of NETCONF over SSH (RFC 6242): the end-of-message mark of base:1.0, and the chunks of base:1.1. */
import { message } from '../../core/message/message'
import { WireError } from '../errors/wire-error'

export type Framing = 'end-mark' | 'chunks'

const endMark = ']]>]]>'
/** Bytes of one message. */
const longestMessage = 4 * 1024 * 1024
/** RFC 6242, 4.2: a chunk size has at most ten digits, and no leading zero. */
const chunkHead = /^\n#([1-9][0-9]{0,9}|#)\n/

export function framed(message: string, framing: Framing): string {
  return framing === 'end-mark' ? `${message}${endMark}` : `\n#${Buffer.byteLength(message)}\n${message}\n##\n`
}

/** Gathers what comes and hands out whole messages. Both sides change to chunks after their hello. */
export class FrameReader {
  #rest: Buffer = Buffer.alloc(0)
  #chunks: Buffer[] = []
  #size = 0
  framing: Framing = 'end-mark'

  /** @throws WireError garbled */
  take(bytes: Buffer): void {
    this.#rest = this.#rest.length === 0 ? bytes : Buffer.concat([this.#rest, bytes])
    if (this.#rest.length + this.#size > longestMessage) throw new WireError('garbled', message('message-without-end'))
  }

  /** The next whole message; undefined while it has not all come. @throws WireError garbled */
  next(): string | undefined {
    return this.framing === 'end-mark' ? this.#nextMarked() : this.#nextChunked()
  }

  #nextMarked(): string | undefined {
    const end = this.#rest.indexOf(endMark)
    if (end < 0) return undefined
    const whole = this.#rest.subarray(0, end).toString('utf8')
    this.#rest = this.#rest.subarray(end + endMark.length)
    return whole
  }

  #nextChunked(): string | undefined {
    for (;;) {
      const head = this.#rest.subarray(0, 14).toString('latin1')
      const size = chunkHead.exec(head)?.[1]
      if (size === undefined) {
        // As far as it has come it may still be one.
        if (head.length < 14 && /^(\n(#(#|[1-9][0-9]{0,9})?)?)?$/.test(head)) return undefined
        throw new WireError('garbled', message('chunks-unfit'))
      }
      const start = size.length + 3
      if (size === '#') {
        this.#rest = this.#rest.subarray(start)
        if (this.#chunks.length === 0) throw new WireError('garbled', message('message-ends-early'))
        const whole = Buffer.concat(this.#chunks).toString('utf8')
        this.#chunks = []
        this.#size = 0
        return whole
      }
      const length = Number(size)
      if (length + this.#size > longestMessage) throw new WireError('garbled', message('message-without-end'))
      if (this.#rest.length < start + length) return undefined
      this.#chunks.push(this.#rest.subarray(start, start + length))
      this.#size += length
      this.#rest = this.#rest.subarray(start + length)
    }
  }
}
