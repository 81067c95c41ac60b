/** What a brief means on this site, in sentences that stand beside it, by the section that they belong to. */

import { isHostOf, parseCidr, parseIpv4 } from '../address/ipv4'
import { asTold, type Message, message, together } from '../message/message'
import type { Band } from '../regulatory/blocks'
import type { CountryRules } from '../regulatory/database'
import { isShortRange, type LegalBlock, legalBlocks, whyNothingIsLegal } from '../regulatory/legal'
import { usualListenSeconds } from '../regulatory/radar-listening'
import type { Brief } from './brief'
import { targetDbm } from './policies'
import { managementId } from './subnet'

export const briefSections = ['site', 'management', 'networks', 'subnets', 'radio', 'admin', 'aftercare'] as const
export type BriefSection = (typeof briefSections)[number]

export interface Meaning extends Message {
  readonly section: BriefSection
}

export function briefMeaning(brief: Brief, country: CountryRules | undefined): Meaning[] {
  const say = (section: BriefSection, messages: readonly Message[]): Meaning[] =>
    messages.map((each) => ({ section, ...each }))
  return [
    ...say('site', country ? [radarMeaning(country)] : []),
    ...say('management', [addressMeaning(brief)]),
    ...say('networks', networkMeaning(brief)),
    ...say('subnets', subnetMeaning(brief)),
    ...say(
      'radio',
      country ? brief.radio.bands.map(({ band, width }) => bandMeaning(brief, country, band, width)) : [],
    ),
    ...say('radio', brief.radio.bands.length > 0 ? [powerMeaning(brief)] : []),
    ...say('admin', [adminMeaning(brief)]),
    ...say('aftercare', aftercareMeaning(brief)),
  ]
}

function radarMeaning({ country, dfs, rules }: CountryRules): Message {
  if (dfs === null)
    return rules.some((rule) => rule.dfs)
      ? message('radar-without-region', { country })
      : message('radar-none', { country })
  return message('radar-rules', { country, dfs })
}

function bandMeaning(brief: Brief, country: CountryRules, band: Band, width: number): Message {
  const outdoors = brief.radio.environment === 'outdoor'
  const blocks = legalBlocks(country).filter(
    (block) => block.band === band && block.width === width && !(outdoors && block.indoor),
  )
  const distinct = blocks.filter((block, index) => blocks.findIndex((other) => other.lowMhz === block.lowMhz) === index)
  const where = { country: country.country, band, width }
  if (distinct.length === 0) {
    const why = whyNothingIsLegal(country, band)
    return together([message('band-without-channel', where), ...(why ? [why] : [])])
  }
  const channels = message('band-channels', { ...where, count: distinct.length, listening: listening(distinct) })
  const short = distinct.filter(isShortRange).length
  return short === 0 ? channels : together([channels, shortRangeMeaning(short, brief)])
}

function listening(blocks: readonly LegalBlock[]): Message {
  const radar = blocks.filter((block) => block.radar).length
  if (radar === 0) return message('none-listens')
  const long = blocks.filter(({ listenSeconds }) => listenSeconds > usualListenSeconds)
  if (long.length === 0) return message('some-listen', { count: radar })
  const seconds = Math.max(...long.map(({ listenSeconds }) => listenSeconds))
  return message('some-listen-long', { count: radar, long: long.length, seconds })
}

function shortRangeMeaning(count: number, { radio }: Brief): Message {
  return message(radio.shortRange === 'used' ? 'short-range-used' : 'short-range-left-out', { count })
}

function powerMeaning({ radio }: Brief): Message {
  const about = message('power-about', { dbm: radio.power.clientDbm })
  return radio.bands.some(({ band }) => band === '2.4')
    ? together([about, message('power-less-at-24', { dbm: targetDbm(radio, '2.4') })])
    : about
}

