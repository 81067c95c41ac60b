/** What a unit sends is hostile: ten thousand of each, and none ends this program or is waited for without end. */
import { generateKeyPairSync } from 'node:crypto'
import type { Socket } from 'node:net'
import { Duplex, PassThrough } from 'node:stream'
import fc from 'fast-check'
import { Server } from 'ssh2'
import { beforeAll, describe, expect, it } from 'vitest'
import { often } from '../../../../tests/support/long'
import { WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import { bannerOf, connectSsh } from '../../ssh/ssh-client'
import { TelnetDecoder, telnetEncoded } from '../../telnet/telnet'
import { shownOn } from './shown'

const runs = { numRuns: often(500, 10_000) }

/** A unit that says something and hangs up. */
const laneSaying = (bytes: Uint8Array): Lane => ({
  ...{ mac: '02:00:00:00:00:01', address: '192.0.2.1', prefix: 24, source: '192.0.2.2' },
  connect: async () => {
    const unit = new Duplex({ read: () => undefined, write: (_chunk, _encoding, done) => done() })
    unit.push(Buffer.from(bytes))
    setImmediate(() => unit.destroy())
    return unit as unknown as Socket
  },
  datagrams: () => Promise.reject(new Error('it takes none')),
  ping: async () => true,
  close: async () => {},
})

async function endsWell(work: Promise<unknown>): Promise<void> {
  const end = await work.then(
    () => undefined,
    (error: unknown) => error,
  )
  if (end !== undefined && typeof end !== 'string') expect(end).toBeInstanceOf(WireError)
}

/** Good bytes of which some are others, cut anywhere. */
const changed = (good: Buffer) =>
  fc
    .array(fc.tuple(fc.nat({ max: good.length - 1 }), fc.nat({ max: 255 })), { minLength: 1, maxLength: 12 })
    .chain((changes) => fc.nat({ max: good.length }).map((length) => ({ changes, length })))
    .map(({ changes, length }) => {
      const bytes = Buffer.from(good)
      for (const [at, value] of changes) bytes[at] = value
      return bytes.subarray(0, length)
    })

describe('SSH', () => {
  /** What a real server says first: its version and its algorithms. */
  let opening = Buffer.alloc(0)

  beforeAll(async () => {
    const key = generateKeyPairSync('ec', {
      namedCurve: 'prime256v1',
      privateKeyEncoding: { type: 'sec1', format: 'pem' },
      publicKeyEncoding: { type: 'spki', format: 'pem' },
    }).privateKey
    const said: Buffer[] = []
    const input = new PassThrough()
    const socket = Duplex.from({ readable: input, writable: new PassThrough().on('data', (chunk) => said.push(chunk)) })
    new Server({ hostKeys: [key], ident: 'unit' }, () => undefined).injectSocket(socket as never)
    input.write('SSH-2.0-x\r\n')
    for (let waited = 0; Buffer.concat(said).length < 300 && waited < 200; waited += 1)
      await new Promise((resolve) => setTimeout(resolve, 10))
    opening = Buffer.concat(said)
    expect(opening.toString('latin1')).toMatch(/^SSH-2\.0-unit\r\n/)
  })

  it('survives any bytes after any greeting', async () => {
    const version = Buffer.from('SSH-2.0-unit\r\n')
    const bytes = fc.oneof(
      fc.uint8Array({ maxLength: 400 }),
      fc.uint8Array({ maxLength: 400 }).map((rest) => Buffer.concat([version, rest])),
      changed(opening),
    )
    await fc.assert(
      fc.asyncProperty(bytes, async (each) => {
        await endsWell(connectSsh(laneSaying(each), 22, { user: 'u', password: 'p' }, async () => {}))
      }),
      runs,
    )
  })

  it('gives a greeting of one printable line, or none', async () => {
    await fc.assert(
      fc.asyncProperty(fc.oneof(fc.uint8Array({ maxLength: 600 }), changed(opening)), async (each) => {
        const banner = await bannerOf(laneSaying(each), 22).catch((error: unknown) => {
          expect(error).toBeInstanceOf(WireError)
          return ''
        })
        expect(banner).toMatch(/^[\x20-\x7e\u00a0-\uffff]{0,300}$/)
      }),
      runs,
    )
  })
})

describe('Telnet', () => {
  it('survives any bytes, however they are cut, and answers no more than it was asked', () => {
    const telnetHeavy = fc.array(fc.oneof(fc.constantFrom(255, 254, 253, 252, 251, 250, 240, 13, 0, 31), fc.nat(255)), {
      maxLength: 300,
    })
    fc.assert(
      fc.property(telnetHeavy, fc.nat(300), (bytes, cut) => {
        let answered = 0
        const whole = new TelnetDecoder((reply) => (answered += reply.length)).take(Buffer.from(bytes))
        const inTwo = new TelnetDecoder(() => undefined)
        const parts = [inTwo.take(Buffer.from(bytes.slice(0, cut))), inTwo.take(Buffer.from(bytes.slice(cut)))]
        expect(Buffer.concat(parts)).toEqual(whole)
        expect(whole.length).toBeLessThanOrEqual(bytes.length)
        expect(answered).toBeLessThanOrEqual(12 * bytes.length)
      }),
      runs,
    )
  })

  it('never answers the same wish twice, so that two of its kind come to an end', () => {
    const answers: Buffer[] = []
    const decoder = new TelnetDecoder((reply) => answers.push(Buffer.from(reply)))
    for (let turn = 0; turn < 10; turn += 1) decoder.take(Buffer.from([255, 251, 1, 255, 253, 24, 255, 253, 31]))
    expect(answers.map((each) => [...each])).toEqual([
      [255, 253, 1],
      [255, 252, 24],
      [255, 251, 31],
      [255, 250, 31, 2, 0, 2, 0, 255, 240],
    ])
  })

  it('brings every line over as it was typed', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
        // A null after a carriage return is Telnet's own.
        const typed = Buffer.from(bytes).filter((byte, at) => !(byte === 0 && bytes[at - 1] === 13))
        expect(new TelnetDecoder(() => undefined).take(telnetEncoded(Buffer.from(typed)))).toEqual(Buffer.from(typed))
      }),
      runs,
    )
  })
})

describe('what a terminal shows', () => {
  it.each([
    ['a line that is written over', 'more?\r     \rnext', 'next'],
    ['signs that are rubbed out', 'netx\b\bxt', 'next'],
    ['a line that is erased', 'old text\r\x1b[Knew', 'new'],
    ['colours and movements', '\x1b[1;31mred\x1b[0m\x1b]0;title\x07 end', 'red end'],
    ['what stands before the cursor alone, in the last line', 'name : \b', 'name :'],
    ['lines without the spaces at their end', 'a  \r\nb  ', 'a\nb  '],
  ])('is %s', (_what, raw, shown) => {
    expect(shownOn(raw)).toBe(shown)
  })

  it('is found for any signs, and never longer than they are', () => {
    const signs = fc.oneof(fc.constantFrom('\r', '\n', '\b', '\x1b[', '\x1b]', 'K', '\uE000', '\t'), fc.string())
    fc.assert(
      fc.property(
        fc.array(signs, { maxLength: 60 }).map((all) => all.join('')),
        (raw) => {
          expect(shownOn(raw).length).toBeLessThanOrEqual(raw.length)
        },
      ),
      runs,
    )
  })
})
