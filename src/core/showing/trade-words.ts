/** Words of the trade, as pages use them for settings: the first that stands in a label says which it is. */
import type { SettingId } from '../config/setting-ids'

type Entry = readonly [words: RegExp, id: SettingId]

/** In the order in which they are tried: those of more words before those that stand in many labels. */
const entries: readonly Entry[] = [
  [/\b(hide|hidden|broadcast|visible|visibility)\b/i, 'network.hidden'],
  [/\b(isolat\w*|clients? apart|intra-?bss)\b/i, 'network.isolation'],
  [/\b(passphrase|pre-?shared key|psk|network key|wi-?fi password|key)\b/i, 'network.passphrase'],
  [/\b(security|encryption|authentication|protection|cipher mode)\b/i, 'network.security'],
  [/\b(ssid|network name|name of (the|your)( first)? network)\b/i, 'network.ssid'],
  [/\b(country|region|regulatory)\b/i, 'unit.country'],
  [/\btime ?zone\b/i, 'clock.time-zone'],
  [/\b(ntp|time servers?)\b/i, 'clock.ntp-servers'],
  [/\b(channel) (width|bandwidth)\b|\b(width|bandwidth)\b/i, 'radio.width'],
  [/\bchannel\b/i, 'radio.channel'],
  [/\b(power|tx|eirp)\b/i, 'radio.power'],
  [/\b(transmit|radio)\b/i, 'radio.enabled'],
  [/\b(netmask|subnet mask|mask|prefix)\b/i, 'management.prefix'],
  [/\b(gateway|router)\b/i, 'management.gateway'],
  [/\b(dns|name ?servers?|resolvers?)\b/i, 'management.dns-servers'],
  [/\b(dhcp|static|fixed address|address from)\b/i, 'management.method'],
  [/\b(ip )?address\b/i, 'management.address'],
  [/\b(syslog|log server)\b/i, 'services.syslog'],
  [/\b(light|led)s?\b/i, 'services.lights'],
  [/\b(location|place)\b/i, 'unit.location'],
  [/\b(device|host|system|unit) ?name\b|\bname of the (device|unit)\b/i, 'unit.name'],
  [/\b(on air|enabled?)\b/i, 'network.enabled'],
]

/** What a label is likely to be of; undefined where its words say nothing. */
export function settingByWords(label: string): SettingId | undefined {
  return entries.find(([words]) => words.test(label))?.[1]
}

/** The band that words speak of. */
export function bandByWords(text: string): '2.4' | '5' | '6' | undefined {
  const [, band] = /\b(2[.,]4|5|6)\s*g(hz)?\b/i.exec(text) ?? []
  return band === undefined ? undefined : ((band.replace(',', '.') as '2.4' | '5' | '6') ?? undefined)
}
