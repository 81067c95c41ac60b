/** Debian's netconfd with our modules behind Debian's own sshd: a NETCONF unit that nobody here wrote. */
import { type ChildProcess, type ChildProcessWithoutNullStreams, execFileSync, spawn } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, vi } from 'vitest'
import { unpacked } from './debian-image'
import { patience } from './patience'

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
  const sshd = startSshd(folder, port, socket, password)
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

/** With an /etc of its own, so that the password of its root is its own. */
function startSshd(folder: string, port: number, socket: string, password: string): ChildProcess {
  const etc = join(folder, 'etc')
  mkdirSync(etc)
  for (const name of ['group', 'nsswitch.conf', 'ld.so.cache', 'login.defs', 'alternatives'])
    if (existsSync(join('/etc', name)))
      cpSync(join('/etc', name), join(etc, name), { recursive: true, verbatimSymlinks: true })
  writeFileSync(join(etc, 'passwd'), 'root:x:0:0:root:/run:/bin/sh\nsshd:x:65533:65534::/run/sshd:/usr/sbin/nologin\n')
  const hash = execFileSync('openssl', ['passwd', '-6', password], { encoding: 'utf8' }).trim()
  writeFileSync(join(etc, 'shadow'), `root:${hash}:19000:0:99999:7:::\nsshd:*:19000::::::\n`, { mode: 0o600 })
  const [keygen = '', ...keygenWords] = unpacked('usr/bin/ssh-keygen')
  execFileSync(keygen, [...keygenWords, '-q', '-t', 'ed25519', '-N', '', '-f', join(etc, 'host_key')])
  writeFileSync(
    join(etc, 'sshd_config'),
    `ListenAddress 127.0.0.1\nPort ${port}\nHostKey /etc/host_key\nPermitRootLogin yes\nPasswordAuthentication yes\nUsePAM no\nUseDNS no\nPidFile none\nSubsystem netconf "/usr/sbin/netconf-subsystem --ncxserver-sockname=${port}@${socket}"\n`,
  )
  const script = `mount --bind ${etc} /etc && mount -t tmpfs none /run && mkdir -p -m 755 /run/sshd && exec ${unpacked('usr/sbin/sshd').join(' ')} -D -r -f /etc/sshd_config`
  return spawn('unshare', ['-m', 'sh', '-c', script], { stdio: 'ignore' })
}
