/** What a server answers (RFC 2131, 4.3.1), as a whole frame. */
import { formatIpv4, maskOf } from '../../core/address/ipv4'
import { ipv4Bytes, macBytes } from '../codec/ethernet'
import {
  broadcastFlag,
  clientPort,
  type DhcpKind,
  dhcpFrame,
  fixedLength,
  kindCode,
  options,
  serverPort,
} from './frame'
import type { DhcpMessage } from './message'

export interface DhcpReply {
  readonly kind: Extract<DhcpKind, 'offer' | 'ack'>
  /** What is answered. */
  readonly to: DhcpMessage
  /** MAC and address of the server. */
  readonly from: { readonly mac: string; readonly address: string }
  readonly given: string
  readonly prefix: number
  readonly seconds: number
}

export function dhcpReply({ kind, to, from, given, prefix, seconds }: DhcpReply): Buffer {
  const message = Buffer.alloc(fixedLength)
  message.set([2, 1, 6, 0])
  message.writeUInt32BE(to.transaction, 4)
  message.writeUInt16BE(to.answeredBy === 'broadcast' ? broadcastFlag : 0, 10)
  message.set(ipv4Bytes(to.has), 12)
  message.set(ipv4Bytes(given), 16)
  macBytes(to.client).copy(message, 28)
  const leaseTime = Buffer.alloc(4)
  leaseTime.writeUInt32BE(seconds)
  const tail = [
    option(options.messageType, [kindCode(kind)]),
    option(options.server, ipv4Bytes(from.address)),
    option(options.leaseTime, leaseTime),
    option(options.mask, ipv4Bytes(formatIpv4(maskOf(prefix)))),
    // Who names itself is named in the answer (RFC 6842, 3).
    ...(to.clientId ? [option(options.clientId, to.clientId)] : []),
  ]
  const hasAddress = to.has !== '0.0.0.0'
  const direct = hasAddress || to.answeredBy === 'unicast'
  return dhcpFrame({
    from: from.mac,
    ...(direct ? { to: { mac: to.client, address: hasAddress ? to.has : given } } : {}),
    source: from.address,
    ports: [serverPort, clientPort],
    message,
    tail: Buffer.concat(tail),
  })
}

const option = (code: number, value: Iterable<number>): Buffer => {
  const bytes = [...value]
  return Buffer.from([code, bytes.length, ...bytes])
}
