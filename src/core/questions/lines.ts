/**
 * Lines in a stream of bytes: one JSON value a line. Both ends of a stream that questions go over cut it up with this.
 */

import { message } from '../message/message'
import { ToldError } from '../message/told-error'

/** Bytes that one line may have; whoever sends more is not understood. */
export const longestLine = 1024 * 1024

export class LineTooLong extends ToldError {
  override readonly name = 'LineTooLong'
  constructor(bytes: number) {
    super(message('line-too-long', { most: bytes }))
  }
}

/**
 * Gathers chunks and hands out each line that is whole, without its end.
 *
 * @param onLine  told each line in turn
 * @returns       takes the next chunk; throws LineTooLong, after which nothing more may be given to it
 */
export function linesOf(onLine: (line: string) => void, longest = longestLine): (chunk: Uint8Array) => void {
  const decoder = new TextDecoder()
  let rest: Uint8Array[] = []
  let held = 0
  return (chunk) => {
    let from = 0
    for (let end = chunk.indexOf(0x0a); end >= 0; end = chunk.indexOf(0x0a, from)) {
      const tail = chunk.subarray(from, end)
      if (held + tail.length > longest) throw new LineTooLong(longest)
      from = end + 1
      const line = rest.length === 0 ? tail : joined([...rest, tail], held + tail.length)
      rest = []
      held = 0
      onLine(decoder.decode(line))
    }
    const tail = chunk.subarray(from)
    held += tail.length
    if (held > longest) throw new LineTooLong(longest)
    if (tail.length > 0) rest.push(tail)
  }
}

function joined(parts: readonly Uint8Array[], length: number): Uint8Array {
  const whole = new Uint8Array(length)
  let at = 0
  for (const part of parts) {
    whole.set(part, at)
    at += part.length
  }
  return whole
}
