/** Debian's own sshd on loopback. */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { unpacked } from './debian-image'

export interface SshdSettings {
  readonly port: number
  /** Of its user `root`. */
  readonly password: string
  readonly hostKey: 'ed25519' | 'rsa'
  /** More lines of its configuration. */
  readonly lines: readonly string[]
}

/** With an /etc of its own, so that the password of its root is its own. */
export function startSshd(folder: string, { port, password, hostKey, lines }: SshdSettings): ChildProcess {
  const etc = join(folder, 'etc')
  mkdirSync(etc)
  for (const name of ['group', 'nsswitch.conf', 'ld.so.cache', 'login.defs', 'alternatives'])
    if (existsSync(join('/etc', name)))
      cpSync(join('/etc', name), join(etc, name), { recursive: true, verbatimSymlinks: true })
  writeFileSync(join(etc, 'passwd'), 'root:x:0:0:root:/run:/bin/sh\nsshd:x:65533:65534::/run/sshd:/usr/sbin/nologin\n')
  const hash = execFileSync('openssl', ['passwd', '-6', password], { encoding: 'utf8' }).trim()
  writeFileSync(join(etc, 'shadow'), `root:${hash}:19000:0:99999:7:::\nsshd:*:19000::::::\n`, { mode: 0o600 })
  const [keygen = '', ...keygenWords] = unpacked('usr/bin/ssh-keygen')
  execFileSync(keygen, [...keygenWords, '-q', '-t', hostKey, '-N', '', '-f', join(etc, 'host_key')])
  writeFileSync(
    join(etc, 'sshd_config'),
    `ListenAddress 127.0.0.1\nPort ${port}\nHostKey /etc/host_key\nPermitRootLogin ` +
      `yes\nPasswordAuthentication yes\nUsePAM no\nUseDNS no\nPidFile none\n${lines.join('\n')}\n`,
  )
  const script =
    `mount --bind ${etc} /etc && mount -t tmpfs none /run && mkdir -p -m 755 /run/sshd && exec ` +
    `${unpacked('usr/sbin/sshd').join(' ')} -D -r -f /etc/sshd_config`
  return spawn('unshare', ['-m', 'sh', '-c', script], { stdio: 'ignore' })
}
