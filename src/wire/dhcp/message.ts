/**
 * DHCP messages (RFC 2131) within their IPv4 and UDP headers, as they are seen on the wire: what a server offers, and
 * what a unit asks. Read strictly, and from the wire's bytes alone.
 */
import { ipv4At, macAt, macBytes } from '../codec/ethernet'
import {
  broadcastFlag,
  clientPort,
  cookie,
  type DhcpKind,
  dhcpFrame,
  fixedLength,
  kindCode,
  kinds,
  options,
  serverPort,
  udp,
} from './frame'

export interface DhcpMessage {
  readonly kind: DhcpKind
  readonly transaction: number
  /** MAC of whoever asks. */
  readonly client: string
  /** Address that the client has, and answers at (`ciaddr`); 0.0.0.0 where it has none yet. */
  readonly has: string
  /** Address that the client would like (option 50). */
  readonly wants: string | undefined
  /** Whether a relay agent has passed it on (`giaddr`): the client is on another wire. */
  readonly way: 'direct' | 'relayed'
  /** How the client can be answered while it has no address. */
  readonly answeredBy: 'broadcast' | 'unicast'
  /** Whom it says that it is beside its MAC (option 61), as it came. */
  readonly clientId: Buffer | undefined
  /** Address that is offered or given; 0.0.0.0 where none is. */
  readonly offered: string
  /** Who serves (option 54), else who sent it. */
  readonly server: string | undefined
  readonly prefix: number | undefined
  readonly router: string | undefined
  readonly hostName: string | undefined
  /** What kind of device asks (option 60, RFC 2132 9.13). */
  readonly vendorClass: string | undefined
  /** Vendor-specific information (option 43, RFC 2132 8.4), hexadecimal. */
  readonly vendor: string | undefined
  /** CAPWAP controllers (option 138, RFC 5417). */
  readonly controllers: readonly string[]
  /** Option 224, of private use (RFC 3942), hexadecimal. */
  readonly privateUse: string | undefined
}

/** @param payload  of an Ethernet frame of type IPv4. @returns undefined where it is no whole DHCP message */
export function readDhcp(payload: Buffer): DhcpMessage | undefined {
  const headerBytes = payload.length < 20 ? 0 : ((payload[0] ?? 0) & 0x0f) * 4
  if ((payload[0] ?? 0) >> 4 !== 4 || headerBytes < 20 || payload[9] !== udp) return undefined
  const datagram = payload.subarray(headerBytes)
  if (datagram.length < 8 + fixedLength + 4) return undefined
  const ports = [datagram.readUInt16BE(0), datagram.readUInt16BE(2)]
  if (!ports.includes(serverPort) || !ports.some((port) => port === clientPort || port === serverPort)) return undefined
  const message = datagram.subarray(8)
  const isEthernet = message[1] === 1 && message[2] === 6
  if (!isEthernet || message.readUInt32BE(fixedLength) !== cookie) return undefined
  const found = optionsOf(message.subarray(fixedLength + 4))
  const kind = kinds[(found.get(options.messageType)?.[0] ?? 0) - 1]
  if (!kind) return undefined
  const address = (code: number): string | undefined => {
    const value = found.get(code)
    return value && value.length >= 4 ? ipv4At(value, 0) : undefined
  }
  const controllers = found.get(options.controllers)
  const isReply = message[0] === 2
  return {
    kind,
    transaction: message.readUInt32BE(4),
    client: macAt(message, 28),
    has: ipv4At(message, 12),
    wants: address(options.wanted),
    way: message.readUInt32BE(24) === 0 ? 'direct' : 'relayed',
    answeredBy: (message.readUInt16BE(10) & broadcastFlag) === 0 ? 'unicast' : 'broadcast',
    clientId: found.get(options.clientId),
    offered: ipv4At(message, 16),
    server: address(options.server) ?? (isReply ? ipv4At(payload, 12) : undefined),
    prefix: prefixOf(found.get(options.mask)),
    router: address(options.router),
    hostName: plainText(found.get(options.hostName)),
    vendorClass: plainText(found.get(options.vendorClass)),
    vendor: found.get(options.vendor)?.toString('hex'),
    controllers: controllers
      ? Array.from({ length: Math.floor(controllers.length / 4) }, (_, index) => ipv4At(controllers, index * 4))
      : [],
    privateUse: found.get(options.privateUse)?.toString('hex'),
  }
}

/** Options by their code; a repeated one is put together (RFC 3396). What runs over the end is left out. */
function optionsOf(bytes: Buffer): Map<number, Buffer> {
  const found = new Map<number, Buffer>()
  let at = 0
  while (at < bytes.length) {
    const code = bytes[at] ?? 0
    if (code === options.end) break
    if (code === 0) {
      at += 1
      continue
    }
    const length = bytes[at + 1]
    if (length === undefined || at + 2 + length > bytes.length) break
    const value = bytes.subarray(at + 2, at + 2 + length)
    const before = found.get(code)
    found.set(code, before ? Buffer.concat([before, value]) : value)
    at += 2 + length
  }
  return found
}

function prefixOf(mask: Buffer | undefined): number | undefined {
  if (mask?.length !== 4) return undefined
  const bits = mask.readUInt32BE(0).toString(2).padStart(32, '0')
  return /^1*0*$/.test(bits) ? bits.replace(/0+$/, '').length : undefined
}

/** Text of a device: printable, one line, bounded by the option itself. */
function plainText(value: Buffer | undefined): string | undefined {
  return value?.toString('utf8').replace(/[^\x20-\x7e\u00a0-\uffff]+/g, '')
}

/** Whole frame that asks every server for an offer and takes none. @param from  MAC of the interface */
export function dhcpDiscover(from: string, transaction: number): Buffer {
  const message = Buffer.alloc(fixedLength)
  message.set([1, 1, 6, 0])
  message.writeUInt32BE(transaction, 4)
  // The answer comes as a broadcast: nobody here has an address to be answered at.
  message.writeUInt16BE(broadcastFlag, 10)
  macBytes(from).copy(message, 28)
  const wanted = [options.mask, options.router, 6, options.vendor, options.vendorClass, options.controllers]
  const tail = [
    ...[options.messageType, 1, kindCode('discover')],
    ...[options.parameters, wanted.length + 1, ...wanted, options.privateUse],
  ]
  return dhcpFrame({ from, ports: [clientPort, serverPort], message, tail: Buffer.from(tail) })
}
