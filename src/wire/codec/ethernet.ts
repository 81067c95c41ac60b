/** Frames on an Ethernet (IEEE 802.3): addresses and types, and the file format in which a listener hands them out. */

export const broadcastMac = 'ff:ff:ff:ff:ff:ff'
export const etherTypes = { arp: 0x0806, lldp: 0x88cc, ipv4: 0x0800, vlan: 0x8100 } as const

export function macBytes(mac: string): Buffer {
  return Buffer.from(mac.replaceAll(':', ''), 'hex')
}

/** Six bytes at an offset as `02:4f:52:00:00:01`. */
export function macAt(frame: Uint8Array, offset: number): string {
  return Array.from(frame.subarray(offset, offset + 6), (byte) => byte.toString(16).padStart(2, '0')).join(':')
}

/** What a frame begins with, without a tag. */
export function frameHead(to: string, from: string, type: number): Buffer {
  const head = Buffer.alloc(14)
  macBytes(to).copy(head, 0)
  macBytes(from).copy(head, 6)
  head.writeUInt16BE(type, 12)
  return head
}

export function ipv4Bytes(address: string): Buffer {
  return Buffer.from(address.split('.').map(Number))
}

export function ipv4At(frame: Uint8Array, offset: number): string {
  return Array.from(frame.subarray(offset, offset + 4)).join('.')
}

export interface Frame {
  readonly to: string
  readonly from: string
  /** EtherType, after a VLAN tag where there is one. */
  readonly type: number
  readonly vlan: number | null
  readonly payload: Buffer
}

/** The same frame with the tag of a VLAN (IEEE 802.1Q); as it is for null. */
export function withTag(frame: Buffer, vlan: number | null): Buffer {
  if (vlan === null) return frame
  const tag = Buffer.alloc(4)
  tag.writeUInt16BE(etherTypes.vlan, 0)
  tag.writeUInt16BE(vlan, 2)
  return Buffer.concat([frame.subarray(0, 12), tag, frame.subarray(12)])
}

/** @returns undefined where it is no whole frame with an EtherType */
export function readFrame(bytes: Buffer): Frame | undefined {
  if (bytes.length < 14) return undefined
  const outer = bytes.readUInt16BE(12)
  const tagged = outer === etherTypes.vlan
  if (tagged && bytes.length < 18) return undefined
  return {
    to: macAt(bytes, 0),
    from: macAt(bytes, 6),
    type: tagged ? bytes.readUInt16BE(16) : outer,
    vlan: tagged ? bytes.readUInt16BE(14) & 0x0fff : null,
    payload: bytes.subarray(tagged ? 18 : 14),
  }
}
