/**
 * The laptop: which address it needs in each subnet of the job, never one in use.
 *
 * In: the brief's subnets, the models' factory addresses, and addresses that somebody has. Out: one line a subnet.
 */

import { formatIpv4, parseCidr, parseIpv4, sameSubnet } from '../address/ipv4'
import type { Brief } from '../brief/brief'
import { type KitCard, modelName } from '../kit/kit-card'

export interface LaptopAddress {
  /** Name of the subnet; empty where models come out of their boxes there. */
  readonly name: string
  readonly models: readonly string[]
  readonly subnet: string
  readonly address: string
  readonly prefix: number
}

/** @param inUse addresses that are taken: planned for units, or seen on the wire */
export function laptopAddresses(brief: Brief, models: readonly KitCard[], inUse: readonly string[]): LaptopAddress[] {
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
    name: subnet.name,
    models: [],
    cidr: subnet.cidr,
    avoid: [subnet.gateway, ...subnet.dnsServers, ...subnet.reserved].flatMap((text) => text ?? []),
    pool: subnet.dhcpPool,
  }))
  const boxes = [...factory.values()].map((group) => ({
    name: '',
    models: group.models,
    cidr: group.cidr,
    avoid: group.units,
    pool: null,
  }))
  return [...site, ...boxes].flatMap(({ name, models, cidr, avoid, pool }): LaptopAddress[] => {
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
          name,
          models,
          subnet: `${formatIpv4(parsed.network)}/${parsed.prefix}`,
          address: text,
          prefix: parsed.prefix,
        },
      ]
    }
    return []
  })
}

/** Is an address within a subnet written as `10.44.8.0/24`? */
export function isIn(cidr: string, address: string): boolean {
  const parsed = parseCidr(cidr)
  return parsed !== undefined && sameSubnet(formatIpv4(parsed.network), address, parsed.prefix)
}
