/** The netconf dialect commissions Debian's netconfd with our modules, behind Debian's sshd, like any unit. */

import { createHash } from 'node:crypto'
import { type AddressInfo, connect, createServer, type Server } from 'node:net'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { compare, stepOf } from '../../src/core/config/compare'
import { keyText } from '../../src/core/config/unit-config'
import type { DirectCard } from '../../src/core/kit/kit-card'
import type { Dialect } from '../../src/wire/dialect/dialect'
import { NetconfSession } from '../../src/wire/netconf/session'
import { dialectOf } from '../../src/wire/registry'
import { sentence } from '../../src/words/en/sentence'
import { desiredFor, valuesIn } from '../support/config'
import { cardOf } from '../support/data'
import { freePort } from '../support/free-port'
import { loopbackLane } from '../support/loopback-lane'
import { type NetconfdUnit, startNetconfd } from '../support/netconfd'
import { mixedBrief } from '../support/whole-brief'

const model = 'Ostrel O-40'
const login = { user: 'root', password: 'boxed netconf' }
const pin = async (): Promise<void> => {}
let unit: NetconfdUnit
let session: Dialect
const lane = loopbackLane('02:6e:63:00:00:01')
const openNetconf = await dialectOf('netconf')
const open = (): Dialect => {
  const card = cardOf(model) as DirectCard
  const netconf = {
    ...card,
    factory: { ...card.factory, port: unit.port },
    does: { ...card.does, applies: 'at-once' },
    dialect: { kind: 'netconf', managementInterface: 'uplink', showsMac: 'no' },
  } as DirectCard
  return openNetconf(lane, netconf, pin)
}
/** As it would come out of its box: one wired interface, and an admin. */
const boxed = `<interfaces xmlns="urn:ietf:params:xml:ns:yang:ietf-interfaces"><interface><name>uplink</name>
  <type xmlns:ift="urn:ietf:params:xml:ns:yang:iana-if-type">ift:ethernetCsmacd</type>
  <ipv4 xmlns="urn:ietf:params:xml:ns:yang:ietf-ip"><address><ip>192.168.77.1</ip>
  <prefix-length>24</prefix-length></address></ipv4>
  </interface></interfaces>`
const raw = async (operation: string): Promise<void> => {
  const direct = await NetconfSession.open(lane, unit.port, login, pin)
  await direct.rpc(operation).finally(() => direct.close())
}

beforeAll(async () => {
  unit = await startNetconfd(await freePort(), login.password)
  await raw(`<edit-config><target><candidate/></target><config>${boxed}</config></edit-config>`)
  await raw('<commit/>')
})
afterAll(async () => {
  session?.close()
  await unit.close()
})

const desired = desiredFor(model, mixedBrief)
/** All but what only a real unit tells. */
const left = async (dialect: Dialect): Promise<string[]> =>
  compare(desired, await dialect.read('configured')).flatMap((each) =>
    each.kind !== 'value'
      ? [sentence(each)]
      : ['clock.time', 'unit.firmware', 'admin.further-passwords'].includes(each.id)
        ? []
        : [keyText(each)],
  )

it('says who it is, and lets nobody in with another password', async () => {
  session = open()
  expect(await session.identify()).toMatchObject({ banner: expect.stringMatching(/^SSH-2\.0-OpenSSH/) })
  await expect(session.signIn({ ...login, password: 'wrong' })).rejects.toMatchObject({ kind: 'refused' })
})

/**
 * Leads to a port, and passes on what the client sends in pieces of 200 ms: what it sends soon after each other comes
 * at once.
 */
