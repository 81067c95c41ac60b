/** Debian's snmpd with a user of version 3 answers our questions, and refuses what it should. */
import { type ChildProcess, spawn } from 'node:child_process'
import { createSocket } from 'node:dgram'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { askAsUser, askCommunity, systemGroup } from '../../src/wire/snmp/snmp'

const login = { user: 'watch', authentication: 'a key to sign with', privacy: 'a key to hide with' }
const { description, objectId, name } = systemGroup
const folder = mkdtempSync(join(tmpdir(), 'air-muster-snmpd-'))
let agent: ChildProcess
let path: { host: string; port: number; source: string }

const freeUdpPort = (): Promise<number> =>
  new Promise((resolve) => {
    const socket = createSocket('udp4')
    socket.bind({ address: '127.0.0.1' }, () => {
      const { port } = socket.address()
      socket.close(() => resolve(port))
    })
  })

beforeAll(async () => {
  path = { host: '127.0.0.1', port: await freeUdpPort(), source: '127.0.0.1' }
  writeFileSync(
    join(folder, 'snmpd.conf'),
    [
      `createUser ${login.user} SHA-256 "${login.authentication}" AES "${login.privacy}"`,
      `rouser ${login.user} authpriv .1.3.6.1.2.1.1`,
      'sysName Mast 7',
      'sysObjectID 1.3.6.1.4.1.32473.77',
      `agentAddress udp:127.0.0.1:${path.port}`,
    ].join('\n'),
  )
  agent = spawn('/usr/sbin/snmpd', ['-f', '-C', '-c', join(folder, 'snmpd.conf'), '-Lf', join(folder, 'log')], {
    env: { ...process.env, SNMP_PERSISTENT_DIR: folder },
    stdio: 'ignore',
  })
  await vi.waitFor(async () => expect((await askAsUser(path, login, [name])).kind).toBe('told'), { timeout: 20_000 })
})
afterAll(async () => {
  const gone = new Promise((resolve) => agent.once('exit', resolve))
  agent.kill()
  await gone
  rmSync(folder, { recursive: true, force: true })
})

describe('an SNMP agent that nobody here wrote', () => {
  it('tells its user', async () => {
    const told = await askAsUser(path, login, [name, objectId, '1.3.6.1.2.1.1.99.0', description])
    expect(told).toMatchObject({
      kind: 'told',
      values: ['Mast 7', '1.3.6.1.4.1.32473.77', undefined, expect.stringContaining('Linux')],
    })
  })

  it('tells nobody with another key or of another name', async () => {
    const refused = { kind: 'refused', why: expect.any(String) }
    expect(await askAsUser(path, { ...login, user: 'nobody' }, [name])).toEqual(refused)
    expect(await askAsUser(path, { ...login, authentication: 'another key of it' }, [name])).toEqual(refused)
  })

  // It cannot even read what hides behind another key, so it does not answer it (RFC 3414, 3.2, 8).
  it('tells nobody who hides it with another key', async () => {
    expect((await askAsUser(path, { ...login, privacy: 'another key of it' }, [name])).kind).not.toBe('told')
  })

  it('is silent to a community', async () => {
    expect(await askCommunity(path, 'public', [name])).toEqual({ kind: 'silent' })
  })
})
