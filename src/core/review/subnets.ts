/** Checks of subnets: what lies outside, what overlaps, who may reach what should be out of reach. */

import { type Cidr, formatIpv4, isHostOf, parseCidr, parseIpv4 } from '../address/ipv4'
import type { Brief } from '../brief/brief'
import { serverAddresses } from '../brief/servers'
import { type AddressRange, managementId, moveSubnet, nextFreeCidr, overlap, type Subnet } from '../brief/subnet'
import { type KitCard, modelName } from '../kit/kit-card'
import { type Message, message } from '../message/message'
import type { BriefFault } from './fault'

interface Placed {
  readonly id: string
  readonly path: string
  readonly subnet: Subnet
  readonly cidr: Cidr
}

export function reviewSubnets(brief: Brief, models: readonly KitCard[]): BriefFault[] {
  const all = [
    { id: managementId, path: 'management', subnet: brief.management },
    ...brief.subnets.map((subnet, index) => ({ id: subnet.id, path: `subnets.${index}`, subnet })),
  ]
  const placed = all.flatMap((each): Placed[] => {
    const cidr = parseCidr(each.subnet.cidr)
    return cidr ? [{ ...each, cidr }] : []
  })
  return [
    ...placed.flatMap(insideItself),
    ...placed.flatMap((each) => handedOut(each, serverAddresses(brief))),
    ...overlaps(brief, placed),
    ...sameVlan(placed),
    ...factorySubnets(placed[0], models),
    ...talks(brief),
  ]
}

/** Gateway, pool, static range and reserved addresses belong inside, and out of each other's way. */
function insideItself({ path, subnet, cidr }: Placed): BriefFault[] {
  const faults: BriefFault[] = []
  const inside = (text: string): boolean => isHostOf(cidr, parseIpv4(text) ?? -1)
  const firstHost = formatIpv4(cidr.firstHost)
  if (subnet.gateway && !inside(subnet.gateway))
    faults.push({
      field: `${path}.gateway`,
      ...message('gateway-outside', { gateway: subnet.gateway, subnet: subnet.cidr }),
      weight: 'mend',
      mend: {
        ...message('mend-use-address', { address: firstHost }),
        set: [{ path: `${path}.gateway`, value: firstHost }],
      },
    })
  const ranges = [
    { key: 'dhcpPool', what: message('of-the-dhcp-pool'), range: subnet.dhcpPool },
    { key: 'staticRange', what: message('of-the-static-range'), range: subnet.staticRange },
  ] as const
  for (const { key, what, range } of ranges)
    if (range) faults.push(...rangeFaults(`${path}.${key}`, what, range, cidr, subnet.cidr))
  const { dhcpPool, staticRange } = subnet
  if (dhcpPool && staticRange && touches(dhcpPool, staticRange))
    faults.push({
      field: `${path}.staticRange`,
      ...message('static-range-in-pool', { first: staticRange.first, last: staticRange.last }),
      weight: 'mend',
      mend: { ...message('mend-use-outside-pool'), set: [{ path: `${path}.staticRange`, value: null }] },
    })
  subnet.reserved.forEach((address) => {
    if (!inside(address))
      faults.push({
        field: `${path}.reserved`,
        ...message('reserved-outside', { address, subnet: subnet.cidr }),
        weight: 'mend',
        mend: {
          ...message('mend-take-address-off'),
          set: [{ path: `${path}.reserved`, value: subnet.reserved.filter((each) => each !== address) }],
        },
      })
  })
  return faults
}

/** Addresses that somebody has, and that a pool would hand out all the same. One mend sees to all of them. */
function handedOut({ path, subnet, cidr }: Placed, servers: readonly string[]): BriefFault[] {
  const { name, dhcpPool, gateway } = subnet
  if (!dhcpPool || rangeFaults(path, message('of-the-dhcp-pool'), dhcpPool, cidr, '').length > 0) return []
  const owned = [
    ...(gateway === null ? [] : [{ address: gateway, owner: undefined }]),
    ...subnet.dnsServers.map((address) => ({ address, owner: message('of-dns-server-there') })),
    ...servers.map((address) => ({ address, owner: message('of-brief-server-there') })),
    ...subnet.reserved.map((address) => ({ address, owner: message('of-something-else-there') })),
  ]
  const met = owned.filter(
    ({ address }, at) =>
      touches(dhcpPool, { first: address, last: address }) &&
      owned.findIndex((each) => each.address === address) === at,
  )
  const free = widestBetween(
    dhcpPool,
    met.map(({ address }) => address),
  )
  return met.map(({ address, owner }) => ({
    field: `${path}.dhcpPool`,
    ...(owner === undefined
      ? message('gateway-in-pool', { subnet: name, address })
      : message('kept-address-in-pool', { subnet: name, address, owner })),
    weight: 'mend',
    mend: {
      ...(free ? message('mend-use-range', { first: free.first, last: free.last }) : message('mend-no-pool')),
      set: [{ path: `${path}.dhcpPool`, value: free ?? null }],
    },
  }))
}

/** The widest part of a range that holds none of some addresses; undefined where it holds nothing else. */
function widestBetween({ first, last }: AddressRange, taken: readonly string[]): AddressRange | undefined {
  const edges = taken.map((address) => parseIpv4(address) ?? 0).sort((a, b) => a - b)
  let from = parseIpv4(first) ?? 0
  let widest: { from: number; to: number } | undefined
  for (const edge of [...edges, (parseIpv4(last) ?? 0) + 1]) {
    if (edge > from && edge - from > (widest ? widest.to - widest.from + 1 : 0)) widest = { from, to: edge - 1 }
    from = edge + 1
  }
  return widest && { first: formatIpv4(widest.from), last: formatIpv4(widest.to) }
}

