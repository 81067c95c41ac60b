/**
 * What no unit of the job enforces, for whoever runs router and switch: VLANs and gateways, who hands out addresses,
 * who may talk to whom, and what each switch port must carry.
 */
import { type Brief, managedWithTag } from '../brief/brief'
import { managementId, type Subnet } from '../brief/subnet'
import { carriesNetworks, type KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'

export interface SubnetLine {
  readonly name: string
  readonly cidr: string
  /** Null for untagged. */
  readonly vlan: number | null
  readonly gateway: string | null
  readonly pool: string
  readonly dns: string
  /** Networks whose clients are on it. */
  readonly networks: readonly string[]
}

export interface PortLine {
  readonly port: number
  readonly unit: string
  /** VLAN that frames without a tag belong to; null for none. */
  readonly native: number | null
  readonly tagged: readonly number[]
}

export interface SiteSheet {
  readonly subnets: readonly SubnetLine[]
  /** DHCP options that units need. */
  readonly options: readonly string[]
  /** Names of subnets, and for each pair whether clients may open connections. */
  readonly talks: readonly { readonly from: string; readonly to: readonly string[] }[]
  readonly ports: readonly PortLine[]
  /** VLANs that networks use and no subnet of the brief has: somebody else must serve them. */
  readonly unserved: readonly number[]
}

export function siteSheet(brief: Brief, units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): SiteSheet {
  const subnets = [{ ...brief.management, id: managementId }, ...brief.subnets]
  const nameOf = (id: string): string => subnets.find((subnet) => subnet.id === id)?.name ?? id
  const vlans = new Set(subnets.map(({ vlan }) => vlan))
  return {
    subnets: subnets.map((subnet) => lineOf(subnet, brief)),
    options: optionsOf(brief),
    talks: subnets.map(({ id, name }) => ({
      from: name,
      to: brief.talks.filter(({ from }) => from === id).map(({ to }) => nameOf(to)),
    })),
    ports: units.flatMap((unit) => portOf(brief, unit, cards.get(unit.model))).sort((a, b) => a.port - b.port),
    unserved: unique(brief.networks.flatMap(({ vlan }) => (vlan !== null && !vlans.has(vlan) ? [vlan] : []))),
  }
}

function lineOf(subnet: Subnet, { networks }: Brief): SubnetLine {
  const { name, cidr, vlan, gateway, dhcpPool, dnsServers } = subnet
  return {
    name,
    cidr,
    vlan,
    gateway,
    pool: dhcpPool ? `${dhcpPool.first} to ${dhcpPool.last}` : 'none',
    dns: dnsServers.join(', ') || 'none',
    networks: networks.filter((network) => network.vlan === vlan).map(({ ssid }) => ssid),
  }
}

function optionsOf({ management, ntpServers, addressing }: Brief): string[] {
  return [
    ...(addressing === 'dhcp'
      ? [`Management: an address reserved for each unit by its MAC; Plan, Addresses has the list for the server.`]
      : []),
    ...(management.gateway === null ? [] : [`Option 3, router, on management: ${management.gateway}.`]),
    `Option 42, time servers, on management: ${ntpServers.join(', ')}.`,
  ]
}

/** What the switch port of a unit must carry: management, and each network that the unit has on air. */
function portOf(brief: Brief, unit: Unit, card: KitCard | undefined): PortLine[] {
  if (unit.port === null || card?.role === 'switch') return []
  const { vlan } = brief.management
  const onAir =
    card && carriesNetworks(card) && card.role !== 'managed-access-point'
      ? brief.networks.filter(({ bands }) => bands.some((band) => card.radios.some((radio) => radio.band === band)))
      : []
  const clients = unique(onAir.flatMap((network) => network.vlan ?? []))
  const native = brief.managementTagged ? null : vlan
  const tagged = unique([...managedWithTag(brief), ...clients])
  return [{ port: unit.port, unit: unit.name, native, tagged: tagged.filter((each) => each !== native) }]
}

const unique = (vlans: readonly number[]): number[] => [...new Set(vlans)].sort((a, b) => a - b)