function addressMeaning(brief: Brief): Message {
  const { cidr, dhcpPool, gateway, dnsServers, staticRange, reserved } = brief.management
  const subnet = parseCidr(cidr)
  if (!subnet) return message('not-a-subnet', { subnet: cidr })
  const bound = (text: string | undefined, otherwise: number): number => parseIpv4(text ?? '') ?? otherwise
  const first = Math.max(bound(staticRange?.first, subnet.firstHost), subnet.firstHost)
  const last = Math.min(bound(staticRange?.last, subnet.lastHost), subnet.lastHost)
  const poolFirst = Math.max(bound(dhcpPool?.first, 1), first)
  const poolLast = Math.min(bound(dhcpPool?.last, 0), last)
  const pool = poolLast < poolFirst ? 0 : poolLast - poolFirst + 1
  const inPool = (address: number): boolean => address >= poolFirst && address <= poolLast
  const taken = new Set(
    [gateway, ...dnsServers, ...reserved]
      .flatMap((text) => parseIpv4(text ?? '') ?? [])
      .filter((address) => isHostOf(subnet, address) && address >= first && address <= last && !inPool(address)),
  )
  return message('free-addresses', { count: Math.max(0, last - first + 1 - pool - taken.size), subnet: cidr })
}

function networkMeaning({ networks, subnets, management }: Brief): Message[] {
  if (networks.length === 0) return [message('no-network-yet')]
  const subnetOf = (vlan: number | null): Message => {
    if (vlan === management.vlan) return message('the-management-network')
    const known = subnets.find((subnet) => subnet.vlan === vlan)
    if (known) return asTold(known.name)
    return vlan === null ? message('whatever-is-untagged') : message('vlan-by-number', { vlan })
  }
  return [
    ...networks.map(({ ssid, security, vlan, bands }) =>
      message('network-in-short', { ssid, security, bands, where: subnetOf(vlan) }),
    ),
    ...(networks.length > 4 ? [message('many-beacons', { count: networks.length })] : []),
  ]
}

function subnetMeaning({ subnets, talks, management }: Brief): Message[] {
  const names = new Map([
    [managementId, management.name],
    ...subnets.map((subnet) => [subnet.id, subnet.name] as const),
  ])
  const apart = subnets.filter((subnet) => !talks.some((rule) => rule.from === subnet.id))
  return [
    ...subnets.flatMap((subnet) => freeForStatic(subnet.name, subnet.cidr, subnet.dhcpPool)),
    ...talks.flatMap(({ from, to }) =>
      names.has(from) && names.has(to)
        ? [message('may-reach', { from: names.get(from) ?? '', to: names.get(to) ?? '' })]
        : [],
    ),
    ...(apart.length > 0 ? [message('kept-apart', { subnets: apart.map((subnet) => subnet.name) })] : []),
  ]
}

function freeForStatic(name: string, text: string, pool: { first: string; last: string } | null): Message[] {
  const cidr = parseCidr(text)
  const [first, last] = [parseIpv4(pool?.first ?? ''), parseIpv4(pool?.last ?? '')]
  if (!cidr || first === undefined || last === undefined) return []
  const handed = last - first + 1
  return [message('pool-hands-out', { subnet: name, handed, left: cidr.lastHost - cidr.firstHost + 1 - handed })]
}

function adminMeaning({ admin }: Brief): Message {
  return admin.passwords === 'one-per-job' ? message('one-password') : message('password-each')
}

function aftercareMeaning({ aftercare }: Brief): Message[] {
  const kept = [
    aftercare.snmp && message('keeps-snmp'),
    aftercare.syslog && message('keeps-syslog'),
    aftercare.mail && message('keeps-mail'),
    aftercare.restart && message('keeps-restart'),
    aftercare.firmware !== '' && message('keeps-firmware', { firmware: aftercare.firmware }),
    ...aftercare.images.map(({ model, version }) => message('keeps-firmware-of', { version, model })),
  ].filter((each) => typeof each === 'object' && each !== null)
  return [message('telnet-stays-off'), ...(kept.length > 0 ? [message('kept-where-taken', { kept })] : [])]
}
