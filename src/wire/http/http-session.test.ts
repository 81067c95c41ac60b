import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer, type Server } from 'node:https'
import { type AddressInfo, connect, type Socket } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Duplex } from 'node:stream'
import { generate } from 'selfsigned'
import { afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Lane } from '../host/host'
import type { PinCheck } from '../trust/pin'
import { HttpSession } from './http-session'

let certificate: { key: string; cert: string }
beforeAll(async () => {
  const { private: key, cert } = await generate([{ name: 'commonName', value: 'S-1' }], {
    keyType: 'ec',
    algorithm: 'sha256',
  })
  certificate = { key, cert }
})

let server: Server
let answersRequests = true
const sockets = new Set<Socket>()
const cutPower = (): void => {
  for (const socket of sockets) socket.destroy()
}
beforeEach(async () => {
  answersRequests = true
  server = createServer(certificate, (_request, response) => void (answersRequests && response.end('hello')))
  server.on('connection', (socket: Socket) => {
    sockets.add(socket)
    socket.once('close', () => sockets.delete(socket))
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
})
afterEach(() => {
  session?.close()
  cutPower()
  return new Promise<unknown>((resolve) => server.close(resolve))
})

let session: HttpSession | undefined
const lane: Lane = {
  mac: '02:00:00:00:00:01',
  address: '192.168.77.1',
  prefix: 24,
  source: '192.168.77.254',
  connect: () =>
    new Promise((resolve) => {
      const socket = connect((server.address() as AddressInfo).port, '127.0.0.1', () => resolve(socket))
    }),
  datagrams: () => Promise.reject(new Error('it takes none')),
  ping: async () => true,
  close: async () => {},
}
const open = (pin: PinCheck = async () => {}): HttpSession => {
  session = new HttpSession(lane, { scheme: 'https', port: 443, pin, longestReplyMs: 400 })
  return session
}
const question = { method: 'GET', path: '/' } as const
const gone = async (): Promise<void> => {
  cutPower()
  await expect.poll(() => sockets.size).toBe(0)
  // One more round, in which this side hears of it too.
  await new Promise((resolve) => setTimeout(resolve, 50))
}

describe('a unit that goes away', () => {
  it('while its certificate is looked up is unreachable, and the next question opens a new connection', async () => {
    let cut = true
    const asking = open(async () => {
      if (cut) await gone()
    })
    await expect(asking.ask(question)).rejects.toMatchObject({ kind: 'unreachable' })
    cut = false
    expect(await asking.ask(question)).toMatchObject({ status: 200, text: 'hello' })
  })

  it('between two questions is asked over a new connection', async () => {
    const asking = open()
    await asking.ask(question)
    await gone()
    expect((await asking.ask(question)).text).toBe('hello')
  })

  it('is let go of where the session was closed while its certificate was looked up', async () => {
    const asking = open(async () => asking.close())
    await expect(asking.ask(question)).rejects.toMatchObject({ kind: 'unreachable' })
    await expect.poll(() => sockets.size).toBe(0)
  })

  it('before the handshake is unreachable', async () => {
    server.on('connection', (socket: Socket) => socket.destroy())
    await expect(open().ask(question)).rejects.toMatchObject({ kind: 'unreachable' })
  })
})

describe('a question', () => {
  it('that is not answered ends in time', async () => {
    answersRequests = false
    await expect(open().ask(question)).rejects.toMatchObject({ kind: 'timeout' })
  })

  it('ends in time too where the connection is never made', async () => {
    await expect(open(() => new Promise(() => {})).ask(question)).rejects.toMatchObject({ kind: 'timeout' })
  })

  it('shows the pin whom a certificate of OpenSSL says that it is for, all parts of it, in plain letters', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'air-muster-certificate-'))
    const [key, cert] = [join(folder, 'key.pem'), join(folder, 'cert.pem')]
    const subject = '/CN=O40-7/O=Ostrel O-40/OU=field/OU=up\nstairs'
    const make = ['req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256', '-nodes', '-subj', subject]
    execFileSync('openssl', [...make, '-keyout', key, '-out', cert], { stdio: 'ignore' })
    server.setSecureContext({ key: readFileSync(key), cert: readFileSync(cert) })
    rmSync(folder, { recursive: true })
    let shown: string | undefined
    await open(async (_fingerprint, told) => {
      shown = told
    }).ask(question)
    expect(shown).toMatch(/^CN=O40-7, O=Ostrel O-40, OU=field, OU=up.?stairs$/)
  })

  it('is not sent where the pin refuses the certificate', async () => {
    let asked = 0
    server.on('request', () => (asked += 1))
    await expect(open(() => Promise.reject(new Error('another certificate'))).ask(question)).rejects.toThrow(
      'another certificate',
    )
    expect(asked).toBe(0)
  })

  it('is not kept busy by a unit that talks before it is asked and hangs up, again and again', async () => {
    let connects = 0
    const rude: Lane = {
      ...lane,
      connect: async () => {
        connects += 1
        const socket = new Duplex({ read: () => undefined, write: (_chunk, _encoding, done) => done() })
        socket.push('HTTP/1.1 200 OK\r\n\r\n')
        setImmediate(() => socket.destroy())
        return socket as unknown as Socket
      },
    }
    session = new HttpSession(rude, { scheme: 'http', port: 80, pin: async () => {} })
    await expect(session.ask(question)).rejects.toMatchObject({ kind: 'garbled' })
    expect(connects).toBeLessThan(10)
  })
})
