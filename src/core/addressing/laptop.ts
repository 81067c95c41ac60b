/**
 * The laptop: which address it needs in each subnet of the job, never one in use, and the commands that set it and
 * take it away again.
 *
 * In: the brief's subnets, the models' factory addresses, and addresses that somebody has. Out: one line a subnet.
 */

import { formatIpv4, maskOf, parseCidr, parseIpv4, sameSubnet } from '../address/ipv4'
import type { Brief } from '../brief/brief'
import { type KitCard, modelName } from '../kit/kit-card'

export interface LaptopAddress {
  /** What the subnet is for: `Management`, or the models that come out of their boxes there. */
  readonly why: string
  readonly subnet: string
  readonly address: string
  readonly prefix: number
  readonly commands: readonly SystemCommands[]
}

export const systems = ['Linux', 'Linux with NetworkManager', 'Windows', 'macOS'] as const
export type System = (typeof systems)[number]

/** What somebody types in a terminal of a system. */
export interface SystemCommands {
  readonly system: System
  /** Lists the interfaces by their names. */
  readonly list: string
  readonly set: string
  readonly undo: string
  /** Where to type it, what it leaves alone, and how long it lasts. */
  readonly remark: string
}

/** @param inUse addresses that are taken: planned for units, or seen on the wire */
export function laptopAddresses(
  brief: Brief,
  models: readonly KitCard[],
  inUse: readonly string[],
  interfaceName?: string,
): LaptopAddress[] {
  const factory = new Map<string, { cidr: string; models: string[]; units: string[] }>()
  for (const card of models) {
    const { address, prefix } = card.factory
    const cidr = address === null ? undefined : parseCidr(`${address}/${prefix}`)
    if (!cidr || address === null) continue
    const key = `${formatIpv4(cidr.network)}/${prefix}`
    const group = factory.get(key) ?? { cidr: key, models: [], units: [] }
    group.models.push(modelName(card))
    group.units.push(address)
    factory.set(key, group)
  }
  const site = [brief.management, ...brief.subnets].map((subnet) => ({
    why: subnet.name,
    cidr: subnet.cidr,
    avoid: [subnet.gateway, ...subnet.dnsServers, ...subnet.reserved].flatMap((text) => text ?? []),
    pool: subnet.dhcpPool,
  }))
  const boxes = [...factory.values()].map((group) => ({
    why: `${group.models.join(', ')} out of the box`,
    cidr: group.cidr,
    avoid: group.units,
    pool: null,
  }))
  return [...site, ...boxes].flatMap(({ why, cidr, avoid, pool }): LaptopAddress[] => {
    const parsed = parseCidr(cidr)
    if (!parsed) return []
    const taken = new Set([...avoid, ...inUse].flatMap((text) => parseIpv4(text) ?? []))
    const [poolFirst, poolLast] = [parseIpv4(pool?.first ?? ''), parseIpv4(pool?.last ?? '')]
    const inPool = (address: number): boolean =>
      poolFirst !== undefined && poolLast !== undefined && address >= poolFirst && address <= poolLast
    // From the top: the lowest addresses are where servers and factory addresses sit.
    for (
      let address = parsed.lastHost - 4 > parsed.firstHost ? parsed.lastHost - 4 : parsed.lastHost;
      address >= parsed.firstHost;
      address -= 1
    ) {
      if (taken.has(address) || inPool(address)) continue
      const text = formatIpv4(address)
      return [
        {
          why,
          subnet: `${formatIpv4(parsed.network)}/${parsed.prefix}`,
          address: text,
          prefix: parsed.prefix,
          commands: commandsFor(text, parsed.prefix, interfaceName),
        },
      ]
    }
    return []
  })
}

/** Names of interfaces as each system gives them to the first cable. */
const usualNames: Readonly<Record<System, string>> = {
  Linux: 'enp3s0',
  'Linux with NetworkManager': 'enp3s0',
  Windows: 'Ethernet',
  macOS: 'en7',
}

/** @param interfaceName  as the system has it; a usual one where it is not told */
function commandsFor(address: string, prefix: number, interfaceName: string | undefined): SystemCommands[] {
  return systems.map((system) => ({
    system,
    ...commands[system](address, prefix, interfaceName || usualNames[system]),
  }))
}

/** In single quotes a POSIX shell takes everything but the quote itself. */
const quoted = (name: string): string => (/^[\w.:-]+$/.test(name) ? name : `'${name.replaceAll("'", `'\\''`)}'`)
/** In PowerShell a quote within single quotes is doubled. */
const powerShellQuoted = (name: string): string => `'${name.replaceAll("'", "''")}'`

type Commands = Omit<SystemCommands, 'system'>
const commands: Readonly<Record<System, (address: string, prefix: number, interfaceName: string) => Commands>> = {
  Linux: (address, prefix, name) => ({
    list: 'ip -brief link',
    set: `sudo ip address add ${address}/${prefix} dev ${quoted(name)}`,
    undo: `sudo ip address del ${address}/${prefix} dev ${quoted(name)}`,
    remark: 'Beside the addresses that are there; routes, DNS and Wi-Fi stay. Gone after a restart at the latest.',
  }),
  'Linux with NetworkManager': (address, prefix, name) => ({
    list: 'nmcli device status',
    // What is added behind its back it takes away when the cable is moved: it is told, and its profiles are not changed.
    set: `sudo nmcli device modify ${quoted(name)} +ipv4.addresses ${address}/${prefix}`,
    undo: `sudo nmcli device modify ${quoted(name)} -ipv4.addresses ${address}/${prefix}`,
    remark: 'Its profiles, routes, DNS and Wi-Fi stay. Gone when the cable is out; then set it once more.',
  }),
  Windows: (address, prefix, name) => ({
    list: 'Get-NetAdapter -Physical | Format-Table Name, Status, MacAddress',
    set: `New-NetIPAddress -InterfaceAlias ${powerShellQuoted(name)} -IPAddress ${address} -PrefixLength ${prefix} -PolicyStore ActiveStore`,
    undo: `Remove-NetIPAddress -InterfaceAlias ${powerShellQuoted(name)} -IPAddress ${address} -PolicyStore ActiveStore -Confirm:$false`,
    remark:
      'In PowerShell, started as administrator. Beside the addresses that are there; gateway, DNS and Wi-Fi stay. Gone after a restart at the latest.',
  }),
  macOS: (address, prefix, name) => ({
    list: 'networksetup -listallhardwareports',
    set: `sudo ifconfig ${quoted(name)} inet ${address} netmask ${formatIpv4(maskOf(prefix))} alias`,
    undo: `sudo ifconfig ${quoted(name)} inet ${address} -alias`,
    remark:
      'The device behind the port that the cable is in, such as a USB adapter. Network settings, routes, DNS and Wi-Fi stay. Gone after a restart at the latest.',
  }),
}

/** Is an address within a subnet written as `10.44.8.0/24`? */
export function isIn(cidr: string, address: string): boolean {
  const parsed = parseCidr(cidr)
  return parsed !== undefined && sameSubnet(formatIpv4(parsed.network), address, parsed.prefix)
}
