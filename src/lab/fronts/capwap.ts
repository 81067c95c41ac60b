/** What a controller answers to whoever asks who manages access points here (RFC 5415, 5.2): code of its own. */
import { createSocket, type Socket } from 'node:dgram'
import type { AddressInfo } from 'node:net'
import { parseIpv4 } from '../../core/address/ipv4'
import type { Device } from '../device/device'

export class CapwapAnswerer {
  private constructor(private readonly socket: Socket) {}

  static async listen(unit: Device): Promise<CapwapAnswerer> {
    const socket = createSocket('udp4')
    socket.on('message', (message, from) => {
      // Two words of header, then a request of type one.
      if (!unit.serviceIsUp || message.length < 16 || message.readUInt32BE(8) !== 1) return
      socket.send(answer(unit, message.readUInt8(12)), from.port, from.address)
    })
    await new Promise<void>((resolve) => socket.bind({ address: '127.0.0.1' }, resolve))
    return new CapwapAnswerer(socket)
  }

  get port(): number {
    return (this.socket.address() as AddressInfo).port
  }

  close(): Promise<void> {
    return new Promise((resolve) => this.socket.close(() => resolve()))
  }
}

function answer(unit: Device, sequence: number): Buffer {
  const bytes = Buffer.alloc(512)
  let at = 0
  const put = (size: 1 | 2 | 4, value: number): void => {
    at = bytes.writeUIntBE(value, at, size)
  }
  const text = (value: string): void => {
    at += bytes.write(value, at, 'utf8')
  }
  const element = (type: number, fill: () => void): void => {
    put(2, type)
    const lengthAt = at
    put(2, 0)
    fill()
    bytes.writeUInt16BE(at - lengthAt - 2, lengthAt)
  }
  const software = (type: number, value: string): void => {
    put(4, 32473)
    put(2, type)
    put(2, Buffer.byteLength(value))
    text(value)
  }
  for (const byte of [0, 0x10, 0x02, 0, 0, 0, 0, 0]) put(1, byte)
  put(4, 2)
  put(1, sequence)
  const lengthAt = at
  put(2, 0)
  put(1, 0)
  const { points } = unit.effective
  element(1, () => {
    put(2, 0)
    put(2, 2000)
    put(2, points.filter(({ mac }) => unit.joins.of(mac, unit.identity.mac).standing === 'run').length)
    put(2, unit.sheet.mostPoints ?? 0)
    // Certificates, no radio MAC to speak of, no clear text for data.
    for (const byte of [0x02, 0x02, 0, 0x02]) put(1, byte)
    software(4, unit.sheet.model)
    software(5, unit.firmware)
  })
  element(4, () => text(unit.effective.name))
  element(1048, () => {
    put(1, 0)
    put(4, 0x0f)
  })
  element(10, () => {
    put(4, parseIpv4(unit.address ?? '') ?? 0)
    put(2, points.length)
  })
  bytes.writeUInt16BE(at - lengthAt, lengthAt)
  return bytes.subarray(0, at)
}
