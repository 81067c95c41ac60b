import { createSocket, type Socket } from 'node:dgram'
import type { AddressInfo } from 'node:net'
import fc from 'fast-check'
import { afterEach, expect, it } from 'vitest'
import { discover, discoveryRequest, readDiscovery } from './discovery'

/** A response by hand, after RFC 5415: 4.3, 4.5.1, 4.6.1, 4.6.4, 4.6.9. */
const response = Buffer.from(
  [
    '0010020000000000', // version 0; two words of header, IEEE 802.11; no fragment
    '00000002 07 002d 00', // discovery response, sequence 7, 45 bytes follow the sequence number
    '0001 0014 0000 07d0 0003 0020 02 02 00 02 00007ed9 0004 0000', // three of 32 have joined
    '0004 0004 7261636b', // rack
    '000a 0006 0a2c0814 0003', // 10.44.8.20
    '', // nothing more
  ]
    .join('')
    .replaceAll(' ', ''),
  'hex',
)

let socket: Socket | undefined
afterEach(() => {
  socket?.close()
  socket = undefined
})

it('reads who answers, with how many have joined and where', () => {
  expect(readDiscovery(response)).toEqual({
    sequence: 7,
    name: 'rack',
    joined: 3,
    most: 32,
    addresses: ['10.44.8.20'],
  })
  expect(readDiscovery(discoveryRequest(1))).toBeUndefined()
})

it('asks again where a datagram is lost, and takes no answer from elsewhere', async () => {
  let asked = 0
  socket = createSocket('udp4')
  const server = socket
  await new Promise<void>((resolve) => server.bind(0, '127.0.0.1', resolve))
  const stranger = createSocket('udp4')
  server.on('message', (message, from) => {
    asked += 1
    // The first is lost, and somebody else talks into it.
    stranger.send(response, from.port, from.address)
    if (asked < 2) return
    const answer = Buffer.from(response)
    answer[12] = message[12] ?? 0
    server.send(answer, from.port, from.address)
  })
  const { port } = server.address() as AddressInfo
  const found = await discover({ host: '127.0.0.1', port, source: '127.0.0.1' }, 3000)
  expect(found).toMatchObject({ name: 'rack', sequence: 2 })
  stranger.close()
})

it('gives up where nobody answers', async () => {
  expect(await discover({ host: '127.0.0.1', port: 9, source: '127.0.0.1' }, 300)).toBeUndefined()
})

it('survives ten thousand hostile answers', () => {
  const changed = fc
    .tuple(
      fc.array(fc.tuple(fc.nat({ max: response.length - 1 }), fc.nat({ max: 255 })), { maxLength: 12 }),
      fc.nat({ max: response.length }),
    )
    .map(([changes, length]) => {
      const bytes = Buffer.from(response)
      for (const [at, value] of changes) bytes[at] = value
      return bytes.subarray(0, length)
    })
  fc.assert(
    fc.property(
      fc.oneof(
        changed,
        fc.uint8Array({ maxLength: 200 }).map((bytes) => Buffer.from(bytes)),
      ),
      (bytes) => {
        const found = readDiscovery(bytes)
        if (found) expect(found.addresses.length).toBeLessThanOrEqual(16)
      },
    ),
    { numRuns: 10_000 },
  )
})
