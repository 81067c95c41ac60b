// Installs what is missing: Debian packages by apt-get, node modules by npm install, at the versions of the lock file.
// Says plainly what it cannot do.
import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './root.mjs'

/** Debian packages by a file that each brings. The database server comes without its service: we start our own. */
const packages = {
  mariadb: { file: '/usr/sbin/mariadbd', names: ['mariadb-server-core', 'mariadb-client-core'], why: 'the database' },
  // The one without windows: it is smaller, and does a page with a third less of work.
  chromium: {
    file: '/usr/bin/chromium-headless-shell',
    names: ['chromium-headless-shell'],
    why: 'web pages of units, and the tests of the interface',
  },
  age: { file: '/usr/bin/age', names: ['age'], why: 'the tests of backups' },
  yanglint: { file: '/usr/bin/yanglint', names: ['libyang-tools'], why: 'the tests of the YANG models' },
  kea: {
    file: '/usr/sbin/kea-dhcp4',
    names: ['kea-dhcp4-server'],
    why: 'the tests of DHCP reservations',
    service: 'kea-dhcp4-server',
  },
  dnsmasq: { file: '/usr/sbin/dnsmasq', names: ['dnsmasq-base'], why: 'the tests of DHCP reservations' },
  tcpdump: { file: '/usr/bin/tcpdump', names: ['tcpdump'], why: 'listening on the wire' },
  socat: { file: '/usr/bin/socat', names: ['socat'], why: 'asking on the wire' },
  iproute2: { file: '/usr/sbin/ip', names: ['iproute2'], why: 'lanes' },
  ping: { file: '/usr/bin/ping', names: ['iputils-ping'], why: 'echoes' },
  arpScan: { file: '/usr/sbin/arp-scan', names: ['arp-scan'], why: 'comparing sweeps' },
  fping: { file: '/usr/bin/fping', names: ['fping'], why: 'comparing sweeps' },
  setpriv: { file: '/usr/bin/setpriv', names: ['util-linux'], why: 'ending what listens' },
  qemu: {
    file: '/usr/bin/qemu-system-x86_64',
    names: ['qemu-system-x86', 'cpio', 'xz-utils', 'kmod', 'e2fsprogs'],
    why: 'the tests against a real access point',
  },
  uml: {
    file: '/usr/bin/linux.uml',
    names: ['user-mode-linux', 'kmod'],
    why: 'the tests of a laptop in tagged VLANs',
  },
  cups: {
    file: '/usr/lib/cups/cgi-bin/admin.cgi',
    names: ['cups', 'cups-daemon'],
    why: 'the tests against web pages that nobody here wrote',
    service: 'cups',
  },
  django: {
    file: '/usr/lib/python3/dist-packages/django/__init__.py',
    names: ['python3-django'],
    why: 'the tests against web pages that nobody here wrote',
  },
  transmission: {
    file: '/usr/bin/transmission-daemon',
    names: ['transmission-daemon'],
    why: 'the tests against web pages that nobody here wrote',
    service: 'transmission-daemon',
  },
  deluge: {
    file: '/usr/bin/deluge-web',
    names: ['deluge-web'],
    why: 'the tests against web pages that nobody here wrote',
  },
  // With its own server of PHP, and none beside it.
  wordpress: {
    file: '/usr/share/wordpress/wp-login.php',
    names: ['php-cli', 'php-cgi', 'php-mysql', 'wordpress'],
    why: 'the tests against web pages that nobody here wrote',
  },
  tshark: {
    file: '/usr/bin/tshark',
    names: ['tshark'],
    why: 'the tests of what goes over the wire',
  },
  snmpd: {
    file: '/usr/sbin/snmpd',
    names: ['snmpd'],
    why: 'the tests against an SNMP agent that nobody here wrote',
    service: 'snmpd',
  },
  snmpget: {
    file: '/usr/bin/snmpget',
    names: ['snmp'],
    why: 'the tests against an SNMP manager that nobody here wrote',
  },
  lldpd: {
    file: '/usr/sbin/lldpd',
    names: ['lldpd'],
    why: 'the tests against an LLDP speaker that nobody here wrote',
    service: 'lldpd',
  },
  openssl: { file: '/usr/bin/openssl', names: ['openssl'], why: 'the tests of signatures' },
  netconfd: {
    file: '/usr/sbin/netconfd',
    names: ['netconfd'],
    why: 'the tests against a NETCONF server that nobody here wrote',
  },
  ncclient: {
    file: '/usr/lib/python3/dist-packages/ncclient/manager.py',
    names: ['python3-ncclient'],
    why: 'the tests against a NETCONF client that nobody here wrote',
  },
  yangModules: {
    file: '/usr/share/yuma/nmda-modules/ietf/ietf-ip@2018-02-22.yang',
    names: ['libyuma-base'],
    why: 'the tests of the YANG models',
  },
}

