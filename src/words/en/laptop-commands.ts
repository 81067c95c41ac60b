/** The commands that give the laptop an address and take it away again, for each system. */
import { formatIpv4, maskOf } from '../../core/address/ipv4'
import { prose } from '../prose'

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

/** Names of interfaces as each system gives them to the first cable. */
const usualNames: Readonly<Record<System, string>> = {
  Linux: 'enp3s0',
  'Linux with NetworkManager': 'enp3s0',
  Windows: 'Ethernet',
  macOS: 'en7',
}

/** @param interfaceName  as the system has it; a usual one where it is not told */
export function commandsFor(address: string, prefix: number, interfaceName?: string): SystemCommands[] {
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
    // What is added behind its back it takes away when the cable is moved: it is told, and its profiles are not
    // changed.
    set: `sudo nmcli device modify ${quoted(name)} +ipv4.addresses ${address}/${prefix}`,
    undo: `sudo nmcli device modify ${quoted(name)} -ipv4.addresses ${address}/${prefix}`,
    remark: 'Its profiles, routes, DNS and Wi-Fi stay. Gone when the cable is out; then set it once more.',
  }),
  Windows: (address, prefix, name) => ({
    list: 'Get-NetAdapter -Physical | Format-Table Name, Status, MacAddress',
    set: prose`New-NetIPAddress -InterfaceAlias ${powerShellQuoted(name)} -IPAddress ${address} -PrefixLength
      ${prefix} -PolicyStore ActiveStore`,
    undo: prose`Remove-NetIPAddress -InterfaceAlias ${powerShellQuoted(name)} -IPAddress ${address} -PolicyStore
      ActiveStore -Confirm:$false`,
    remark: prose`In PowerShell, started as administrator. Beside the addresses that are there; gateway, DNS and Wi-Fi
      stay. Gone after a restart at the latest.`,
  }),
  macOS: (address, prefix, name) => ({
    list: 'networksetup -listallhardwareports',
    set: `sudo ifconfig ${quoted(name)} inet ${address} netmask ${formatIpv4(maskOf(prefix))} alias`,
    undo: `sudo ifconfig ${quoted(name)} inet ${address} -alias`,
    remark: prose`The device behind the port that the cable is in, such as a USB adapter. Network settings, routes, DNS
      and Wi-Fi stay. Gone after a restart at the latest.`,
  }),
}
