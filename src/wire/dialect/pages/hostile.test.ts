/** What a unit sends as a page is hostile: ten thousand of them, and none ends this program or is taken for a value. */
import type { Socket } from 'node:net'
import { Duplex } from 'node:stream'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { desiredFor } from '../../../../tests/support/config'
import { cardOf, regulatory } from '../../../../tests/support/data'
import { often } from '../../../../tests/support/long'
import type { DirectCard } from '../../../core/kit/kit-card'
import { pathOf } from '../../../core/kit/pages-dialect'
import { LabClock } from '../../../lab/device/clock'
import { Device } from '../../../lab/device/device'
import { pellworthP6 } from '../../../lab/device/sheet'
import { document } from '../../../lab/fronts/pages/html'
import { networkView, radioView, stateView, views } from '../../../lab/fronts/pages/views'
import { WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import { airOn } from './air'
import { submissionOf } from './form-data'
import { FormsEngine } from './forms-engine'
import { Page } from './page'
import { observedOn, type ReadPage } from './reading'

const runs = { numRuns: often(500, 10_000) }
const card = cardOf('Pellworth P6') as DirectCard & { dialect: { kind: 'pages' } }
const desired = desiredFor('Pellworth P6')
const unit = new Device(pellworthP6, { mac: '02:50:36:00:00:01', serial: 'P6' }, new LabClock(1), regulatory)
const [radio] = unit.configured.radios
const form = (inner: string): string =>
  document('page', `<form id="page" method="post" action="/x">${inner}<button>Save</button></form>`)
const good = [
  ...Object.values(views).map((view) => form(view(unit))),
  form(networkView(unit.configured.networks[0])),
  form(radio ? radioView(radio, [], unit) : ''),
  document('State', stateView(unit, 'mark')),
]

const anyPage = fc.oneof(
  fc.string({ maxLength: 300, unit: 'binary' }),
  // Good pages with other tags and signs anywhere, cut anywhere.
  fc
    .tuple(
      fc.constantFrom(...good),
      fc.array(
        fc.tuple(
          fc.nat({ max: 2000 }),
          fc.constantFrom(
            '<',
            '>',
            '"',
            '</form>',
            '<select>',
            '<input name=who>',
            '<option selected>',
            '\0',
            '&#x0;',
            '<!--',
          ),
        ),
        { maxLength: 8 },
      ),
      fc.nat({ max: 3000 }),
    )
    .map(([page, changes, length]) =>
      changes.reduce((text, [at, sign]) => text.slice(0, at) + sign + text.slice(at), page).slice(0, length),
    ),
)

async function endsWell(work: () => unknown): Promise<void> {
  try {
    await work()
  } catch (error) {
    expect(error).toBeInstanceOf(WireError)
  }
}

describe('pages of a hostile unit', () => {
  it('are read as settings or as nothing', async () => {
    const [page] = card.dialect.pages.filter(({ per }) => per === 'network')
    const { air } = card.dialect
    if (!page || !air || !card.dialect.state) throw new Error('the card has both')
    await fc.assert(
      fc.asyncProperty(anyPage, fc.constantFrom(...card.dialect.pages), async (html, of) => {
        const seen = await Page.of({ html, status: 200 })
        const where = { radio: 'low', band: '2.4', slot: 1, page: seen, at: 0 }
        const read: ReadPage[] = [
          { ...where, of, ...(of.per === 'unit' ? { band: undefined } : {}) },
          { ...where, of: card.dialect.state ?? page },
        ]
        await endsWell(() => observedOn(card, card.dialect, read, { reading: 'configured', desired }))
        await endsWell(() => airOn(card, card.dialect, air, seen, desired))
        await endsWell(() => submissionOf(html, [{ at: 'input', kind: 'text', text: 'x' }], 'button'))
        expect(pathOf(page, 'low', 1)).toBe('/air/low/net/1')
      }),
      runs,
    )
  })

  it('are turned or refused, whatever comes over the wire', async () => {
    const laneSaying = (bytes: Uint8Array): Lane => ({
      ...{ mac: '02:00:00:00:00:01', address: '192.0.2.1', prefix: 24, source: '192.0.2.2' },
      connect: async () => {
        const socket = new Duplex({ read: () => undefined, write: (_chunk, _encoding, done) => done() })
        socket.push(Buffer.from(bytes))
        setImmediate(() => socket.destroy())
        return socket as unknown as Socket
      },
      datagrams: () => Promise.reject(new Error('it takes none')),
      ping: async () => true,
      close: async () => {},
    })
    const heads = fc.constantFrom(
      'HTTP/1.1 200 OK\r\ncontent-type: text/html\r\n',
      'HTTP/1.1 301 x\r\nlocation: /again\r\ncontent-length: 0\r\n',
      'HTTP/1.1 302 x\r\nlocation: http://198.51.100.1/\r\ncontent-length: 0\r\n',
      'HTTP/1.1 401 x\r\nwww-authenticate: Digest nonce="x"\r\ncontent-length: 2\r\n',
      'HTTP/1.1 200 OK\r\nset-cookie: a=b; domain=.example\r\n',
      '',
    )
    const reply = fc
      .tuple(heads, fc.string({ maxLength: 60, unit: 'binary' }))
      .map(([head, rest]) => Buffer.from(`${head}\r\n${rest}`))
    await fc.assert(
      fc.asyncProperty(reply, async (bytes) => {
        const engine = new FormsEngine({
          lane: laneSaying(bytes),
          pin: async () => {},
          by: 'digest',
          longestReplyMs: 2000,
        })
        engine.enter({ scheme: 'http', port: 80 })
        await engine.authorize({ user: 'a', password: 'b' })
        const end = await engine.go('/').catch((error: unknown) => error)
        if (end instanceof Error) expect(end).toBeInstanceOf(WireError)
        engine.close()
      }),
      runs,
    )
  })

  it('nested without end are no page', async () => {
    await expect(Page.of({ html: '<div>'.repeat(100_000), status: 200 })).rejects.toThrow(WireError)
    const form = `<form>${'<b>'.repeat(100_000)}<button>`
    await expect(submissionOf(form, [], 'button')).rejects.toThrow(WireError)
  })
})
