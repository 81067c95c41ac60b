import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { often } from '../../../tests/support/long'
import { dhcpDiscover, readDhcp } from '../dhcp/message'
import { arpProbe, readArp } from './arp'
import { framesOf, NotACapture } from './capture'
import { readFrame, withTag } from './ethernet'
import { readLldp } from './lldp'

const mac = '02:4f:52:00:00:01'
/** Random bytes, and a good message with some of its bytes changed. */
function survives(read: (bytes: Buffer) => unknown, good: Buffer): void {
  const random = fc.uint8Array({ maxLength: 700 })
  const changed = fc
    .array(fc.tuple(fc.nat({ max: good.length - 1 }), fc.nat({ max: 255 })), { minLength: 1, maxLength: 8 })
    .chain((changes) => fc.nat({ max: good.length }).map((length) => ({ changes, length })))
    .map(({ changes, length }) => {
      const bytes = Buffer.from(good)
      for (const [at, value] of changes) bytes[at] = value
      return bytes.subarray(0, length)
    })
  for (const bytes of [random, changed])
    fc.assert(
      fc.property(bytes, (each) => {
        const found = read(Buffer.from(each))
        if (found !== undefined) expect(JSON.stringify(found).length).toBeLessThan(16_000)
      }),
      { numRuns: often(2000, 10_000) },
    )
}
const lldp = Buffer.concat([
  Buffer.from([0x02, 0x07, 0x04, 0x02, 0x11, 0x22, 0x33, 0x44, 0x55]),
  Buffer.from([0x04, 0x06, 0x05]),
  Buffer.from('port7'),
  Buffer.from([0x06, 0x02, 0x00, 0x78, 0x0a, 0x06]),
  Buffer.from('bench1'),
  Buffer.from([0x10, 0x0c, 0x05, 0x01, 10, 44, 8, 2, 0x02, 0, 0, 0, 1, 0, 0, 0]),
])

describe('frames', () => {
  it('carry a probe for an address that claims none', () => {
    const frame = readFrame(arpProbe(mac, '192.168.77.1'))
    expect(frame).toMatchObject({ to: 'ff:ff:ff:ff:ff:ff', from: mac, type: 0x0806, vlan: null })
    expect(readArp(frame?.payload ?? Buffer.alloc(0))).toEqual({
      ...{ kind: 'request', senderMac: mac, senderAddress: '0.0.0.0', targetAddress: '192.168.77.1' },
    })
  })

  it('are read behind the tag of a VLAN', () => {
    const plain = arpProbe(mac, '10.0.0.1')
    const tagged = Buffer.concat([plain.subarray(0, 12), Buffer.from([0x81, 0x00, 0x20, 44]), plain.subarray(12)])
    expect(readFrame(tagged)).toMatchObject({ type: 0x0806, vlan: 44 })
    expect(readFrame(withTag(plain, 44))).toMatchObject({ from: mac, type: 0x0806, vlan: 44 })
    expect(withTag(plain, null)).toEqual(plain)
  })

  it('come out of a capture however it is cut, and what is none is refused', () => {
    const frame = arpProbe(mac, '10.0.0.1')
    const head = Buffer.alloc(24)
    head.writeUInt32LE(0xa1b2c3d4, 0)
    head.writeUInt32LE(1, 20)
    const record = Buffer.alloc(16)
    record.writeUInt32LE(frame.length, 8)
    const whole = Buffer.concat([head, record, frame, record, frame])
    for (let at = 0; at <= whole.length; at += 1) {
      const found: Buffer[] = []
      const take = framesOf((each) => found.push(Buffer.from(each)))
      take(whole.subarray(0, at))
      take(whole.subarray(at))
      expect(found).toEqual([frame, frame])
    }
    expect(() => framesOf(() => undefined)(Buffer.alloc(24))).toThrow(NotACapture)
  })
})

describe('a message of the wire', () => {
  it('of LLDP tells switch, port and address', () => {
    expect(readLldp(lldp)).toMatchObject({
      ...{ chassis: '02:11:22:33:44:55', port: 'port7', timeToLive: 120, name: 'bench1', address: '10.44.8.2' },
    })
    expect(readLldp(lldp.subarray(9))).toBeUndefined()
  })

  it('of DHCP asks every server and is read back', () => {
    const frame = readFrame(dhcpDiscover(mac, 7))
    expect(readDhcp(frame?.payload ?? Buffer.alloc(0))).toMatchObject({ kind: 'discover', transaction: 7, client: mac })
  })

  it('of ARP, LLDP or DHCP does no harm, whatever it holds', () => {
    survives(readArp, arpProbe(mac, '10.0.0.1').subarray(14))
    survives(readLldp, lldp)
    survives(readDhcp, dhcpDiscover(mac, 7).subarray(14))
    survives((bytes) => {
      try {
        framesOf(() => undefined)(bytes)
      } catch (error) {
        expect(error).toBeInstanceOf(NotACapture)
      }
    }, Buffer.alloc(40))
  })
})