const quiet = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
const say = (text) => process.stderr.write(`${text}\n`)

export async function ensureDebian(...wanted) {
  const missing = wanted.filter((name) => !existsSync(packages[name].file))
  if (missing.length === 0) return
  const names = missing.flatMap((name) => packages[name].names)
  const cure = `apt-get install ${names.join(' ')}`
  const prefix = privilege()
  if (!existsSync('/usr/bin/apt-get') || !prefix)
    fail(
      'Missing: ' +
        `${missing.map((name) => `${packages[name].names[0]} (for ${packages[name].why})`).join(', ')}. There ` +
        `is neither root nor sudo here to install it with; have somebody run: ${cure}`,
    )
  say(`Installing ${names.join(', ')} …`)
  const install = () => run([...prefix, 'apt-get', 'install', '-y', '-qq', '--no-install-recommends', ...names])
  // Package lists may be missing or old on a fresh machine: refresh them once, where the first try fails.
  const services = existsSync('/run/systemd/system') ? missing.flatMap((name) => packages[name].service ?? []) : []
  // Some packages would start a service of their own at once: we want their programs only.
  for (const service of services) await run([...prefix, 'systemctl', 'mask', service])
  if (!(await install())) {
    await run([...prefix, 'apt-get', 'update', '-qq'])
    if (!(await install())) fail(`Could not install ${names.join(', ')}. Try by hand: ${cure}`)
  }
  for (const service of services) {
    await run([...prefix, 'systemctl', 'unmask', service])
    await run([...prefix, 'systemctl', 'disable', service])
  }
}

/** Words to put before apt-get: none as root, sudo where it asks for no password; undefined where there is neither. */
export function privilege() {
  if (process.getuid?.() === 0) return []
  return spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0
    ? ['sudo', '-n', 'env', 'DEBIAN_FRONTEND=noninteractive']
    : undefined
}

/**
 * @param {'to-run' | 'to-test'} purpose  what only tests and checks need is left out of a first start: it takes half of
 *   the time
 */
export async function ensureNodeModules(purpose = 'to-test') {
  // npm writes this file when an install is complete.
  const complete = existsSync(join(root, 'node_modules/.package-lock.json'))
  if (complete && (purpose === 'to-run' || existsSync(join(root, 'node_modules/vitest')))) return
  say('Installing node modules …')
  // Not npm ci: it refuses a lock file without the builds for other systems, which some registries do not carry.
  const less = purpose === 'to-run' ? ['--omit=dev'] : []
  if (!(await run(['npm', 'install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error', ...less])))
    fail('npm install failed; its words are above. It needs the network the first time.')
}

async function run([command, ...args]) {
  const child = spawn(command, args, { cwd: root, env: quiet, stdio: ['ignore', 2, 2] })
  const [status] = await once(child, 'exit').catch(() => [undefined])
  return status === 0
}

function fail(text) {
  say(text)
  process.exit(1)
}
