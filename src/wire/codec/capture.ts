/** A capture as it streams out of a listener: the classic libpcap file format, of Ethernet frames. */

import { message } from '../../core/message/message'
import { ToldError } from '../../core/message/told-error'

const fileHeader = 24
const recordHeader = 16
const littleEndian = 0xa1b2c3d4
const nanoseconds = 0xa1b23c4d
const ethernetLink = 1
/** Longest frame that is taken, bytes; the listener is told to cut them shorter than this. */
const longestFrame = 4096

export class NotACapture extends ToldError {
  override readonly name = 'NotACapture'
}

/**
 * Gathers the chunks of a capture and hands out its frames.
 *
 * @returns takes the next chunk; throws NotACapture, after which nothing more may be given to it
 */
export function framesOf(onFrame: (frame: Buffer) => void): (chunk: Buffer) => void {
  let rest: Buffer = Buffer.alloc(0)
  let head = false
  return (chunk) => {
    rest = rest.length === 0 ? chunk : Buffer.concat([rest, chunk])
    if (!head) {
      if (rest.length < fileHeader) return
      const magic = rest.readUInt32LE(0)
      if (magic !== littleEndian && magic !== nanoseconds) throw new NotACapture(message('capture-none'))
      if (rest.readUInt32LE(20) !== ethernetLink) throw new NotACapture(message('capture-no-ethernet'))
      rest = rest.subarray(fileHeader)
      head = true
    }
    while (rest.length >= recordHeader) {
      const length = rest.readUInt32LE(8)
      if (length > longestFrame) throw new NotACapture(message('capture-frame-size', { length }))
      if (rest.length < recordHeader + length) return
      onFrame(rest.subarray(recordHeader, recordHeader + length))
      rest = rest.subarray(recordHeader + length)
    }
  }
}
