/**
 * Hosts on the wire of a bench: network namespaces with Debian's own sshd, all at one address, each with a name, a
 * password and keys of its own. They are set by commands like any unit, and have no radio; where their kernel has
 * tagged VLANs they can be managed in one.
 */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse, stringify } from 'yaml'
import { unpacked } from './debian-image'
import { type BenchWire, benchWire, endAllIn, macOf } from './namespaces'

const factory = '172.30.9.1'

/**
 * A host that is set by commands, and has no radio: what differs between one and many is the wire alone.
 *
 * @param applySeconds  how long it takes to come to a new address
 */
const cardOf = (applySeconds: number): string => `
maker: Bench
model: host
role: access-point
recognise: { macPrefixes: ["02:ab:00"] }
factory: { address: ${factory}, prefix: 24, addressing: static, login: { user: root, password: boxed }, port: 22 }
power: { poe: mains, watts: 5 }
timing: { start: 2, apply: ${applySeconds + 4}, restart: 5 }
lights: { none: it has none }
reset: { steps: [Make it anew.], seconds: 1 }
radios: []
limits: { namePattern: "^[a-z0-9-]+$", passwordShortest: 8, passwordLongest: 64, mostNetworks: 0 }
can:
  { unit.name, management.method, management.address, management.prefix, management.vlan,
    admin.user, admin.password, clock.time }
does: { applies: at-once, saves: itself, reachedBy: ipv4 }
dialect:
  kind: prompt
  over: ssh
  escape: shell
  mac: { run: cat /sys/class/net/eth0/address, value: "^(?<value>[0-9a-f:]{17})$" }
  values: { clock.time: { as: epoch }, management.vlan: { absent: null } }
  read:
    - run: hostname; date +%s; ip -o -4 addr show scope global
      tells:
        unit.name: ^(?<value>[a-z0-9-]+)$
        clock.time: ^(?<value>[0-9]{9,})$
        management.address: inet (?<value>[0-9.]+)/
        management.prefix: inet [0-9.]+/(?<value>[0-9]+)
        management.vlan: "^[0-9]+: eth0[.](?<value>[0-9]+) "
      says: { management.method: static }
  write:
    - { sets: [unit.name], commands: [{ run: "hostname {{unit.name}}" }] }
    - sets: [management.method, management.address, management.prefix, management.vlan]
      commands:
        - run: >-
            rm -f /run/kept; setsid sh -c 'sleep ${applySeconds};
            from=$(ip -o -4 addr show to "\${1%/*}" | cut -d" " -f2);
            [ -z "$4" ] || ip link add link eth0 name "$3" type vlan id "$4"; ip link set "$3" up;
            ip addr del "$1" dev "$from"; ip addr add "$2" dev "$3"; sleep 90;
            [ -e /run/kept ] || { ip addr del "$2" dev "$3"; ip addr add "$1" dev "$from"; }' move
            {{current.address}}/{{current.prefix}} {{management.address}}/{{management.prefix}}
            eth0{{#management.vlan}}.{{management.vlan}} {{management.vlan}}{{/management.vlan}}
            >/dev/null 2>&1 </dev/null &
  confirm: [{ run: touch /run/kept }]
  password: [{ run: 'read -r new; printf "%s:%s\\n" {{login.user}} "$new" | chpasswd', input: "{{login.password}}\\n" }]
  backup: hostname
  restart: [{ run: "true" }]
  air: { run: "true", starts: "^radio=(?<of>x)$", onAir: up, networkStarts: "^(?<of>x)$",
    ssid: "^(?<value>x)$", security: "^(?<value>x)$" }
`

/**
 * Its own /etc and /run, so that its password, name and keys are its own.
 *
 * @returns the shell's words that make a machine of such a host, and stay
 */
