/** Units that speak only what is no longer safe: openssl's own server and Debian's sshd, told to offer nothing else. */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest'
import type { OldCrypto } from '../../src/core/kit/old-crypto'
import type { Told } from '../../src/core/showing/window-talk'
import { endBrowser } from '../../src/wire/browser/chromium'
import { OutdatedError, WireError } from '../../src/wire/errors/wire-error'
import type { Lane } from '../../src/wire/host/host'
import { pinnedTls } from '../../src/wire/http/http-session'
import { connectSsh } from '../../src/wire/ssh/ssh-client'
import { UnitWindow } from '../../src/wire/window/unit-window'
import { freePort } from '../support/free-port'
import { loopbackLane } from '../support/loopback-lane'
import { patience } from '../support/patience'
import { startSshd } from '../support/sshd'

const mac = '02:00:00:00:00:01'
let folder: string
let running: ChildProcess | undefined
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-old-'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))
afterEach(async () => {
  const child = running
  if (!child || child.exitCode !== null) return
  const gone = new Promise((resolve) => child.once('exit', resolve))
  child.kill()
  await gone
})

/** @returns the port, once something listens there */
async function listens(start: (port: number) => ChildProcess): Promise<number> {
  const port = await freePort()
  running = start(port)
  const answers = () =>
    new Promise<void>((resolve, reject) => {
      const probe = connect(port, '127.0.0.1', () => {
        probe.destroy()
        resolve()
      }).once('error', reject)
    })
  await vi.waitFor(answers, patience)
  return port
}

/** What stands in the way, and what does not where it is named. */
const oldOf = (error: unknown): readonly OldCrypto[] => (error instanceof OutdatedError ? error.old : [])
const laneWith = (old: readonly OldCrypto[]): Lane => ({ ...loopbackLane(mac), old })

describe('a unit over TLS', () => {
  const certificate = (...words: string[]): string[] => {
    const [key, cert] = [join(folder, 'key.pem'), join(folder, 'cert.pem')]
    const own = ['req', '-x509', '-nodes', '-subj', '/CN=box', '-days', '9', '-keyout', key, '-out', cert, ...words]
    execFileSync('openssl', own, { stdio: 'ignore' })
    return ['-key', key, '-cert', cert]
  }
  const served = (certificateWords: string[], ...words: string[]): Promise<number> => {
    const cert = certificate(...certificateWords)
    return listens((port) =>
      spawn('openssl', ['s_server', '-quiet', '-accept', `127.0.0.1:${port}`, ...cert, ...words], { stdio: 'ignore' }),
    )
  }
  const rsa = ['-newkey', 'rsa:2048', '-sha256']
  const all = 'ALL:@SECLEVEL=0'
  const tells = (port: number, old: readonly OldCrypto[]): Promise<readonly OldCrypto[] | 'agreed'> =>
    pinnedTls(laneWith(old), port, async () => {}).then(
      (socket) => {
        socket.destroy()
        return 'agreed' as const
      },
      (error: unknown) => {
        expect(error).toBeInstanceOf(WireError)
        return oldOf(error)
      },
    )

  it.each<[OldCrypto[], string[], string[]]>([
    [['tls-1.0'], rsa, ['-tls1', '-cipher', 'ECDHE-RSA-AES128-SHA:@SECLEVEL=0']],
    [['tls-1.1'], rsa, ['-tls1_1', '-cipher', 'ECDHE-RSA-AES128-SHA:@SECLEVEL=0']],
    [['rsa-key-exchange'], rsa, ['-tls1_2', '-cipher', 'AES128-GCM-SHA256']],
    [['sha-1-certificate'], ['-newkey', 'rsa:2048', '-sha1'], ['-tls1_2', '-cipher', all]],
    [['1024-bit-certificate'], ['-newkey', 'rsa:1024', '-sha256'], ['-tls1_2', '-cipher', all]],
    [
      ['tls-1.0', 'rsa-key-exchange', 'sha-1-certificate', '1024-bit-certificate'],
      ['-newkey', 'rsa:1024', '-sha1'],
      ['-tls1', '-cipher', 'AES128-SHA:@SECLEVEL=0'],
    ],
  ])('that offers nothing but %j says so, and is spoken to where all of it is named', async (old, cert, words) => {
    const port = await served(cert, ...words)
    expect(await tells(port, [])).toEqual(old)
    expect(await tells(port, old)).toBe('agreed')
    // One name brings no other along.
    const [, ...others] = old
    if (others.length > 0) expect(await tells(port, others)).toEqual(old.slice(0, 1))
  })

  it('shows its pages in a window only where all of it is named', async () => {
    const port = await served(rsa, '-www', '-tls1', '-cipher', 'ECDHE-RSA-AES128-SHA:@SECLEVEL=0')
    const shown = async (old: readonly OldCrypto[]): Promise<Told | undefined> => {
      const told: Told[] = []
      const door = { scheme: 'https', port } as const
      const window = await UnitWindow.open(
        laneWith(old),
        async () => {},
        door,
        async () => {},
      )
      window.watch({ told: (each) => told.push(each), picture: () => undefined })
      const isOver = (each: Told): boolean => each.kind === 'failed' || each.kind === 'at'
      await expect.poll(() => told.some(isOver), patience).toBe(true)
      await window.close('by-hand')
      return told.find(isOver)
    }
    expect(await shown([])).toMatchObject({ kind: 'failed', code: 'outdated', old: ['tls-1.0'] })
    expect(await shown(['tls-1.0'])).toMatchObject({ kind: 'at' })
    await endBrowser()
  })

  it.each([['-tls1_2'], ['-tls1_3']])('that offers what is safe is spoken to without a name: %s', async (version) => {
    expect(await tells(await served(rsa, version), [])).toBe('agreed')
  })
})

describe('a unit over SSH', () => {
  const served = (...lines: string[]): Promise<number> => {
    const own = mkdtempSync(join(folder, 'sshd-'))
    return listens((port) => startSshd(own, { port, password: 'of its own', hostKey: 'rsa', lines }))
  }
  /** Whoever comes so far is refused: the password is another. */
  const tells = (port: number, old: readonly OldCrypto[]): Promise<unknown> =>
    connectSsh(laneWith(old), port, { user: 'root', password: 'another' }, async () => {}).then(
      () => 'signed in',
      (error: WireError) => (error instanceof OutdatedError ? error.old : error.kind),
    )

  it.each<[OldCrypto[], string[]]>([
    [['ssh-1024-bit-key-exchange'], ['KexAlgorithms diffie-hellman-group1-sha1']],
    [['ssh-sha-1-key-exchange'], ['KexAlgorithms diffie-hellman-group14-sha1']],
    [['ssh-sha-1-host-key'], ['HostKeyAlgorithms ssh-rsa']],
    [['ssh-cbc-cipher'], ['Ciphers aes128-cbc']],
  ])('that offers nothing but %j says so, and is spoken to where it is named', async (old, options) => {
    const port = await served(...options)
    expect(await tells(port, [])).toEqual(old)
    expect(await tells(port, old)).toBe('refused')
  })

  it('that offers what is safe is spoken to without a name', async () => {
    expect(await tells(await served(), [])).toBe('refused')
  })
})