async function inPieces(port: number): Promise<Server> {
  const server = createServer((near) => {
    const far = connect(port, '127.0.0.1')
    far.pipe(near)
    const piece: Buffer[] = []
    near.on('data', (bytes: Buffer) => {
      if (piece.push(bytes) === 1) setTimeout(() => far.write(Buffer.concat(piece.splice(0))), 200)
    })
    near.on('close', () => far.destroy())
    for (const socket of [near, far]) socket.on('error', () => undefined)
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return server
}

it('answers a first question that comes in one piece with our hello', async () => {
  const server = await inPieces(unit.port)
  const { port } = server.address() as AddressInfo
  const direct = await NetconfSession.open(lane, port, login, pin)
  expect((await direct.rpc('<get-config><source><running/></source></get-config>')).name).toBe('rpc-reply')
  // What had it read on is answered too, and taken for no answer of the next.
  expect((await direct.rpc('<validate><source><running/></source></validate>')).children[0]?.name).toBe('ok')
  direct.close()
  server.close()
})

it('takes every setting step by step, and shows each as it was asked', async () => {
  await session.signIn(login)
  for (const step of ['country', 'clock', 'networks', 'radios', 'services'] as const) {
    const differences = compare(desired, await session.read('configured')).filter((each) => stepOf(each) === step)
    expect(differences.length, step).toBeGreaterThan(0)
    await session.write(differences, desired)
  }
  expect((await left(session)).every((id) => id.startsWith('management.'))).toBe(true)
  expect([session.staging, await session.saving?.isSaved()]).toEqual([undefined, true])
})

const isThere = async (): Promise<string | undefined> =>
  valuesIn(await session.read('configured')).unit['management.address']
const move = async (): Promise<void> => {
  const differences = compare(desired, await session.read('configured')).filter((each) => stepOf(each) === 'address')
  await session.write(differences, desired)
}

it('takes its address back where nobody confirms it in time, and keeps it where somebody does', async () => {
  await move()
  expect(await isThere()).toBe(desired.unit['management.address'])
  // Sooner than its own clock would.
  const word = createHash('sha256').update(`move ${lane.mac} ${login.password}`).digest('hex').slice(0, 16)
  await raw(`<cancel-commit><persist-id>${word}</persist-id></cancel-commit>`)
  expect(await isThere()).toBe('192.168.77.1')
  await move()
  session.close()
  await session.signIn(login)
  await session.confirmedMove?.confirm(desired)
  await expect(raw(`<cancel-commit><persist-id>${word}</persist-id></cancel-commit>`)).rejects.toThrow()
  expect(await left(session)).toEqual([])
  // Where nothing waits for it, it says nothing.
  await session.confirmedMove?.confirm(desired)
})

it('says in its own words what it refuses, and is as it was', async () => {
  const before = await session.copies?.backup()
  const wrong = { ...desired, unit: { ...desired.unit, 'unit.country': 'nowhere' } }
  const differences = compare(wrong, await session.read('configured'))
  const refusal = await session.write(differences, wrong).catch((error: unknown) => error)
  expect(refusal).toMatchObject({ kind: 'rejected' })
  expect(await session.copies?.backup()).toBe(before)
  await session.write(compare(desired, await session.read('configured')), desired)
})

it('takes the login that a controller gives to its units, and shows of it the name', async () => {
  const password = 'a password of their own'
  const controller = { unit: { 'pushed.user': 'chief', 'pushed.password': password }, networks: {}, radios: {} }
  const pushed = async () =>
    compare(controller, await session.read('configured')).filter(
      (each) => each.kind === 'value' && each.id.startsWith('pushed.'),
    )
  const differences = await pushed()
  expect(differences).toHaveLength(2)
  await session.write(differences, controller)
  const { unit: shown } = valuesIn(await session.read('configured'))
  expect(shown['pushed.user']).toBe('chief')
  expect(await session.copies?.backup()).toContain(password)
})

it('tells who else has changed it, and not of ourselves', async () => {
  await session.write(compare(desired, await session.read('configured')), desired)
  expect(session.othersWhoChanged?.()).toEqual([])
  const elsewhere = '<system xmlns="urn:ietf:params:xml:ns:yang:ietf-system"><contact>night desk</contact></system>'
  await raw(`<edit-config><target><candidate/></target><config>${elsewhere}</config></edit-config>`)
  await raw('<commit/>')
  await expect.poll(() => session.othersWhoChanged?.() ?? []).toContainEqual(expect.stringMatching(/^root\b/))
})