function rangeFaults(path: string, what: Message, range: AddressRange, cidr: Cidr, text: string): BriefFault[] {
  const first = parseIpv4(range.first) ?? 0
  const last = parseIpv4(range.last) ?? 0
  if (first > last)
    return [
      {
        field: path,
        ...message('range-backwards', { range: what, first: range.first, last: range.last }),
        weight: 'mend',
        mend: { ...message('mend-swap-ends'), set: [{ path, value: { first: range.last, last: range.first } }] },
      },
    ]
  const outside = [range.first, range.last].find((end) => !isHostOf(cidr, parseIpv4(end) ?? -1))
  if (!outside) return []
  const within = { first: Math.max(first, cidr.firstHost), last: Math.min(last, cidr.lastHost) }
  // Where nothing of it lies inside, the upper half is as good as any.
  const half =
    within.first > within.last
      ? { first: Math.floor((cidr.firstHost + cidr.lastHost) / 2), last: cidr.lastHost }
      : within
  const value = { first: formatIpv4(half.first), last: formatIpv4(half.last) }
  return [
    {
      field: path,
      ...message('range-outside', { address: outside, range: what, subnet: text }),
      weight: 'mend',
      mend: { ...message('mend-use-range', { first: value.first, last: value.last }), set: [{ path, value }] },
    },
  ]
}

function touches(a: AddressRange, b: AddressRange): boolean {
  const [a1 = 0, a2 = 0, b1 = 0, b2 = 0] = [a.first, a.last, b.first, b.last].map((text) => parseIpv4(text) ?? 0)
  return a1 <= b2 && b1 <= a2
}

function overlaps(brief: Brief, placed: readonly Placed[]): BriefFault[] {
  return placed.flatMap((each, index): BriefFault[] => {
    const other = placed.slice(0, index).find((before) => overlap(before.cidr, each.cidr))
    if (!other) return []
    const free = nextFreeCidr(
      each.subnet.cidr,
      placed.filter((one) => one !== each).map((one) => one.subnet.cidr),
    )
    const mend =
      free && each.path !== 'management'
        ? {
            ...message('mend-move-subnet', { subnet: free }),
            set: [{ path: each.path, value: moveSubnet(brief.subnets[index - 1] ?? each.subnet, free) }],
          }
        : undefined
    return [
      {
        field: `${each.path}.cidr`,
        ...message('subnets-overlap', {
          name: each.subnet.name,
          subnet: each.subnet.cidr,
          otherName: other.subnet.name,
          otherSubnet: other.subnet.cidr,
        }),
        weight: 'mend',
        ...(mend ? { mend } : {}),
      },
    ]
  })
}

function sameVlan(placed: readonly Placed[]): BriefFault[] {
  return placed.flatMap((each, index): BriefFault[] => {
    const other = placed.slice(0, index).find((before) => before.subnet.vlan === each.subnet.vlan)
    if (!other || !each.path.startsWith('subnets')) return []
    const taken = new Set(placed.map((one) => one.subnet.vlan))
    const free = Array.from({ length: 4094 }, (_, at) => at + 1).find(
      (vlan) => vlan > (each.subnet.vlan ?? 1) && !taken.has(vlan),
    )
    const where =
      each.subnet.vlan === null ? message('are-both-untagged') : message('are-both-on-vlan', { vlan: each.subnet.vlan })
    return [
      {
        field: `${each.path}.vlan`,
        ...message('vlan-twice', { name: each.subnet.name, other: other.subnet.name, where }),
        weight: 'mend',
        ...(free === undefined
          ? {}
          : {
              mend: { ...message('mend-use-vlan', { other: free }), set: [{ path: `${each.path}.vlan`, value: free }] },
            }),
      },
    ]
  })
}

/** A site that uses a factory subnet itself: nothing is wrong, but an address in it may be anybody's. */
function factorySubnets(management: Placed | undefined, models: readonly KitCard[]): BriefFault[] {
  return models.flatMap((card): BriefFault[] => {
    const { address, prefix } = card.factory
    const factory = address === null ? undefined : parseCidr(`${address}/${prefix}`)
    if (!management || address === null || !factory || !overlap(management.cidr, factory)) return []
    return [
      {
        field: 'management.cidr',
        ...message('factory-address-in-subnet', { model: modelName(card), address, subnet: management.subnet.cidr }),
        weight: 'know',
      },
    ]
  })
}

/** Guests and things never reach management. */
function talks(brief: Brief): BriefFault[] {
  const names = new Map([
    [managementId, brief.management.name],
    ...brief.subnets.map((subnet) => [subnet.id, subnet.name] as const),
  ])
  return brief.talks.flatMap(({ from, to }, index): BriefFault[] => {
    const mend = {
      ...message('mend-keep-subnets-apart'),
      set: [{ path: 'talks', value: brief.talks.filter((_, at) => at !== index) }],
    }
    if (!names.has(from) || !names.has(to))
      return [
        {
          field: `talks.${index}`,
          ...message('talk-to-nobody'),
          weight: 'mend',
          mend: { ...mend, ...message('mend-take-rule-off') },
        },
      ]
    if (to !== managementId) return []
    const vlan = brief.subnets.find((subnet) => subnet.id === from)?.vlan
    const risky = brief.networks.find(
      (network) =>
        (network.purpose === 'guests' || network.purpose === 'things') &&
        network.vlan !== null &&
        network.vlan === vlan,
    )
    if (!risky) return []
    return [
      {
        field: `talks.${index}`,
        ...message(risky.purpose === 'guests' ? 'guests-reach-management' : 'things-reach-management', {
          from: names.get(from) ?? '',
          to: names.get(to) ?? '',
          ssid: risky.ssid,
        }),
        weight: 'mend',
        mend,
      },
    ]
  })
}