export function hostScript(index: number, folder: string): string {
  const etc = join(folder, `etc${index}`)
  mkdirSync(etc)
  for (const name of [
    'passwd',
    'group',
    'nsswitch.conf',
    'ld.so.cache',
    'login.defs',
    'pam.d',
    'security',
    'alternatives',
  ])
    if (existsSync(join('/etc', name)))
      cpSync(join('/etc', name), join(etc, name), { recursive: true, verbatimSymlinks: true })
  // Whatever the shell of this machine's root does at its start is none of a unit's.
  writeFileSync(join(etc, 'passwd'), 'root:x:0:0:root:/run:/bin/sh\nsshd:x:65533:65534::/run/sshd:/usr/sbin/nologin\n')
  const hash = execFileSync('openssl', ['passwd', '-6', 'boxed'], { encoding: 'utf8' }).trim()
  writeFileSync(join(etc, 'shadow'), `root:${hash}:19000:0:99999:7:::\nsshd:*:19000::::::\n`, { mode: 0o600 })
  const [keygen = '', ...keygenWords] = unpacked('usr/bin/ssh-keygen')
  execFileSync(keygen, [...keygenWords, '-q', '-t', 'ed25519', '-N', '', '-f', join(etc, 'host_key')])
  writeFileSync(
    join(etc, 'sshd_config'),
    'HostKey /etc/host_key\nPermitRootLogin yes\nPasswordAuthentication yes\nUsePAM no\nUseDNS no\nPidFile ' +
      'none\nMaxStartups 100\nAuthorizedKeysFile /etc/authorized_keys\nStrictModes no\n',
  )
  return `mount --bind ${etc} /etc && mount -t tmpfs none /run && mkdir -p -m 755 /run/sshd &&
    hostname boxed-${index} &&
    exec ${unpacked('usr/sbin/sshd').join(' ')} -D -r -f /etc/sshd_config`
}

function startHost(wire: BenchWire, index: number, folder: string): ChildProcess {
  const script = hostScript(index, folder)
  const words = ['netns', 'exec', wire.box(index), 'unshare', '-m', '-u', 'sh', '-c', script]
  return spawn('ip', words, { stdio: ['ignore', 'ignore', 'inherit'] })
}

export interface HostBench {
  readonly wire: BenchWire
  /** Makes a host one that somebody set up before: no password is known, a key is. @returns the file of that key */
  setUpByKey(index: number): string
  close(): void
}

/** So many hosts, out of their boxes. @param folder  for what is theirs */
export function hostBench(count: number, folder: string): HostBench {
  const wire = benchWire(count, `${factory}/24`)
  const hosts = Array.from({ length: count }, (_, index) => startHost(wire, index, folder))
  wire.own('10.44.8.250/24')
  return {
    wire,
    setUpByKey: (index) => {
      const [etc, key] = [join(folder, `etc${index}`), join(folder, `key${index}`)]
      const [keygen = '', ...words] = unpacked('usr/bin/ssh-keygen')
      execFileSync(keygen, [...words, '-q', '-t', 'ed25519', '-N', '', '-f', key])
      cpSync(`${key}.pub`, join(etc, 'authorized_keys'))
      const hash = execFileSync('openssl', ['passwd', '-6', 'nobody knows this one'], { encoding: 'utf8' }).trim()
      writeFileSync(join(etc, 'shadow'), `root:${hash}:19000:0:99999:7:::\nsshd:*:19000::::::\n`, { mode: 0o600 })
      return key
    },
    close: () => {
      for (const host of hosts) host.kill()
      for (const index of hosts.keys()) endAllIn(wire.box(index))
      wire.close()
    },
  }
}

/**
 * A job for them, as a file.
 *
 * @param demo          the text of a job file whose brief it takes
 * @param applySeconds  how long a host takes to come to a new address
 */
export function hostJob(demo: string, count: number, applySeconds = 1): string {
  const job = parse(demo)
  job.cards = [cardOf(applySeconds)]
  job.units = Array.from({ length: count }, (_, index) => {
    const name = `host-${index + 1}`
    return { id: name, name, place: 'bench', model: 'Bench host', mac: macOf(index), serial: '', port: index + 1 }
  })
  return stringify(job)
}
