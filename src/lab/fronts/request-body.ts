import type { IncomingMessage } from 'node:http'
import { Refusal } from '../device/refusal'

/**
 * The whole body of a request, in UTF-8.
 * @param longest  bytes
 * @param tooLong  what the unit says to more
 * @throws Refusal
 */
export async function bodyOf(request: IncomingMessage, longest: number, tooLong: string): Promise<string> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > longest) throw new Refusal('malformed-message', tooLong)
    chunks.push(chunk)
  }
  return Buffer.concat(chunks).toString('utf8')
}
