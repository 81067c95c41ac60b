/**
 * How a NETCONF session does not come about: whoever goes away is told apart from whoever has none, and from another.
 */
import { type AddressInfo, createServer, type Server, type Socket } from 'node:net'
import ssh2 from 'ssh2'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { NetconfSession } from '../../src/wire/netconf/session'
import { pinCheck } from '../../src/wire/trust/pin'
import { loopbackLane } from '../support/loopback-lane'

let server: Server
let answer: 'says no' | 'resets' | 'closes'
const sockets = new Set<Socket>()
beforeAll(async () => {
  const hostKeys = [ssh2.utils.generateKeyPairSync('ed25519').private]
  const ssh = new ssh2.Server({ hostKeys }, (client) => {
    client.on('error', () => undefined)
    client.on('authentication', (asked) => asked.accept())
    client.on('session', (accept) =>
      accept().on('subsystem', (_, reject) => {
        if (answer === 'says no') reject()
        else if (answer === 'closes') client.end()
        else for (const socket of sockets) socket.resetAndDestroy()
      }),
    )
  })
  server = createServer((socket) => {
    sockets.add(socket)
    ssh.injectSocket(socket)
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
})
afterAll(() => void server.close())

it.each([
  ['says no', 'garbled'],
  ['resets', 'unreachable'],
  ['closes', 'unreachable'],
] as const)('a unit that %s when it is asked for NETCONF is %s', async (how, kind) => {
  answer = how
  const { port } = server.address() as AddressInfo
  const opening = NetconfSession.open(
    loopbackLane('02:6e:63:00:00:02'),
    port,
    { user: 'admin', password: 'x' },
    async () => undefined,
  )
  await expect(opening).rejects.toMatchObject({ kind })
})

it('a unit that shows another host key than before is told no password', async () => {
  const told: string[] = []
  const servers = ['first', 'second'].map(() => {
    const hostKeys = [ssh2.utils.generateKeyPairSync('ed25519').private]
    return new ssh2.Server({ hostKeys }, (client) => {
      client.on('error', () => undefined)
      client.on('authentication', (asked) => {
        if (asked.method === 'password') told.push(asked.password)
        asked.reject(['password'])
      })
    })
  })
  let pinned: string | undefined
  const pin = pinCheck(async (shown) => {
    const first = pinned === undefined ? 'now' : 'before'
    pinned ??= shown
    return { fingerprint: pinned, first }
  })
  const kinds: unknown[] = []
  for (const [index, ssh] of [servers[0], servers[0], servers[1], servers[0]].entries()) {
    const at = createServer((socket) => void ssh?.injectSocket(socket))
    await new Promise<void>((resolve) => at.listen(0, '127.0.0.1', resolve))
    const { port } = at.address() as AddressInfo
    const lane = loopbackLane('02:6e:63:00:00:03')
    const opening = NetconfSession.open(lane, port, { user: 'admin', password: `word ${index}` }, pin)
    kinds.push(await opening.catch(({ kind }) => kind))
    at.close()
  }
  expect(kinds).toEqual(['refused', 'refused', 'untrusted', 'refused'])
  expect(new Set(told)).toEqual(new Set(['word 0', 'word 1', 'word 3']))
})
