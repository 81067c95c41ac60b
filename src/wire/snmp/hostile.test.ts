/** What an agent sends is hostile: ten thousand replies that are not quite right, and none ends this program. */
import { createSocket, type Socket } from 'node:dgram'
import type { AddressInfo } from 'node:net'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { often } from '../../../tests/support/long'
import { systemGroup } from './answer'
import { askAsUser, askCommunity } from './snmp'

const agent: Socket = createSocket('udp4')
let path: { host: string; port: number; source: string }
/** What is sent for a question: garbled, before the answer that is good. */
let garbled: (good: Buffer) => Buffer = (good) => good
let isVersion3 = false

/** A reply of version 2c that tells one name: by hand, BER of RFC 3416. */
function reply(question: Buffer): Buffer {
  // The number of the question stands behind its PDU's tag and length.
  const pdu = question.indexOf(0xa0, 5)
  const number = question.subarray(pdu + 2, pdu + 4 + (question[pdu + 3] ?? 0))
  const field = (tag: number, ...parts: Buffer[]): Buffer => {
    const value = Buffer.concat(parts)
    return Buffer.concat([Buffer.from([tag, value.length]), value])
  }
  const oid = Buffer.from([0x2b, 6, 1, 2, 1, 1, 5, 0])
  const told = field(0x30, field(0x30, field(0x06, oid), field(0x04, Buffer.from('Mast 7'))))
  const zero = field(0x02, Buffer.from([0]))
  const body = field(0xa2, number, zero, zero, told)
  return field(0x30, field(0x02, Buffer.from([1])), field(0x04, Buffer.from('public')), body)
}

beforeAll(async () => {
  agent.on('message', (question, from) => {
    const good = isVersion3 ? question : reply(question)
    agent.send(garbled(good), from.port, from.address)
    if (!isVersion3) agent.send(good, from.port, from.address)
  })
  await new Promise<void>((resolve) => agent.bind({ address: '127.0.0.1' }, resolve))
  path = { host: '127.0.0.1', port: (agent.address() as AddressInfo).port, source: '127.0.0.1' }
})
afterAll(() => void agent.close())

const changes = fc.record({
  bytes: fc.array(fc.tuple(fc.nat(), fc.nat({ max: 255 })), { minLength: 1, maxLength: 12 }),
  cut: fc.option(fc.nat({ max: 60 }), { nil: undefined, freq: 3 }),
})
const changed = (good: Buffer, { bytes, cut }: { bytes: [number, number][]; cut: number | undefined }): Buffer => {
  const bad = Buffer.from(good)
  for (const [at, value] of bytes) bad[at % bad.length] = value
  return bad.subarray(0, cut === undefined ? bad.length : Math.max(1, bad.length - cut))
}

describe('SNMP', () => {
  it('reads the answer that is good', async () => {
    expect(await askCommunity(path, 'public', [systemGroup.name])).toEqual({
      kind: 'told',
      values: [Buffer.from('Mast 7')],
    })
  })

  it('ten thousand garbled replies of version 2c', async () => {
    await fc.assert(
      fc.asyncProperty(changes, async (change) => {
        garbled = (good) => changed(good, change)
        const answer = await askCommunity(path, 'public', [systemGroup.name])
        expect(['told', 'refused']).toContain(answer.kind)
      }),
      { numRuns: often(500, 10_000) },
    )
  })

  it('an answer of somebody else is none', async () => {
    const other = createSocket('udp4')
    garbled = (good) => {
      other.send(
        good.map((byte, at) => (at > good.length - 3 ? 0x58 : byte)),
        1,
        '127.0.0.1',
      )
      return Buffer.from([0x30, 0])
    }
    expect(await askCommunity(path, 'public', [systemGroup.name])).toEqual({
      kind: 'told',
      values: [Buffer.from('Mast 7')],
    })
    other.close()
  })

  it('garbled replies of version 3 end as no answer or a refusal', async () => {
    isVersion3 = true
    const login = { user: 'watch', authentication: 'a key to sign with', privacy: 'a key to hide with' }
    const many = fc.sample(changes, { numRuns: often(20, 200), seed: 3 })
    let at = 0
    garbled = (good) => changed(good, many[at++ % many.length] ?? { bytes: [], cut: 0 })
    const kinds = await Promise.all(many.map(() => askAsUser(path, login, [systemGroup.name])))
    expect(kinds.filter(({ kind }) => kind === 'told')).toEqual([])
    isVersion3 = false
  })
})
