/** Parts of German sentences that several of them have in common. */
import { isSettingId } from '../../core/catalogue/catalogue'
import { type SecurityMode, securityNames } from '../../core/catalogue/security-mode'
import type { OldCrypto } from '../../core/kit/old-crypto'
import type { Step } from '../../core/muster/procedure'
import type { PartName } from '../../core/muster/pulse'
import { settingNames } from './settings'
import { stepTitles } from './steps'

const countries = new Intl.DisplayNames(['de'], { type: 'region', fallback: 'none' })

export const countryName = (code: string): string => (code === '00' ? 'Welt (Vorgabe)' : (countries.of(code) ?? code))

/** `1 Einheit`, `3 Einheiten`. */
export const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`

/** `„Crew“, „Gäste“`. */
export const quoted = (names: readonly string[]): string => names.map((name) => `„${name}“`).join(', ')

/** `Land`: what a setting is called. */
export const settingName = (id: string): string => (isSettingId(id) ? settingNames[id] : id)

/** `Land`, `Netz „Crew“: Sicherheit`, `Auf 5 GHz: Kanal`. */
export function subject(id: string, scope: string, of: string): string {
  if (scope === 'network') return `Netz „${of}“: ${settingName(id)}`
  return scope === 'radio' ? `Auf ${of} GHz: ${settingName(id)}` : settingName(id)
}

export function securityName(mode: string): string {
  if (mode === 'owe') return 'OWE, verschlüsselt ohne Passphrase'
  if (mode === 'open') return 'Offen'
  return mode === 'wpa3-wpa2-mixed' ? 'WPA3/WPA2 gemischt' : (securityNames[mode as SecurityMode] ?? mode)
}
/** `OWE`: without what it means. */
export const shortSecurityName = (mode: string): string => securityName(mode).split(',')[0] ?? mode
/** `WPA2-Personal, AES-CCMP`. */
export const securityWords = (mode: string): string =>
  mode === 'open' ? securityName(mode) : `${securityName(mode)}, AES-CCMP`

export const stepTitle = (step: string): string => stepTitles[step as Step] ?? step

const values: Readonly<Record<string, string>> = {
  on: 'ein',
  off: 'aus',
  yes: 'ja',
  no: 'nein',
  none: 'keine',
  always: 'immer',
  untagged: 'ungetaggt',
  indoor: 'innen',
  outdoor: 'außen',
  'no limit': 'keine Grenze',
  'any signal': 'jedes Signal',
  'as in the vault': 'wie im Tresor',
  right: 'die richtige Zeit',
  static: 'statisch',
  Open: 'Offen',
}
const days: Readonly<Record<string, string>> = {
  mon: 'Montag',
  tue: 'Dienstag',
  wed: 'Mittwoch',
  thu: 'Donnerstag',
  fri: 'Freitag',
  sat: 'Samstag',
  sun: 'Sonntag',
}
const named = (day: string): string => days[day] ?? day

/** A value, which a setting shows as a word of English or as what it is in any language. */
export function valueWords(shown: string): string {
  const [, day, at] = /^(\w{3}) at (\d\d:\d\d)$/.exec(shown) ?? []
  if (day && at) return `${named(day)}, ${at}`
  const [, on, from, to] = /^([a-z, ]+) from (\d\d:\d\d) to (\d\d:\d\d)$/.exec(shown) ?? []
  if (on && from && to) return `${on.split(', ').map(named).join(', ')} von ${from} bis ${to}`
  return values[shown] ?? shown
}

const offers: Readonly<Record<OldCrypto, string>> = {
  'tls-1.0': 'nichts Neueres als TLS 1.0',
  'tls-1.1': 'nichts Neueres als TLS 1.1',
  'rsa-key-exchange': 'keinen Schlüsselaustausch außer RSA',
  'sha-1-certificate': 'ein Zertifikat, das mit SHA-1 unterschrieben ist',
  '1024-bit-certificate': 'ein Zertifikat mit einem Schlüssel von weniger als 2048 Bit',
  'ssh-1024-bit-key-exchange': 'keinen SSH-Schlüsselaustausch außer diffie-hellman-group1-sha1',
  'ssh-sha-1-key-exchange': 'keinen SSH-Schlüsselaustausch ohne SHA-1',
  'ssh-sha-1-host-key': 'keinen SSH-Hostschlüssel außer einem, der mit SHA-1 unterschreibt',
  'ssh-dss-host-key': 'keinen SSH-Hostschlüssel außer einem mit DSS',
  'ssh-cbc-cipher': 'keine SSH-Chiffre außer solchen, die Blöcke verketten (CBC)',
}
/** As the end of a sentence that begins with the unit. */
export const offersWords = (names: readonly string[]): string =>
  `bietet ${names.map((name) => offers[name as OldCrypto] ?? name).join(', ')}`

/** `60 s`, `10 Minuten`. */
export const listenWords = (seconds: number): string =>
  seconds < 120 ? `${seconds} s` : `${Math.round(seconds / 60)} Minuten`

/** A tab has room for a few words: where there are both kinds, their sum. */
export function troubles(held: number, changed: number): string {
  if (held > 0 && changed > 0) return `, ${held + changed} brauchen Sie`
  return held > 0 ? `, ${held} gehalten` : changed > 0 ? `, ${changed} geändert` : ''
}

const list = new Intl.ListFormat('de', { type: 'conjunction' })
const parts: Readonly<Record<PartName, string>> = {
  database: 'die Datenbank',
  lab: 'das Labor',
  runner: 'der Läufer',
  pages: 'die Seiten',
}

/** `Der Läufer und die Seiten waren weg und sind wieder da.` */
export function partsAreBack(names: readonly string[]): string {
  const were = names.length > 1 || names[0] === 'pages' ? 'waren weg und sind wieder da' : 'war weg und ist wieder da'
  const named = list.format(names.map((name) => parts[name as PartName] ?? name))
  return `${named.charAt(0).toUpperCase()}${named.slice(1)} ${were}.`
}

/** One switch by its name, or how many give together. */
export const switchWords = (names: readonly string[]): string =>
  names.length > 1 ? `${names.length} Switches` : (names[0] ?? '')
export const switchesNamed = (names: readonly string[]): string =>
  names.length > 1 ? 'den Switches' : (names[0] ?? '')

const columns: Readonly<Record<string, string>> = {
  mac: 'die MAC-Adresse',
  name: 'den Namen',
  serial: 'die Seriennummer',
}
export const sameWhat = (column: string): string => columns[column] ?? column

const copies: Readonly<Record<string, string>> = { 'as-found': 'wie vorgefunden', 'as-left': 'wie verlassen' }
export const copyName = (copy: string): string => copies[copy] ?? copy

/** What names a model takes, as its card says; the usual rule where it says none. */
export const nameRule = (said: string): string => said || 'nur Kleinbuchstaben, Ziffern und Striche'
