/**
 * The laptop: which address it needs in each subnet of the job, never one in use, and the commands that set it and
 * take it away again.
 *
 * In: the brief's subnets, the models' factory addresses, and addresses that somebody has. Out: one line a subnet.
 */
import type { Brief } from '../brief/brief'
import { type KitCard, modelName } from '../kit/kit-card'
import { formatIpv4, parseCidr, parseIpv4, sameSubnet } from './ipv4'

export interface LaptopAddress {
  /** What the subnet is for: `Management`, or the models that come out of their boxes there. */
  readonly why: string
  readonly subnet: string
  readonly address: string
  readonly prefix: number
  readonly commands: readonly SystemCommands[]
}

export interface SystemCommands {
  readonly system: 'Linux' | 'Windows' | 'macOS'
  readonly set: string
  readonly undo: string
}

/** @param inUse addresses that are taken: planned for units, or seen on the wire */
export function laptopAddresses(
  brief: Brief,
  models: readonly KitCard[],
  inUse: readonly string[],
  interfaceName = 'enp3s0',
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

function commandsFor(address: string, prefix: number, interfaceName: string): SystemCommands[] {
  const mask = maskOf(prefix)
  return [
    {
      system: 'Linux',
      set: `sudo ip address add ${address}/${prefix} dev ${interfaceName}`,
      undo: `sudo ip address del ${address}/${prefix} dev ${interfaceName}`,
    },
    {
      system: 'Windows',
      // Without skipassource replies could leave by this address; store=active is gone with the next restart at the latest.
      set: `netsh interface ipv4 add address name="Ethernet" address=${address} mask=${mask} store=active skipassource=true`,
      undo: `netsh interface ipv4 delete address name="Ethernet" address=${address} store=active`,
    },
    {
      system: 'macOS',
      set: `sudo ifconfig en0 inet ${address} netmask ${mask} alias`,
      undo: `sudo ifconfig en0 inet ${address} -alias`,
    },
  ]
}

/** `255.255.255.0` for 24. */
export function maskOf(prefix: number): string {
  return formatIpv4(prefix === 0 ? 0 : (0xffffffff << (32 - prefix)) >>> 0)
}

/** Is an address within a subnet written as `10.44.8.0/24`? */
export function isIn(cidr: string, address: string): boolean {
  const parsed = parseCidr(cidr)
  return parsed !== undefined && sameSubnet(formatIpv4(parsed.network), address, parsed.prefix)
}
