import { describe, expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import { LineTooLong, linesOf } from './lines'

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)

describe('lines', () => {
  it('come out the same, however the stream is cut', () => {
    const whole = bytes('{"a":"é€"}\n\n{"b":2}\nrest')
    for (let at = 0; at <= whole.length; at += 1) {
      const heard: string[] = []
      const take = linesOf((line) => heard.push(line))
      take(whole.subarray(0, at))
      take(whole.subarray(at))
      expect(heard).toEqual(['{"a":"é€"}', '', '{"b":2}'])
    }
  })

  it('are bounded, whole or not', () => {
    const take = linesOf(() => undefined, 4)
    take(bytes('abcd\nab'))
    expect(() => take(bytes('cde'))).toThrow(LineTooLong)
    expect(english(() => linesOf(() => undefined, 4)(bytes('abcde\n')))).toThrow('a line of more than 4 bytes')
  })
})
