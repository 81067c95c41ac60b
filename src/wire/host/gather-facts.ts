/** Gathers what is known of this laptop, as an ordinary user may: nothing is changed, nothing is waited for long. */
import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { networkInterfaces, platform } from 'node:os'
import { delimiter, join } from 'node:path'
import type { InterfaceFacts, LaptopFacts } from '../../core/doctor/laptop-facts'
import { defaultRoutesShown } from '../helper/ip-command'

const patienceMs = 3000
/** The first of each is what is installed; any of them will do. */
const programs = [
  ['ip'],
  ['ping'],
  ['tcpdump'],
  ['socat'],
  ['setpriv'],
  ['mariadbd'],
  ['chromium-headless-shell', 'chromium'],
] as const
const sys = '/sys/class/net'
const ethernet = '1'

export type Gathered = Omit<LaptopFacts, 'factorySubnets' | 'dhcpServers'>

/** @param named  the interface that was named; the only wired one where none was */
export async function gatherFacts(named: string | undefined): Promise<Gathered> {
  const interfaces = interfaceFacts()
  const wired = interfaces.filter(({ kind }) => kind === 'wired')
  const chosen = named ?? (wired.length === 1 ? wired[0]?.name : undefined)
  return {
    system: platform() === 'linux' ? 'linux' : 'other',
    interfaces,
    chosen,
    defaultRoutes: await defaultRoutesShown().catch(() => []),
    privilege: privilege(),
    missingPrograms: programs.filter((names) => !names.some(isThere)).map(([name]) => name),
    networkManager: networkManager(chosen),
    firewall: firewall(),
    taggedVlans: taggedVlans(),
    clock: clock(),
  }
}

function interfaceFacts(): InterfaceFacts[] {
  if (!existsSync(sys)) return []
  const addresses = networkInterfaces()
  return readdirSync(sys)
    .filter((name) => name !== 'lo')
    .map((name) => ({
      name,
      kind: kindOf(name),
      link: textOf(`${sys}/${name}/carrier`) === '1' ? ('up' as const) : ('down' as const),
      addresses: (addresses[name] ?? []).flatMap(({ family, cidr }) => (family === 'IPv4' && cidr ? [cidr] : [])),
    }))
}

function kindOf(name: string): InterfaceFacts['kind'] {
  if (existsSync(`${sys}/${name}/wireless`) || existsSync(`${sys}/${name}/phy80211`)) return 'wireless'
  const virtual = !existsSync(`${sys}/${name}/device`) || existsSync(`${sys}/${name}/bridge`)
  return !virtual && textOf(`${sys}/${name}/type`) === ethernet ? 'wired' : 'other'
}

/** A file of the kernel's; empty where it cannot be read, as the carrier of an interface that is off. */
function textOf(file: string): string {
  try {
    return readFileSync(file, 'utf8').trim()
  } catch {
    return ''
  }
}

function privilege(): LaptopFacts['privilege'] {
  if (process.getuid?.() === 0) return 'root'
  return run('sudo', ['-n', 'true']) === undefined ? 'none' : 'sudo'
}

const isThere = (program: string): boolean =>
  [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/sbin'].some((folder) =>
    existsSync(join(folder, program)),
  )

function networkManager(chosen: string | undefined): LaptopFacts['networkManager'] {
  const told = run('nmcli', ['-t', '-f', 'DEVICE,STATE', 'device'])
  if (told === undefined) return 'absent'
  const state = told
    .split('\n')
    .find((line) => line.startsWith(`${chosen}:`))
    ?.split(':')[1]
  return state === undefined || state === 'unmanaged' ? 'leaves-alone' : 'manages'
}

/** Only root may look. */
function firewall(): LaptopFacts['firewall'] {
  const told = run('nft', ['list', 'chains'])
  if (told === undefined) return undefined
  return /hook input[^;]*;\s*policy drop/.test(told) ? 'drops' : 'accepts'
}

function taggedVlans(): LaptopFacts['taggedVlans'] {
  if (platform() !== 'linux') return undefined
  return existsSync('/proc/net/vlan') || run('modprobe', ['-n', '-q', '8021q']) !== undefined ? 'there' : 'missing'
}

function clock(): LaptopFacts['clock'] {
  const told = run('timedatectl', ['show', '-p', 'NTPSynchronized', '--value'])?.trim()
  return told === 'yes' ? 'right' : told === 'no' ? 'not-set' : undefined
}

/** What a program prints; undefined where it is missing or says no. */
function run(command: string, words: readonly string[]): string | undefined {
  const { status, stdout } = spawnSync(command, words, { encoding: 'utf8', timeout: patienceMs })
  return status === 0 ? stdout : undefined
}
