/**
 * CAPWAP discovery (RFC 5415): who manages access points here? A request as an access point sends it, and what a
 * controller answers. What comes is hostile: every length is checked.
 */
import { createSocket } from 'node:dgram'
import { formatIpv4 } from '../../core/address/ipv4'
import type { DatagramPath } from '../host/host'

/** RFC 5415, 3.1. */
export const capwapControlPort = 5246

const request = 1
const response = 2
/** Message elements (RFC 5415, 4.6; RFC 5416, 6). */
const elements = {
  acDescriptor: 1,
  acName: 4,
  controlAddress: 10,
  discoveryType: 20,
  boardData: 38,
  descriptor: 39,
  frameTunnelMode: 41,
  macType: 44,
  radioInformation: 1048,
} as const
/** Private enterprise number for documentation (RFC 5612). */
const enterprise = 32473
/** IEEE 802.11, as a wireless binding (RFC 5415, 4.3). */
const binding = 1

const u8 = (...values: number[]): Buffer => Buffer.from(values)
const u16 = (value: number): Buffer => Buffer.from([value >> 8, value & 255])
const u32 = (value: number): Buffer => {
  const bytes = Buffer.alloc(4)
  bytes.writeUInt32BE(value)
  return bytes
}
const element = (type: number, ...parts: Buffer[]): Buffer => {
  const value = Buffer.concat(parts)
  return Buffer.concat([u16(type), u16(value.length), value])
}
const named = (type: number, text: string): Buffer => {
  const value = Buffer.from(text, 'utf8')
  return Buffer.concat([u16(type), u16(value.length), value])
}
const versioned = (type: number, text: string): Buffer => Buffer.concat([u32(enterprise), named(type, text)])

/** RFC 5415, 4.3: version 0, header of two words, no radio, our binding, not a fragment. */
const header = Buffer.from([0x00, 0x10, binding << 1, 0x00, 0, 0, 0, 0])

/**
 * A Discovery Request (RFC 5415, 5.1) of something that was told where to look.
 * @param sequence  0 to 255
 */
export function discoveryRequest(sequence: number): Buffer {
  const body = Buffer.concat([
    // Told by hand (4.6.21).
    element(elements.discoveryType, u8(1)),
    // Model and serial number (4.6.40).
    element(elements.boardData, u32(enterprise), named(0, 'laptop'), named(1, '0')),
    // No radio in use, one encryption; hardware, software and boot version (4.6.41).
    element(elements.descriptor, u8(1, 0, 1, binding), u16(0), versioned(0, '1'), versioned(1, '1'), versioned(2, '1')),
    // Frames are bridged locally (4.6.43); local or split MAC (4.6.44).
    element(elements.frameTunnelMode, u8(0x02)),
    element(elements.macType, u8(2)),
    // RFC 5416, 6.25: 802.11n and before.
    element(elements.radioInformation, u8(1), u32(0x0f)),
  ])
  // RFC 5415, 4.5.1: what follows the sequence number counts.
  return Buffer.concat([header, u32(request), u8(sequence), u16(body.length + 3), u8(0), body])
}

/** What a controller tells of itself. */
export interface Discovered {
  readonly sequence: number
  readonly name: string | undefined
  /** Access points that have joined it, and as many as it takes. */
  readonly joined: number
  readonly most: number
  readonly addresses: readonly string[]
}

/** @returns undefined where it is no Discovery Response */
export function readDiscovery(message: Buffer): Discovered | undefined {
  if (message.length < 8 || message[0] !== 0) return undefined
  const start = ((message[1] ?? 0) >> 3) * 4
  if (start < 8 || message.length < start + 8) return undefined
  if (message.readUInt32BE(start) !== response) return undefined
  const sequence = message[start + 4] ?? 0
  const end = start + 5 + message.readUInt16BE(start + 5)
  if (end > message.length) return undefined
  let found: Discovered = { sequence, name: undefined, joined: 0, most: 0, addresses: [] }
  for (let at = start + 8; at < end; ) {
    if (at + 4 > end) return undefined
    const type = message.readUInt16BE(at)
    const value = message.subarray(at + 4, at + 4 + message.readUInt16BE(at + 2))
    at += 4 + message.readUInt16BE(at + 2)
    if (at > end) return undefined
    found = { ...found, ...told(type, value, found) }
  }
  return found
}

function told(type: number, value: Buffer, { addresses }: Discovered): Partial<Discovered> {
  // RFC 5415, 4.6.1: stations and their limit, then access points and theirs.
  if (type === elements.acDescriptor && value.length >= 8)
    return { joined: value.readUInt16BE(4), most: value.readUInt16BE(6) }
  if (type === elements.acName)
    return {
      name: value
        .toString('utf8')
        .replace(/[^\x20-\x7e\u00a0-\uffff]+/g, ' ')
        .slice(0, 100),
    }
  if (type === elements.controlAddress && value.length >= 4 && addresses.length < 16)
    return { addresses: [...addresses, formatIpv4(value.readUInt32BE(0))] }
  return {}
}

/** Between two requests, ms: a datagram may get lost (RFC 5415, 4.7.4 waits two to twenty seconds for more of them). */
const againMs = 500

/** Asks, and asks again. @returns undefined where nobody answers in time */
export function discover({ host, port, source }: DatagramPath, withinMs: number): Promise<Discovered | undefined> {
  return new Promise((resolve) => {
    const socket = createSocket('udp4')
    let sequence = 0
    const end = (found: Discovered | undefined): void => {
      clearInterval(asking)
      clearTimeout(late)
      socket.close()
      resolve(found)
    }
    const ask = (): void => {
      sequence = (sequence + 1) & 255
      socket.send(discoveryRequest(sequence), port, host, () => undefined)
    }
    const asking = setInterval(ask, againMs)
    const late = setTimeout(() => end(undefined), withinMs)
    socket.once('error', () => end(undefined))
    socket.on('message', (message, from) => {
      const found = from.address === host && from.port === port ? readDiscovery(message) : undefined
      if (found && found.sequence <= sequence) end(found)
    })
    socket.bind({ address: source }, ask)
  })
}
