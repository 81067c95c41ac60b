/** Parts of sentences that several of them have in common. */
import { isSettingId, settingOf } from '../../core/catalogue/catalogue'
import { type SecurityMode, securityNames } from '../../core/catalogue/security-mode'
import { withinSentence } from '../../core/catalogue/setting'
import type { Step } from '../../core/muster/procedure'
import { stepTitles } from './steps'

/** `1 unit`, `3 units`. */
export const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`

export const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`

/** `"Crew", "Guests"`. */
export const quoted = (names: readonly string[]): string => names.map((name) => `"${name}"`).join(', ')

/** `Country`: what a setting is called. */
export const settingName = (id: string): string => (isSettingId(id) ? settingOf(id).words : id)
export const settingWithin = (id: string): string => withinSentence(settingName(id))

export const isOrAre = (id: string): string => (isSettingId(id) && settingOf(id).plural ? 'are' : 'is')

/** `Country`, `Network "Crew": security`, `At 5 GHz: channel`. */
export function subject(id: string, scope: string, of: string): string {
  if (scope === 'network') return `Network "${of}": ${settingWithin(id)}`
  return scope === 'radio' ? `At ${of} GHz: ${settingWithin(id)}` : settingName(id)
}

export const securityName = (mode: string): string => securityNames[mode as SecurityMode] ?? mode
/** `OWE`: without what it means. */
export const shortSecurityName = (mode: string): string => securityName(mode).split(',')[0] ?? mode
/** `WPA2-Personal, AES-CCMP`. */
export const securityWords = (mode: string): string =>
  mode === 'open' ? securityName(mode) : `${securityName(mode)}, AES-CCMP`

export const stepTitle = (step: string): string => stepTitles[step as Step] ?? step

/** A tab has room for a few words: where there are both kinds, their sum. */
export function troubles(held: number, changed: number): string {
  if (held > 0 && changed > 0) return `, ${held + changed} need you`
  return held > 0 ? `, ${held} held` : changed > 0 ? `, ${changed} changed` : ''
}

const list = new Intl.ListFormat('en-GB', { type: 'conjunction' })

/** `The runner and the pages were away and are back.` */
export function partsAreBack(parts: readonly string[]): string {
  const were = parts.length > 1 || parts[0] === 'pages' ? 'were away and are back' : 'was away and is back'
  return `${capital(list.format(parts.map((name) => `the ${name}`)))} ${were}.`
}

/** One switch by its name, or how many give together. */
export const switchWords = (names: readonly string[]): string =>
  names.length > 1 ? `${names.length} switches` : (names[0] ?? '')
export const switchesNamed = (names: readonly string[]): string =>
  names.length > 1 ? 'the switches' : (names[0] ?? '')

const columns: Readonly<Record<string, string>> = { mac: 'MAC', name: 'name', serial: 'serial number' }
export const sameWhat = (column: string): string => columns[column] ?? column

/** `as found`. */
export const copyName = (copy: string): string => copy.replace('-', ' ')

/** What names a model takes, as its card says; the usual rule where it says none. */
export const nameRule = (said: string): string => said || 'small letters, digits and dashes only'
