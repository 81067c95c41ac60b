/** Debian's tshark dissects what we ask and what the stand-in of a controller answers, without a word of complaint. */
import { spawnSync } from 'node:child_process'
import { createSocket } from 'node:dgram'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, expect, it } from 'vitest'
import { Lab } from '../../src/lab/lab'
import { discoveryRequest, readDiscovery } from '../../src/wire/capwap/discovery'
import { regulatory } from '../support/data'

const mac = '02:7a:c1:00:00:01'
const folder = mkdtempSync(join(tmpdir(), 'air-muster-capwap-'))
let lab: Lab
afterEach(async () => {
  await lab.close()
  rmSync(folder, { recursive: true, force: true })
})

/** A capture of datagrams (classic libpcap, raw IP), each to or from the port of CAPWAP control. */
function capture(messages: readonly { bytes: Buffer; from: number; to: number }[]): Buffer {
  const head = Buffer.alloc(24)
  head.writeUInt32LE(0xa1b2c3d4, 0)
  head.writeUInt16LE(2, 4)
  head.writeUInt16LE(4, 6)
  head.writeUInt32LE(65535, 16)
  head.writeUInt32LE(101, 20)
  const frames = messages.map(({ bytes, from, to }) => {
    const ip = Buffer.alloc(28)
    ip[0] = 0x45
    ip.writeUInt16BE(28 + bytes.length, 2)
    ip[8] = 64
    ip[9] = 17
    ip.writeUInt32BE(0x0a2c0801, 12)
    ip.writeUInt32BE(0x0a2c0814, 16)
    ip.writeUInt16BE(from, 20)
    ip.writeUInt16BE(to, 22)
    ip.writeUInt16BE(8 + bytes.length, 24)
    const frame = Buffer.concat([ip, bytes])
    const record = Buffer.alloc(16)
    record.writeUInt32LE(frame.length, 8)
    record.writeUInt32LE(frame.length, 12)
    return Buffer.concat([record, frame])
  })
  return Buffer.concat([head, ...frames])
}

it('a discovery and its answer', async () => {
  lab = await Lab.open({ pace: 1000, regulatory, shelf: [{ model: 'Tarnhelm C1', mac, serial: 'C1-1' }] })
  lab.plugInAll()
  const { unit, front } = lab.plugged(mac)
  await expect.poll(() => unit.serviceIsUp).toBe(true)
  const asked = discoveryRequest(9)
  const socket = createSocket('udp4')
  const answered = await new Promise<Buffer>((resolve) => {
    socket.once('message', resolve)
    socket.send(asked, front.datagramPort?.(5246) ?? 0, '127.0.0.1')
  })
  socket.close()
  expect(readDiscovery(answered)).toMatchObject({
    sequence: 9,
    name: 'c1-0001',
    most: 32,
    addresses: ['192.168.77.250'],
  })

  const file = join(folder, 'discovery.pcap')
  writeFileSync(
    file,
    capture([
      { bytes: asked, from: 40000, to: 5246 },
      { bytes: answered, from: 5246, to: 40000 },
    ]),
  )
  const { stdout, status } = spawnSync('tshark', ['-r', file, '-V', '-o', 'ip.check_checksum:FALSE'], {
    encoding: 'utf8',
  })
  expect(status).toBe(0)
  expect(stdout).toContain('(Enterprise Specific): Discovery Request (1)')
  expect(stdout).toContain('(Enterprise Specific): Discovery Response (2)')
  expect(stdout).toContain('AC Name: c1-0001')
  expect(stdout).not.toMatch(/malformed|expert info \((warn|error)|unknown message element|undecoded/i)
})
