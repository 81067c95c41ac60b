/**
 * Cross-checks of a brief: what each field alone cannot know.
 *
 * In: a brief and the country's rules. Out: faults, each with the field that it belongs to and a sentence.
 */
import { isHostOf, parseCidr, parseIpv4 } from '../addressing/ipv4'
import { countryName } from '../regulatory/country'
import type { RegulatoryDatabase } from '../regulatory/database'
import { legalBlocks } from '../regulatory/legal'
import type { Brief, Subnet } from './brief'

export interface BriefFault {
  /** Path of the field in the brief, with dots. */
  readonly field: string
  readonly sentence: string
}

export function reviewBrief(brief: Brief, regulatory: RegulatoryDatabase): BriefFault[] {
  return [...reviewCountry(brief, regulatory), ...reviewSubnet(brief.management, 'management'), ...reviewNetworks(brief)]
}

function reviewCountry(brief: Brief, regulatory: RegulatoryDatabase): BriefFault[] {
  const rules = regulatory.get(brief.country)
  if (!rules) return [{ field: 'country', sentence: `There are no radio rules for ${brief.country}.` }]
  const blocks = legalBlocks(rules)
  return brief.radio.bands
    .filter(({ band, width }) => !blocks.some((block) => block.band === band && block.width === width && !(brief.radio.place === 'outdoor' && block.indoor)))
    .map(({ band, width }) => ({
      field: 'radio.bands',
      sentence: `${countryName(brief.country)} has no legal ${width} MHz channel at ${band} GHz ${brief.radio.place === 'outdoor' ? 'outdoors' : 'for an access point'}.`,
    }))
}

function reviewSubnet(subnet: Subnet, field: string): BriefFault[] {
  const cidr = parseCidr(subnet.cidr)
  if (!cidr) return []
  const inside = (text: string): boolean => {
    const address = parseIpv4(text)
    return address !== undefined && isHostOf(cidr, address)
  }
  const faults: BriefFault[] = []
  if (subnet.gateway && !inside(subnet.gateway))
    faults.push({ field: `${field}.gateway`, sentence: `The gateway ${subnet.gateway} is outside ${subnet.cidr}: units could not reach it.` })
  if (subnet.dhcpPool) {
    const { first, last } = subnet.dhcpPool
    for (const end of [first, last]) if (!inside(end)) faults.push({ field: `${field}.dhcpPool`, sentence: `${end} of the DHCP pool is outside ${subnet.cidr}.` })
    if ((parseIpv4(first) ?? 0) > (parseIpv4(last) ?? 0)) faults.push({ field: `${field}.dhcpPool`, sentence: `The DHCP pool begins at ${first}, above its end ${last}.` })
  }
  return faults
}

function reviewNetworks(brief: Brief): BriefFault[] {
  const faults: BriefFault[] = []
  brief.networks.forEach((network, index) => {
    const twin = brief.networks.slice(0, index).find((other) => other.ssid === network.ssid && other.bands.some((band) => network.bands.includes(band)))
    if (twin) faults.push({ field: `networks.${index}.ssid`, sentence: `"${network.ssid}" is there twice on the same band: clients could not tell them apart.` })
    if (network.security === 'open')
      faults.push({ field: `networks.${index}.security`, sentence: `"${network.ssid}" would be open: anyone nearby could read what its clients send.` })
    if (network.vlan !== null && network.vlan === brief.management.vlan && network.purpose !== 'staff')
      faults.push({ field: `networks.${index}.vlan`, sentence: `"${network.ssid}" is on the management VLAN ${network.vlan}: its clients could reach every unit.` })
    for (const band of network.bands)
      if (!brief.radio.bands.some((each) => each.band === band))
        faults.push({ field: `networks.${index}.bands`, sentence: `"${network.ssid}" is meant for ${band} GHz, where the radio policy has no channel.` })
  })
  return faults
}
