/**
 * What a NETCONF unit sends is hostile: ten thousand of each, and none ends this program or is waited for without end.
 */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { often } from '../../../tests/support/long'
import { parseXml } from '../codec/xml'
import { dataOf } from '../dialect/netconf/data-xml'
import { toObserved } from '../dialect/yang/read'
import { WireError } from '../errors/wire-error'
import { FrameReader, framed } from './framing'

const runs = { numRuns: often(500, 10_000) }
const wireless = 'urn:uuid:6f0d6a2e-9d4b-4c55-8f0e-2b1c7a53e9d4'
const good =
  '<rpc-reply xmlns="urn:ietf:params:xml:ns:netconf:base:1.0" message-id="1"><data><system ' +
  'xmlns="urn:ietf:params:xml:ns:yang:ietf-system"><hostname>a</hostname>' +
  '<ntp><server><name>x</name></server></ntp></system><wireless ' +
  `xmlns="${wireless}"><country>NZ</country><network><id>crew</id><ssid>QQ==</ssid>` +
  '<enabled>true</enabled><band>5</band><security><mode>wpa2-personal</mode></security><vlan>46</vlan></network>' +
  '<radio><band>5</band><channel>36</channel><power>17.0</power></radio></wireless></data></rpc-reply>'
const signs = [
  '<',
  '>',
  '&',
  '"',
  '</data>',
  '<a>',
  '<!DOCTYPE a [',
  '<![CDATA[',
  ']]>',
  '<?x',
  '\0',
  '&#x0;',
  '&lol;',
  'xmlns=""',
]

const changed = fc
  .tuple(
    fc.array(fc.tuple(fc.nat({ max: good.length }), fc.constantFrom(...signs)), { maxLength: 8 }),
    fc.nat({ max: good.length + 40 }),
  )
  .map(([changes, length]) =>
    changes.reduce((text, [at, sign]) => text.slice(0, at) + sign + text.slice(at), good).slice(0, length),
  )

async function endsWell(work: () => unknown): Promise<void> {
  try {
    await work()
  } catch (error) {
    expect(error).toBeInstanceOf(WireError)
  }
}

describe('a hostile NETCONF unit', () => {
  it('sends frames that are taken or refused', async () => {
    const frames = fc.oneof(
      fc.uint8Array({ maxLength: 200 }),
      fc
        .tuple(fc.constantFrom('end-mark' as const, 'chunks' as const), changed)
        .map(([framing, text]) => Buffer.from(framed(text, framing))),
      fc
        .string({ maxLength: 60, unit: fc.constantFrom('\n', '#', '1', '9', '0', 'a', ']]>]]>') })
        .map((text) => Buffer.from(text)),
    )
    await fc.assert(
      fc.asyncProperty(frames, fc.boolean(), async (bytes, chunks) => {
        const reader = new FrameReader()
        if (chunks) reader.framing = 'chunks'
        await endsWell(() => {
          reader.take(Buffer.from(bytes))
          for (let count = 0, next = reader.next(); next !== undefined && count < 300; next = reader.next()) count += 1
        })
      }),
      runs,
    )
  })

  it('sends XML that is read as settings or refused', async () => {
    await fc.assert(
      fc.asyncProperty(fc.oneof(changed, fc.string({ maxLength: 200, unit: 'binary' })), async (text) => {
        await endsWell(async () => {
          const [data] = (await parseXml(text)).children
          if (!data) return
          const configured = dataOf(data)
          toObserved({
            configured,
            operational: configured,
            asked: 'configured',
            managementInterface: 'x',
            admin: 'x',
            at: 0,
          })
        })
      }),
      runs,
    )
  })
})
