/**
 * Debian's snmpd with a user of version 3 answers our questions, and refuses what it should; Debian's snmpget reads
 * what the stand-in of a controller tells.
 */
import { type ChildProcess, execFile, spawn } from 'node:child_process'
import { createSocket } from 'node:dgram'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { Lab } from '../../src/lab/lab'
import { systemGroup, textOf } from '../../src/wire/snmp/answer'
import { carriedNetworks } from '../../src/wire/snmp/capwap-dot11-mib'
import { wtpStanding } from '../../src/wire/snmp/capwap-mib'
import { askAsUser, askCommunity } from '../../src/wire/snmp/snmp'
import { regulatory } from '../support/data'
import { patience } from '../support/patience'

const login = { user: 'watch', authentication: 'a key to sign with', privacy: 'a key to hide with' }
const { description, objectId, name } = systemGroup
const folder = mkdtempSync(join(tmpdir(), 'air-muster-snmpd-'))
let agent: ChildProcess
let path: { host: string; port: number; source: string }

/** CAPWAP-BASE-MIB (RFC 5833) of two access points, in the words of snmpd's `pass` (snmpd.conf(5)). */
const table = '.1.3.6.1.2.1.196.1.2'
const joinedAt = '6.2.122.2.0.0.1'
const comingAt = '6.2.122.2.0.0.2'
const dot11 = '.1.3.6.1.2.1.195.1.'
const names = '.1.2.840.10036.1.1.1.9'
const objects: readonly (readonly [string, string, string])[] = [
  [`2.1.2.${joinedAt}`, 'integer', '1'],
  [`2.1.3.${joinedAt}`, 'octet', '0a 2c 08 1e'],
  [`2.1.7.${joinedAt}`, 'integer', '6'],
  [`2.1.9.${joinedAt}`, 'gauge', '7'],
  ['1.1.5.7', 'string', 'quay-01'],
  [`2.1.7.${comingAt}`, 'integer', '3'],
  // Its first radio carries both networks, its second the second of them, its third none (RFC 5834).
  ...[1, 2, 3].map((radio) => [`4.1.2.7.${radio}`, 'integer', `${50 + radio}`] as const),
]
const bindings: readonly (readonly [string, string, string])[] = [
  ...[1, 17].map((wlan) => [`${dot11}1.1.2.${wlan}`, 'integer', `${300 + wlan}`] as const),
  ...['51.1', '51.2', '52.2'].map((at) => [`${dot11}2.1.1.${at}`, 'gauge', '1'] as const),
  [`${dot11}1.1.2.2`, 'integer', '302'],
  [`${names}.301`, 'string', 'Crew'],
  [`${names}.302`, 'string', 'Crème'],
]
const cases = [...objects.map(([oid, ...rest]) => [`${table}.${oid}`, ...rest] as const), ...bindings].map(
  ([oid, type, value]) => `"-g ${oid}") printf '%s\\n%s\\n%s\\n' "$2" ${type} "${value}";;`,
)
const passed = `#!/bin/sh
case "$1 $2" in
${cases.join('\n')}
esac
`

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
  const script = join(folder, 'access-points')
  writeFileSync(script, passed, { mode: 0o755 })
  writeFileSync(
    join(folder, 'snmpd.conf'),
    [
      `createUser ${login.user} SHA-256 "${login.authentication}" AES "${login.privacy}"`,
      'view everything included .1',
      `rouser ${login.user} authpriv -V everything`,
      ...[table, dot11.slice(0, -3), names].map((tree) => `pass ${tree} ${script}`),
      'sysName Mast 7',
      'sysObjectID 1.3.6.1.4.1.32473.77',
      `agentAddress udp:127.0.0.1:${path.port}`,
    ].join('\n'),
  )
  agent = spawn('/usr/sbin/snmpd', ['-f', '-C', '-c', join(folder, 'snmpd.conf'), '-Lf', join(folder, 'log')], {
    env: { ...process.env, SNMP_PERSISTENT_DIR: folder },
    stdio: 'ignore',
  })
  await vi.waitFor(async () => expect((await askAsUser(path, login, [name])).kind).toBe('told'), patience)
})
afterAll(async () => {
  const gone = new Promise((resolve) => agent.once('exit', resolve))
  agent.kill()
  await gone
  rmSync(folder, { recursive: true, force: true })
})

