/**
 * Telnet (RFC 854) as plain signs both ways. Of its options only those are agreed to that make a terminal of it: the
 * unit echoes (RFC 857), nobody says go ahead (RFC 858), and ours is wide (RFC 1073), so that lines are not broken.
 */
import { Duplex } from 'node:stream'

const iac = 255
const [dont, doIt, wont, will, sb, se] = [254, 253, 252, 251, 250, 240] as const
const [echo, suppressGoAhead, windowSize] = [1, 3, 31] as const
const theirs: ReadonlySet<number> = new Set([echo, suppressGoAhead])
const ours: ReadonlySet<number> = new Set([suppressGoAhead, windowSize])
export interface TerminalSize {
  readonly columns: number
  readonly rows: number
}
/** The longest line that a unit breaks by itself, and the longest page. */
const largest: TerminalSize = { columns: 512, rows: 512 }

type State = 'text' | 'command' | 'option' | 'within' | 'within-command'

/** Takes Telnet's own bytes out of a stream. What is to be answered goes to `reply`. */
export class TelnetDecoder {
  #state: State = 'text'
  #verb = 0
  #wasCr = false
  readonly #agreed = new Set<string>()

  readonly #size: TerminalSize

  /** @param size  what the unit is told that our terminal has */
  constructor(
    private readonly reply: (bytes: Buffer) => void,
    size: TerminalSize = largest,
  ) {
    this.#size = size
  }

  take(chunk: Uint8Array): Buffer {
    const text: number[] = []
    for (const byte of chunk) {
      if (this.#state === 'text') {
        if (byte === iac) this.#state = 'command'
        // A carriage return alone is sent with a null after it (RFC 854).
        else if (!(this.#wasCr && byte === 0)) text.push(byte)
        this.#wasCr = byte === 13
      } else if (this.#state === 'command') {
        this.#state = byte === sb ? 'within' : byte >= will && byte !== iac ? 'option' : 'text'
        if (byte === iac) text.push(iac)
        this.#verb = byte
      } else if (this.#state === 'option') {
        this.#state = 'text'
        this.#negotiate(this.#verb, byte)
      } else if (this.#state === 'within') {
        if (byte === iac) this.#state = 'within-command'
      } else this.#state = byte === se ? 'text' : 'within'
    }
    return Buffer.from(text)
  }

  #negotiate(verb: number, option: number): void {
    const asksUs = verb === doIt || verb === dont
    const wants = verb === doIt || verb === will
    const agrees = wants && (asksUs ? ours : theirs).has(option)
    // What stands already is not agreed to again: two sides that did would never end.
    const key = `${asksUs} ${option} ${agrees}`
    if (this.#agreed.has(key)) return
    this.#agreed.delete(`${asksUs} ${option} ${!agrees}`)
    this.#agreed.add(key)
    this.reply(Buffer.from([iac, asksUs ? (agrees ? will : wont) : agrees ? doIt : dont, option]))
    if (agrees && asksUs && option === windowSize)
      this.reply(Buffer.from([iac, sb, windowSize, ...inTwoBytes(this.#size), iac, se]))
  }
}

/** Columns and rows, two bytes each (RFC 1073). */
const inTwoBytes = ({ columns, rows }: TerminalSize): number[] => [columns >> 8, columns & 255, rows >> 8, rows & 255]

/** Text as it goes out: a byte of Telnet's own is doubled, and a carriage return alone gets its null. */
export function telnetEncoded(text: Buffer): Buffer {
  const bytes: number[] = []
  text.forEach((byte, at) => {
    bytes.push(byte)
    if (byte === iac) bytes.push(iac)
    else if (byte === 13 && text[at + 1] !== 10) bytes.push(0)
  })
  return Buffer.from(bytes)
}

/** A channel of plain signs over a connection that speaks Telnet. */
export function overTelnet(socket: Duplex, size?: TerminalSize): Duplex {
  const decoder = new TelnetDecoder((bytes) => socket.write(bytes), size)
  const channel = new Duplex({
    read: () => socket.resume(),
    write: (chunk: Buffer, _encoding, done) => {
      socket.write(telnetEncoded(chunk))
      done()
    },
    destroy: (error, done) => {
      socket.destroy()
      done(error)
    },
  })
  socket.on('data', (chunk: Buffer) => {
    const text = decoder.take(chunk)
    if (text.length > 0 && !channel.push(text)) socket.pause()
  })
  socket.on('error', (error) => channel.destroy(error))
  socket.on('close', () => channel.destroy())
  return channel
}
