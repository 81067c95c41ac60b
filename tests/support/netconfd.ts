/** Debian's netconfd with our modules behind Debian's own sshd: a NETCONF unit that nobody here wrote. */
import { type ChildProcessWithoutNullStreams, spawn } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, vi } from 'vitest'
import { patience } from './patience'
import { startSshd } from './sshd'

const root = join(import.meta.dirname, '../..')
const modules = [
  join(root, 'models/air-muster-wireless.yang'),
  join(root, 'models/air-muster-controller.yang'),
  'ietf-system',
  'ietf-interfaces',
  'ietf-ip',
  'iana-if-type',
  'ietf-routing',
  'ietf-ipv4-unicast-routing',
]
const modulePath = ['/usr/share/yuma/nmda-modules', '/usr/share/yuma/modules', join(root, 'models')].join(':')

export interface NetconfdUnit {
  readonly port: number
  close(): Promise<void>
}

/** It keeps its configuration below the home of its user: each has one of its own there, and none is left. */
export function spawnNetconfd(words: readonly string[]): ChildProcessWithoutNullStreams {
  const script = `kept=$(getent passwd "$(id -u)" | cut -d: -f6)/.yuma
    mkdir -p "$kept" && mount -t tmpfs none "$kept" && exec /usr/sbin/netconfd "$@"`
  return spawn('unshare', ['-m', 'sh', '-c', script, 'netconfd', ...words])
}

/** @param password  of its user `root` */
export async function startNetconfd(port: number, password: string): Promise<NetconfdUnit> {
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-netconf-'))
  const socket = join(folder, 'ncx.sock')
  let told = ''
  const server = spawnNetconfd([
    '--no-startup',
    `--modpath=${modulePath}`,
    ...modules.map((module) => `--module=${module}`),
    '--superuser=root',
    '--access-control=off',
    '--target=candidate',
    `--port=${port}`,
    `--ncxserver-sockname=${socket}`,
  ])
  for (const stream of [server.stdout, server.stderr]) stream.on('data', (data: Buffer) => (told += data.toString()))
  await vi.waitFor(() => expect(existsSync(socket), told.slice(-2000)).toBe(true), patience)
  const sshd = startSshd(folder, {
    ...{ port, password, hostKey: 'ed25519' },
    lines: [`Subsystem netconf "/usr/sbin/netconf-subsystem --ncxserver-sockname=${port}@${socket}"`],
  })
  await vi.waitFor(
    () =>
      new Promise<void>((resolve, reject) => {
        const probe = connect(port, '127.0.0.1', () => {
          probe.destroy()
          resolve()
        }).once('error', reject)
      }),
    patience,
  )
  return {
    port,
    close: async () => {
      for (const child of [sshd, server]) {
        const gone = new Promise((resolve) => child.once('exit', resolve))
        child.kill()
        await gone
      }
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
