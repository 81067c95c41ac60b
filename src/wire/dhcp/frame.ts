/** What DHCP messages (RFC 2131) have in common on the wire: their ports and options, and the frame around them. */
import { broadcastMac, etherTypes, frameHead, ipv4Bytes } from '../codec/ethernet'

export const udp = 17
export const serverPort = 67
export const clientPort = 68
/** Bytes before the options. */
export const fixedLength = 236
/** Before the first option (RFC 2131, 3). */
export const cookie = 0x63825363
/** Of the flags: the client takes no unicast before it has an address (RFC 2131, 2). */
export const broadcastFlag = 0x8000
/** Options by their code (RFC 2132; 138: RFC 5417; 224: of private use, RFC 3942). */
export const options = {
  mask: 1,
  router: 3,
  hostName: 12,
  vendor: 43,
  wanted: 50,
  leaseTime: 51,
  messageType: 53,
  server: 54,
  parameters: 55,
  vendorClass: 60,
  clientId: 61,
  controllers: 138,
  privateUse: 224,
  end: 255,
} as const

/** In the order of their codes, from 1 on (RFC 2132, 9.6). */
export const kinds = ['discover', 'offer', 'request', 'decline', 'ack', 'nak', 'release', 'inform'] as const
export type DhcpKind = (typeof kinds)[number]
export const kindCode = (kind: DhcpKind): number => kinds.indexOf(kind) + 1

export interface DhcpFrame {
  /** MAC of the interface that it leaves by. */
  readonly from: string
  /** To everybody where nothing is said. */
  readonly to?: { readonly mac: string; readonly address: string }
  /** Address that it is sent from; 0.0.0.0 where there is none. */
  readonly source?: string
  /** Source and destination. */
  readonly ports: readonly [number, number]
  /** Up to the options. */
  readonly message: Buffer
  /** Options without their end. */
  readonly tail: Buffer
}

export function dhcpFrame({ from, to, source = '0.0.0.0', ports, message, tail }: DhcpFrame): Buffer {
  const start = Buffer.alloc(4)
  start.writeUInt32BE(cookie)
  const body = Buffer.concat([message, start, tail, Buffer.from([options.end])])
  const datagram = Buffer.alloc(8)
  datagram.writeUInt16BE(ports[0], 0)
  datagram.writeUInt16BE(ports[1], 2)
  // A checksum of 0 says that there is none (RFC 768).
  datagram.writeUInt16BE(8 + body.length, 4)
  const addresses = [...ipv4Bytes(source), ...ipv4Bytes(to?.address ?? '255.255.255.255')]
  const header = Buffer.from([0x45, 0, 0, 0, 0, 0, 0, 0, 64, udp, 0, 0, ...addresses])
  header.writeUInt16BE(20 + 8 + body.length, 2)
  header.writeUInt16BE(checksum(header), 10)
  return Buffer.concat([frameHead(to?.mac ?? broadcastMac, from, etherTypes.ipv4), header, datagram, body])
}

/** Of an IPv4 header (RFC 791, 3.1), its own field being 0. */
function checksum(header: Buffer): number {
  let sum = 0
  for (let at = 0; at < header.length; at += 2) sum += header.readUInt16BE(at)
  while (sum > 0xffff) sum = (sum & 0xffff) + (sum >> 16)
  return ~sum & 0xffff
}
