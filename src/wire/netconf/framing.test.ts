import { describe, expect, it } from 'vitest'
import { FrameReader, framed } from './framing'

const reading = (framing: 'end-mark' | 'chunks'): FrameReader => {
  const reader = new FrameReader()
  reader.framing = framing
  return reader
}
const all = (reader: FrameReader): string[] => {
  const messages: string[] = []
  for (let next = reader.next(); next !== undefined; next = reader.next()) messages.push(next)
  return messages
}

describe('framing of NETCONF over SSH', () => {
  it.each(['end-mark', 'chunks'] as const)('hands out whole messages, however they are cut (%s)', (framing) => {
    const bytes = Buffer.from(['<a>é</a>', '<b/>', '東京'].map((each) => framed(each, framing)).join(''))
    for (const step of [1, 2, 3, 7, bytes.length]) {
      const reader = reading(framing)
      const got: string[] = []
      for (let at = 0; at < bytes.length; at += step) {
        reader.take(bytes.subarray(at, at + step))
        got.push(...all(reader))
      }
      expect(got).toEqual(['<a>é</a>', '<b/>', '東京'])
    }
  })

  it('joins the chunks of one message, as the example of RFC 6242, 4.2 has them', () => {
    const reader = reading('chunks')
    const text =
      '\n#4\n<rpc\n#18\n message-id="102"\n\n#79\n     xmlns="urn:ietf:params:xml:ns:netconf:base:1.0">\n  ' +
      '<close-session/>\n</rpc>\n##\n'
    reader.take(Buffer.from(text))
    expect(reader.next()).toBe(
      '<rpc message-id="102"\n     xmlns="urn:ietf:params:xml:ns:netconf:base:1.0">\n  <close-session/>\n</rpc>',
    )
  })

  it.each(['\n#0\n', '\n#01\nx', '\n##\n', 'x', '\n#-1\n', '\n#12345678901\n', '\n#9999999999\n'])(
    'refuses %j, which is no chunk of that RFC',
    (text) => {
      const reader = reading('chunks')
      reader.take(Buffer.from(text))
      expect(() => reader.next()).toThrow(/garbled/)
    },
  )

  it('waits for a head that has not all come', () => {
    for (const part of ['', '\n', '\n#', '\n#1', '\n#12', '\n##']) {
      const reader = reading('chunks')
      reader.take(Buffer.from(part))
      expect(reader.next(), part).toBeUndefined()
    }
  })

  it('does not gather without end', () => {
    const reader = reading('end-mark')
    const much = Buffer.alloc(1024 * 1024, 'x')
    expect(() => {
      for (let count = 0; count < 6; count += 1) reader.take(much)
    }).toThrow(/garbled/)
  })
})
