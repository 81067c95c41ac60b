/** What a brief means on this site, in sentences that stand beside it. */
import { isHostOf, parseCidr, parseIpv4 } from '../addressing/ipv4'
import { countryName } from '../regulatory/country'
import type { CountryRules } from '../regulatory/database'
import { legalBlocks } from '../regulatory/legal'
import type { Brief } from './brief'

export function briefMeaning(brief: Brief, country: CountryRules | undefined): string[] {
  return [...(country ? brief.radio.bands.map(({ band, width }) => bandMeaning(brief, country, band, width)) : []), addressMeaning(brief)]
}

function bandMeaning(brief: Brief, country: CountryRules, band: string, width: number): string {
  const outdoors = brief.radio.place === 'outdoor'
  const blocks = legalBlocks(country).filter((block) => block.band === band && block.width === width && !(outdoors && block.indoor))
  const distinct = blocks.filter((block, index) => blocks.findIndex((other) => other.lowMhz === block.lowMhz) === index)
  const radar = distinct.filter((block) => block.radar).length
  const where = `In ${countryName(country.country)} at ${band} GHz`
  if (distinct.length === 0) return `${where} no ${width} MHz channel is legal.`
  const listening = radar === 0 ? 'none must listen for radar' : `${radar} must listen for radar first`
  return `${where}: ${distinct.length} channels of ${width} MHz, ${listening}.`
}

function addressMeaning(brief: Brief): string {
  const { cidr, dhcpPool, gateway, dnsServers } = brief.management
  const subnet = parseCidr(cidr)
  if (!subnet) return `${cidr} is not a subnet.`
  const hosts = subnet.lastHost - subnet.firstHost + 1
  const first = parseIpv4(dhcpPool?.first ?? '')
  const last = parseIpv4(dhcpPool?.last ?? '')
  const inPool = (address: number): boolean => first !== undefined && last !== undefined && address >= first && address <= last
  const pool = first === undefined || last === undefined || last < first ? 0 : last - first + 1
  const taken = new Set([gateway, ...dnsServers].flatMap((text) => parseIpv4(text ?? '') ?? []).filter((address) => isHostOf(subnet, address) && !inPool(address)))
  return `${hosts - pool - taken.size} static addresses are free for units in ${cidr}.`
}
