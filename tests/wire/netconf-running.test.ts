/** A unit without a candidate: how its running configuration is changed, by what it offers. */
import { type AddressInfo, createServer, type Server } from 'node:net'
import ssh2 from 'ssh2'
import { afterEach, expect, it } from 'vitest'
import { netconf } from '../../src/wire/dialect/netconf/netconf'
import { cardOf } from '../support/data'
import { loopbackLane } from '../support/loopback-lane'

const end = ']]>]]>'
const base = 'urn:ietf:params:xml:ns:netconf:base:1.0'
let server: Server | undefined
afterEach(() => void server?.close())

/** Speaks NETCONF 1.0, says yes to everything, and tells what it was asked. */
async function unitThatOffers(...offers: readonly string[]): Promise<{ port: number; asked: string[] }> {
  const asked: string[] = []
  const ssh = new ssh2.Server({ hostKeys: [ssh2.utils.generateKeyPairSync('ed25519').private] }, (client) => {
    client.on('error', () => undefined)
    client.on('authentication', (context) => context.accept())
    client.on('session', (accept) =>
      accept().on('subsystem', (open) => {
        const stream = open()
        const told = ['base:1.0', ...offers.map((offer) => `capability:${offer}`)]
          .map((each) => `<capability>urn:ietf:params:netconf:${each}</capability>`)
          .join('')
        stream.write(
          `<hello xmlns="${base}"><capabilities>${told}</capabilities><session-id>4</session-id></hello>${end}`,
        )
        let heard = ''
        stream.on('data', (chunk: Buffer) => {
          heard += chunk.toString()
          for (;;) {
            const at = heard.indexOf(end)
            if (at < 0) return
            const message = heard.slice(0, at)
            heard = heard.slice(at + end.length)
            const id = /message-id="([^"]+)"/.exec(message)?.[1]
            if (id === undefined) continue
            asked.push(message)
            stream.write(`<rpc-reply message-id="${id}" xmlns="${base}"><ok/></rpc-reply>${end}`)
          }
        })
      }),
    )
  })
  const listening = createServer((socket) => ssh.injectSocket(socket))
  server = listening
  await new Promise<void>((resolve) => listening.listen(0, '127.0.0.1', resolve))
  return { port: (listening.address() as AddressInfo).port, asked }
}

const operationsOf = (asked: readonly string[]): string[] =>
  asked.map((message) => /<rpc[^>]*>\s*<([\w-]+)/.exec(message)?.[1] ?? message)

it.each([
  [['writable-running:1.0', 'rollback-on-error:1.0'], true],
  [['writable-running:1.0'], false],
] as const)('that offers %s is asked to take back what it cannot do whole: %s', async (offers, whole) => {
  const { port, asked } = await unitThatOffers(...offers)
  const card = cardOf('Tarnhelm C1')
  if (card.dialect.kind !== 'netconf') throw new Error('another card')
  const dialect = { ...card.dialect, showsMac: 'no' as const }
  const unit = netconf(
    loopbackLane('02:6e:63:00:00:03'),
    { ...card, dialect, factory: { ...card.factory, address: '192.0.2.1', port } },
    async () => undefined,
  )
  await unit.signIn({ user: 'admin', password: 'x' })
  await unit.changePassword('admin', 'another')
  unit.close()
  expect(operationsOf(asked)).toEqual(['lock', 'edit-config', 'unlock'])
  expect(asked[1]).toContain('<target><running/></target>')
  expect(asked[1]?.includes('<error-option>rollback-on-error</error-option>')).toBe(whole)
})
