/** Words of the trade, as pages use them for settings: the first that stands in a label says which it is. */
import type { SettingId } from '../catalogue/catalogue'

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
  [/\b(dhcp|static|fixed address|address from|addressing)\b/i, 'management.method'],
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

/** What a choice of security is by its words; undefined where they may mean several. */
export function securityByWords(words: string): 'wpa2-personal' | 'wpa3-personal' | undefined {
  if (/\b(enterprise|802\.1x|radius|eap|mixed|transition|wpa|wpa1)\b|\//i.test(words)) return undefined
  const [isTwo, isThree] = [/\bwpa2\b/i.test(words), /\b(wpa3|sae)\b/i.test(words)]
  if (isTwo === isThree) return undefined
  return isTwo ? 'wpa2-personal' : 'wpa3-personal'
}

/** Of several ways to an address, the one that is ticked. */
export function ticksMethod(label: string): 'static' | 'dhcp' | undefined {
  if (/\b(static|fixed|manual)\b/i.test(label)) return 'static'
  return /\b(dhcp|automatic|from the network)\b/i.test(label) ? 'dhcp' : undefined
}

/** Whether a tick at this label may mean that something is not so. */
export const isReversed = (label: string): boolean =>
  /\b(disabled?|broadcast|visible|visibility|off|no|not|without)\b/i.test(label)

/** The band that words speak of. */
export function bandByWords(text: string): '2.4' | '5' | '6' | undefined {
  const [, band] = /\b(2[.,]4|5|6)\s*g(hz)?\b/i.exec(text) ?? []
  return band === undefined ? undefined : ((band.replace(',', '.') as '2.4' | '5' | '6') ?? undefined)
}
