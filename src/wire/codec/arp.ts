/** ARP over Ethernet (RFC 826): probes (RFC 5227) and whoever answers them. */
import { broadcastMac, etherTypes, frameHead, ipv4At, ipv4Bytes, macAt, macBytes } from './ethernet'

const ethernet = 1
const request = 1
const reply = 2
/** Of a host that has none, or does not claim one yet. */
export const noAddress = '0.0.0.0'

export interface ArpMessage {
  readonly kind: 'request' | 'reply'
  readonly senderMac: string
  readonly senderAddress: string
  readonly targetAddress: string
}

/**
 * Asks who has an address, without claiming one: a probe of RFC 5227, 2.1.1.
 *
 * @param from  MAC of the interface that it leaves by
 */
export function arpProbe(from: string, address: string): Buffer {
  const head = frameHead(broadcastMac, from, etherTypes.arp)
  const body = Buffer.from([0, ethernet, 0x08, 0x00, 6, 4, 0, request])
  return Buffer.concat([head, body, macBytes(from), ipv4Bytes(noAddress), Buffer.alloc(6), ipv4Bytes(address)])
}

interface Holder {
  readonly mac: string
  readonly address: string
}

/** Tells whoever asked that an address is here. */
export function arpReply(here: Holder, to: Holder): Buffer {
  const head = frameHead(to.mac, here.mac, etherTypes.arp)
  const body = Buffer.from([0, ethernet, 0x08, 0x00, 6, 4, 0, reply])
  const both = [here, to].flatMap(({ mac, address }) => [macBytes(mac), ipv4Bytes(address)])
  return Buffer.concat([head, body, ...both])
}

/** @returns undefined where it is no ARP for IPv4 over Ethernet */
export function readArp(payload: Buffer): ArpMessage | undefined {
  if (payload.length < 28) return undefined
  const isIpv4OverEthernet =
    payload.readUInt16BE(0) === ethernet &&
    payload.readUInt16BE(2) === etherTypes.ipv4 &&
    payload[4] === 6 &&
    payload[5] === 4
  const operation = payload.readUInt16BE(6)
  if (!isIpv4OverEthernet || (operation !== request && operation !== reply)) return undefined
  return {
    kind: operation === request ? 'request' : 'reply',
    senderMac: macAt(payload, 8),
    senderAddress: ipv4At(payload, 14),
    targetAddress: ipv4At(payload, 24),
  }
}
