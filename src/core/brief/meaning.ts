/** What a brief means on this site, in sentences that stand beside it, by the section that they belong to. */
import { isHostOf, parseCidr, parseIpv4 } from '../address/ipv4'
import { securityWords } from '../catalogue/security-mode'
import type { Band } from '../regulatory/blocks'
import { countryName } from '../regulatory/country'
import type { CountryRules } from '../regulatory/database'
import { isShortRange, legalBlocks, whyNothingIsLegal } from '../regulatory/legal'
import { listenWords, usualListenSeconds } from '../regulatory/radar-listening'
import type { Brief } from './brief'
import { targetDbm } from './policies'
import { managementId } from './subnet'

export const briefSections = ['site', 'management', 'networks', 'subnets', 'radio', 'admin', 'aftercare'] as const
export type BriefSection = (typeof briefSections)[number]

export interface Meaning {
  readonly section: BriefSection
  readonly sentence: string
}

export function briefMeaning(brief: Brief, country: CountryRules | undefined): Meaning[] {
  const say = (section: BriefSection, sentences: readonly string[]): Meaning[] =>
    sentences.map((sentence) => ({ section, sentence }))
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

function radarMeaning({ country, dfs, rules }: CountryRules): string {
  const name = countryName(country)
  if (dfs === null)
    return rules.some((rule) => rule.dfs)
      ? `${name} belongs to no radar region in the database, and has channels where access points must listen for radar all the same. Changing the country later resets channels on much equipment.`
      : `${name} has no radar channels in the database. Changing the country later resets channels on much equipment.`
  return `${name} follows the ${dfs} radar rules. Changing the country later resets channels on much equipment, so nothing about radios is written before it.`
}

function bandMeaning(brief: Brief, country: CountryRules, band: Band, width: number): string {
  const outdoors = brief.radio.environment === 'outdoor'
  const blocks = legalBlocks(country).filter(
    (block) => block.band === band && block.width === width && !(outdoors && block.indoor),
  )
  const distinct = blocks.filter((block, index) => blocks.findIndex((other) => other.lowMhz === block.lowMhz) === index)
  const short = distinct.filter(isShortRange).length
  const radar = distinct.filter((block) => block.radar).length
  const where = `In ${countryName(country.country)} at ${band} GHz`
  if (distinct.length === 0)
    return `${where} no ${width} MHz channel is legal. ${whyNothingIsLegal(country, band) ?? ''}`.trimEnd()
  const long = distinct.filter(({ listenSeconds }) => listenSeconds > usualListenSeconds)
  const longest = Math.max(0, ...long.map(({ listenSeconds }) => listenSeconds))
  const ofThem = long.length === 0 ? '' : `, ${long.length} of them for ${listenWords(longest)}`
  const listening = radar === 0 ? 'none must listen for radar' : `${radar} must listen for radar first${ofThem}`
  const all = `${where}: ${distinct.length} channels of ${width} MHz, ${listening}.`
  return short === 0 ? all : `${all} ${shortRangeMeaning(short, brief)}`
}

function shortRangeMeaning(count: number, { radio }: Brief): string {
  const which = `${count} of them lie above 5725 MHz, where 25 mW is the most (EN 300 440): far less than elsewhere`
  return radio.shortRange === 'used' ? `${which}, and many clients do not look there.` : `${which}. They are left out.`
}

function powerMeaning({ radio }: Brief): string {
  const quiet = radio.bands.some(({ band }) => band === '2.4')
    ? ` At 2.4 GHz ${targetDbm(radio, '2.4')} dBm, so that clients lean to 5 GHz.`
    : ''
  return `Units speak at about ${radio.power.clientDbm} dBm, as loud as the weakest device answers; there is room to raise it.${quiet}`
}

function addressMeaning(brief: Brief): string {
  const { cidr, dhcpPool, gateway, dnsServers, staticRange, reserved } = brief.management
  const subnet = parseCidr(cidr)
  if (!subnet) return `${cidr} is not a subnet.`
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
  return `${Math.max(0, last - first + 1 - pool - taken.size)} static addresses are free for units in ${cidr}.`
}

function networkMeaning({ networks, subnets, management }: Brief): string[] {
  if (networks.length === 0) return ['No wireless network yet: units would be silent.']
  const subnetOf = (vlan: number | null): string => {
    if (vlan === management.vlan) return 'the management network'
    return (
      subnets.find((subnet) => subnet.vlan === vlan)?.name ?? (vlan === null ? 'whatever is untagged' : `VLAN ${vlan}`)
    )
  }
  return [
    ...networks.map(
      ({ ssid, security, vlan, bands }) =>
        `"${ssid}": ${securityWords(security)}, ${bands.join(' and ')} GHz, clients land in ${subnetOf(vlan)}.`,
    ),
    ...(networks.length > 4
      ? [
          `${networks.length} networks each send a beacon ten times a second on every radio: airtime goes before the first client comes.`,
        ]
      : []),
  ]
}

function subnetMeaning({ subnets, talks, management }: Brief): string[] {
  const names = new Map([
    [managementId, management.name],
    ...subnets.map((subnet) => [subnet.id, subnet.name] as const),
  ])
  const apart = subnets.filter((subnet) => !talks.some((rule) => rule.from === subnet.id))
  return [
    ...subnets.flatMap((subnet) => freeForStatic(subnet.name, subnet.cidr, subnet.dhcpPool)),
    ...talks.flatMap(({ from, to }) =>
      names.has(from) && names.has(to) ? [`${names.get(from)} may reach ${names.get(to)}.`] : [],
    ),
    ...(apart.length > 0
      ? [`${apart.map((subnet) => subnet.name).join(', ')}: out to the internet, and to nobody on the site.`]
      : []),
  ]
}

function freeForStatic(name: string, text: string, pool: { first: string; last: string } | null): string[] {
  const cidr = parseCidr(text)
  const [first, last] = [parseIpv4(pool?.first ?? ''), parseIpv4(pool?.last ?? '')]
  if (!cidr || first === undefined || last === undefined) return []
  const handed = last - first + 1
  return [
    `${name} hands out ${handed} addresses and leaves ${cidr.lastHost - cidr.firstHost + 1 - handed} for static use.`,
  ]
}

function adminMeaning({ admin }: Brief): string {
  return admin.passwords === 'one-per-job'
    ? 'One admin password for every unit: one to write down, and one to lose.'
    : 'An admin password of its own for each unit: one that leaks opens one unit.'
}

function aftercareMeaning({ aftercare }: Brief): string[] {
  const kept = [
    aftercare.snmp && 'SNMPv3',
    aftercare.syslog && 'syslog',
    aftercare.mail && 'mail alerts',
    aftercare.restart && 'a weekly restart',
    aftercare.firmware !== '' && `firmware ${aftercare.firmware} or newer`,
    ...aftercare.images.map(({ model, version }) => `firmware ${version} for ${model}`),
  ].filter((words) => typeof words === 'string')
  return [
    'Telnet stays off: it sends the admin password for all to read.',
    ...(kept.length > 0 ? [`Written where a model takes it, and said where one does not: ${kept.join(', ')}.`] : []),
  ]
}
