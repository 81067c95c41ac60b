/**
 * Addresses that the laptop lends on the bench to boxes that wait for one: to whom, and out of which subnet.
 */

import { isHostOf, parseCidr, parseIpv4 } from '../address/ipv4'
import type { Brief } from '../brief/brief'
import { overlap } from '../brief/subnet'
import { isManaged, type KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'

export interface Lending {
  readonly macs: readonly string[]
  /** CIDR. */
  readonly cidr: string
}

/** Private (RFC 1918), since some boxes let nobody else in; in the corners of it that sites seldom use. */
const candidates = ['10.254.0.0/22', '172.30.252.0/22', '192.168.252.0/22', '10.253.252.0/22', '172.29.0.0/22']

/** Prefix length of the subnet that an address was lent from; undefined where it is none of those. */
export function lentPrefix(address: string): number | undefined {
  return candidates.flatMap((text) => parseCidr(text) ?? []).find((subnet) => isHostOf(subnet, parseIpv4(address) ?? 0))
    ?.prefix
}

/**
 * @param own  of the laptop, CIDR
 * @returns    undefined where nobody is to have one: units that keep what the site's DHCP gives wait for that
 */
export function lendingOf(
  brief: Pick<Brief, 'addressing' | 'management' | 'subnets'>,
  units: readonly Unit[],
  cards: ReadonlyMap<string, KitCard>,
  own: readonly string[],
): Lending | undefined {
  const macs = units.flatMap(({ mac, model }) => {
    const card = cards.get(model)
    return card && !isManaged(card) ? [mac] : []
  })
  if (brief.addressing === 'dhcp' || macs.length === 0) return undefined
  const factory = [...cards.values()].flatMap(({ factory: { address, prefix } }) =>
    address === null ? [] : [`${address}/${prefix}`],
  )
  const taken = [brief.management.cidr, ...brief.subnets.map(({ cidr }) => cidr), ...factory, ...own]
  const others = taken.flatMap((text) => parseCidr(text) ?? [])
  const cidr = candidates.find((text) => {
    const subnet = parseCidr(text)
    return subnet && !others.some((other) => overlap(subnet, other))
  })
  return cidr === undefined ? undefined : { macs, cidr }
}
