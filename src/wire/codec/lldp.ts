/** LLDP (IEEE 802.1AB-2016, clause 8): what the other end of a cable says of itself. */
import { ipv4At, macAt } from './ethernet'

const tlv = { end: 0, chassis: 1, port: 2, timeToLive: 3, portWords: 4, name: 5, words: 6, management: 8 } as const
const ofMac = { chassis: 4, port: 3 } as const
const addressIpv4 = 1

export interface LldpNeighbour {
  readonly chassis: string
  readonly port: string
  readonly portWords: string | undefined
  readonly name: string | undefined
  readonly words: string | undefined
  /** IPv4 address at which it is managed. */
  readonly address: string | undefined
  /** Seconds that this counts. */
  readonly timeToLive: number
}

/** @returns undefined where it is no LLDP data unit with its three mandatory parts in their order (8.2) */
export function readLldp(payload: Buffer): LldpNeighbour | undefined {
  const parts: { type: number; value: Buffer }[] = []
  for (let at = 0; at + 2 <= payload.length; ) {
    const head = payload.readUInt16BE(at)
    const [type, length] = [head >> 9, head & 0x1ff]
    if (type === tlv.end) break
    if (at + 2 + length > payload.length) return undefined
    parts.push({ type, value: payload.subarray(at + 2, at + 2 + length) })
    at += 2 + length
  }
  const [chassis, port, life] = parts
  const begins = chassis?.type === tlv.chassis && port?.type === tlv.port && life?.type === tlv.timeToLive
  if (!begins || chassis.value.length < 2 || port.value.length < 2 || life.value.length < 2) return undefined
  const textOf = (type: number): string | undefined => {
    const part = parts.find((each) => each.type === type)
    return part && plain(part.value)
  }
  const management = parts.find(
    ({ type, value }) => type === tlv.management && value[0] === 5 && value[1] === addressIpv4,
  )
  return {
    chassis: identifier(chassis.value, ofMac.chassis),
    port: identifier(port.value, ofMac.port),
    portWords: textOf(tlv.portWords),
    name: textOf(tlv.name),
    words: textOf(tlv.words),
    address: management && management.value.length >= 6 ? ipv4At(management.value, 2) : undefined,
    timeToLive: life.value.readUInt16BE(0),
  }
}

/** An identifier says first of what kind it is: a MAC, or a text. */
function identifier(value: Buffer, macKind: number): string {
  const [kind, rest] = [value[0], value.subarray(1)]
  return kind === macKind && rest.length === 6 ? macAt(rest, 0) : plain(rest)
}

const plain = (value: Buffer): string =>
  value
    .toString('utf8')
    .replace(/[^\x20-\x7e\u00a0-\uffff]+/g, ' ')
    .trim()
