/**
 * What no unit of the job enforces, for whoever runs router and switch: VLANs and gateways, who hands out addresses,
 * who may talk to whom, and what each switch port must carry.
 */

import { vendorOf, vendorOptions } from '../addressing/vendor-option'
import { type Brief, managedWithTag } from '../brief/brief'
import { timeServerAddresses } from '../brief/servers'
import { managementId, type Subnet } from '../brief/subnet'
import type { AskingJob } from '../config/asked'
import { isManaged, type KitCard, modelName } from '../kit/kit-card'
import { bandsOfNetworks, carriesNetworks } from '../kit/networks-carried'
import type { Unit } from '../kit/unit'
import { type Message, message } from '../message/message'

export interface SubnetLine {
  readonly name: string
  readonly cidr: string
  /** Null for untagged. */
  readonly vlan: number | null
  readonly gateway: string | null
  /** What DHCP hands out; null for nothing. */
  readonly pool: { readonly first: string; readonly last: string } | null
  readonly dns: readonly string[]
  /** Networks whose clients are on it. */
  readonly networks: readonly string[]
}

export interface PortLine {
  /** Switch and port on site, as they are labelled; empty where nobody has said. */
  readonly siteSwitch: string
  readonly sitePort: string
  readonly unit: string
  /** What frames without a tag belong to: a VLAN, the network of management where that has none, or nothing. */
  readonly native: number | 'management' | 'nothing'
  readonly tagged: readonly number[]
}

export interface SiteSheet {
  readonly subnets: readonly SubnetLine[]
  /** DHCP options that units need. */
  readonly options: readonly Message[]
  /** Names of subnets, and for each pair whether clients may open connections. */
  readonly talks: readonly { readonly from: string; readonly to: readonly string[] }[]
  readonly ports: readonly PortLine[]
  /** VLANs that networks use and no subnet of the brief has: somebody else must serve them. */
  readonly unserved: readonly number[]
}

type SiteJob = Pick<AskingJob, 'brief' | 'units' | 'cards' | 'plans'>

export function siteSheet(job: SiteJob): SiteSheet {
  const { brief, units } = job
  const subnets = [{ ...brief.management, id: managementId }, ...brief.subnets]
  const nameOf = (id: string): string => subnets.find((subnet) => subnet.id === id)?.name ?? id
  const vlans = new Set(subnets.map(({ vlan }) => vlan))
  return {
    subnets: subnets.map((subnet) => lineOf(subnet, brief)),
    options: optionsOf(job),
    talks: subnets.map(({ id, name }) => ({
      from: name,
      to: brief.talks.filter(({ from }) => from === id).map(({ to }) => nameOf(to)),
    })),
    ports: units.flatMap((unit) => portOf(job, unit)).sort(byPlace),
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
    pool: dhcpPool,
    dns: dnsServers,
    networks: networks.filter((network) => network.vlan === vlan).map(({ ssid }) => ssid),
  }
}

function optionsOf({ brief, units, cards, plans }: SiteJob): Message[] {
  const { management, addressing } = brief
  const timeServers = timeServerAddresses(brief)
  const names = brief.ntpServers.filter((server) => !timeServers.includes(server))
  const controllers = units.flatMap((unit) => {
    const card = cards.get(unit.model)
    const address = plans.get(unit.id)?.address
    return card?.role === 'controller' && address !== undefined ? [{ ...unit, address, vendor: vendorOf(card) }] : []
  })
  return [
    ...(addressing === 'dhcp' ? [message('dhcp-reservations')] : []),
    ...(management.gateway === null ? [] : [message('dhcp-option-3', { gateway: management.gateway })]),
    ...(timeServers.length > 0 ? [message('dhcp-option-42', { servers: timeServers })] : []),
    // RFC 2132, 8.3: the option takes addresses alone.
    ...(names.length > 0 ? [message('dhcp-time-by-name', { names })] : []),
    ...(controllers.length > 0
      ? [message('dhcp-option-138', { addresses: controllers.map(({ address }) => address) })]
      : []),
    ...vendorOptions(controllers).map(({ vendorClass, hex }) => message('dhcp-option-43', { vendorClass, hex })),
  ]
}

/** What the switch port of a unit must carry: management, and the VLANs of all clients whose frames pass there. */
function portOf(job: SiteJob, unit: Unit): PortLine[] {
  const { brief, cards } = job
  const card = cards.get(unit.model)
  if (card?.role === 'switch') return []
  const clients = card ? unique(cardsWhoseClientsPass(job, card).flatMap((each) => vlansOf(brief, each))) : []
  const native = brief.managementTagged ? 'nothing' : (brief.management.vlan ?? 'management')
  const tagged = unique([...managedWithTag(brief), ...clients])
  const { siteSwitch, sitePort, name } = unit
  return [{ siteSwitch, sitePort, unit: name, native, tagged: tagged.filter((each) => each !== native) }]
}

/** Switch by switch, port by port, numbers by their value; what nobody has said comes last. */
function byPlace(a: PortLine, b: PortLine): number {
  const { compare } = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })
  const unsaid = (line: PortLine): number => Number(line.siteSwitch === '') + Number(line.sitePort === '')
  return unsaid(a) - unsaid(b) || compare(a.siteSwitch, b.siteSwitch) || compare(a.sitePort, b.sitePort)
}

/** Models on the kit list whose clients' frames leave by the port of a unit: its own, or those that it manages. */
function cardsWhoseClientsPass({ units, cards }: SiteJob, card: KitCard): KitCard[] {
  const onTheList = [...new Set(units.map(({ model }) => model))].flatMap((model) => cards.get(model) ?? [])
  const manages = (controller: KitCard, each: KitCard): boolean =>
    isManaged(each) && each.dialect.by.includes(modelName(controller))
  if (card.role === 'controller')
    return card.does.clientFrames === 'tunnelled' ? onTheList.filter((each) => manages(card, each)) : []
  const [controller] = onTheList.filter((each) => each.role === 'controller' && manages(each, card))
  return controller?.does.clientFrames === 'tunnelled' ? [] : [card]
}

/** VLANs of the networks that a model has on air. */
function vlansOf(brief: Brief, card: KitCard): number[] {
  if (!carriesNetworks(card)) return []
  const onAir = brief.networks.filter(({ bands }) => bands.some((band) => bandsOfNetworks(card).includes(band)))
  return onAir.flatMap(({ vlan }) => vlan ?? [])
}

const unique = (vlans: readonly number[]): number[] => [...new Set(vlans)].sort((a, b) => a - b)