// An agent on a machine that is busy with something else may be silent for once: it is asked again.
describe('an SNMP agent that nobody here wrote', () => {
  it('tells its user', async () => {
    const texts = async () => {
      const told = await askAsUser(path, login, [name, objectId, '1.3.6.1.2.1.1.99.0', description])
      return told.kind === 'told' ? told.values.map((each) => each && textOf(each)) : []
    }
    await expect.poll(texts).toEqual(['Mast 7', '1.3.6.1.4.1.32473.77', undefined, expect.stringContaining('Linux')])
  })

  it('tells how access points stand with it, by CAPWAP-BASE-MIB', async () => {
    const standing = { state: 'run', address: '10.44.8.30', name: 'quay-01', profile: 7 }
    await expect.poll(() => wtpStanding(path, login, '02:7a:02:00:00:01')).toEqual({ kind: 'told', standing })
    const coming = { state: 'image', address: undefined, name: undefined, profile: undefined }
    await expect.poll(() => wtpStanding(path, login, '02:7a:02:00:00:02')).toEqual({ kind: 'told', standing: coming })
    await expect.poll(() => wtpStanding(path, login, '02:7a:02:00:00:03')).toEqual({ kind: 'not-listed' })
    await expect
      .poll(() => wtpStanding(path, { ...login, user: 'nobody' }, '02:7a:02:00:00:01'))
      .toMatchObject({
        kind: 'refused',
      })
  })

  it('tells which networks each radio carries, by CAPWAP-DOT11-MIB', async () => {
    const radios = [['Crew', 'Crème'], ['Crème'], []]
    await expect.poll(() => carriedNetworks(path, login, 7, 3)).toEqual({ kind: 'told', radios })
    await expect.poll(() => carriedNetworks(path, login, 8, 1)).toEqual({ kind: 'told', radios: [[]] })
  })

  it('tells nobody with another key or of another name', async () => {
    const refused = { kind: 'refused', why: expect.any(String) }
    await expect.poll(() => askAsUser(path, { ...login, user: 'nobody' }, [name])).toEqual(refused)
    await expect.poll(() => askAsUser(path, { ...login, authentication: 'another key of it' }, [name])).toEqual(refused)
  })

  // It cannot even read what hides behind another key, so it does not answer it (RFC 3414, 3.2, 8).
  it('tells nobody who hides it with another key', async () => {
    expect((await askAsUser(path, { ...login, privacy: 'another key of it' }, [name])).kind).not.toBe('told')
  })

  it('is silent to a community', async () => {
    expect(await askCommunity(path, 'public', [name])).toEqual({ kind: 'silent' })
  })
})

it('a manager that nobody here wrote reads how access points stand with the stand-in of a controller', async () => {
  const mac = '02:7a:c1:00:00:01'
  const lab = await Lab.open({ pace: 1000, regulatory, shelf: [{ model: 'Tarnhelm C1', mac, serial: 'C1-1' }] })
  lab.plugInAll()
  const { unit, agent: its } = lab.plugged(mac)
  await expect.poll(() => unit.serviceIsUp).toBe(true)
  const wired = { method: 'dhcp' as const, address: null, prefix: null, vlan: null }
  const point = {
    mac: '02:7a:02:00:00:01',
    name: 'quay-01',
    location: '',
    networks: [],
    radios: [],
    wired,
    gateway: null,
    controllers: [],
  }
  unit.configure({ ...unit.configured, snmp: login, points: [point] })
  const words = ['-v3', '-u', login.user, '-l', 'authPriv', '-a', 'SHA-256', '-A', login.authentication]
  const keys = ['-x', 'AES', '-X', login.privacy, '-OQn', `127.0.0.1:${its.port}`]
  const { stdout } = await promisify(execFile)(
    'snmpget',
    [...words, ...keys, ...[`2.1.7.${joinedAt}`, `2.1.9.${joinedAt}`, '1.1.5.1'].map((oid) => `${table}.${oid}`)],
    { env: { ...process.env, MIBS: '', SNMP_PERSISTENT_DIR: folder } },
  )
  expect(stdout.trim().split('\n')).toEqual([
    `${table}.2.1.7.${joinedAt} = 9`,
    `${table}.2.1.9.${joinedAt} = 1`,
    `${table}.1.1.5.1 = "quay-01"`,
  ])
  await lab.close()
})
