/**
 * What differs between what a unit is to be and what it is.
 *
 * In: a configuration and what was read. Out: differences, each with its setting and how it differs. None holds a
 * secret, and neither may anything that is logged.
 */
import { dequal } from 'dequal/lite'
import { rowsOf, settingOf } from '../catalogue/catalogue'
import { plainWords, type Scope, type SettlingStep } from '../catalogue/setting'
import { type Message, message } from '../message/message'
import type { Config, Observed, ObservedConfig, Secrecy, SettingKey } from './unit-config'

/** What differs: a message that says how, and which setting, network or radio it is about. */
export type Difference = Message &
  (
    | (SettingKey & { readonly kind: 'value' })
    /** A network or a radio that is not there. */
    | { readonly kind: 'missing'; readonly scope: 'network' | 'radio'; readonly of: string }
    /** A network that the brief does not have. */
    | { readonly kind: 'surplus'; readonly scope: 'network'; readonly of: string }
  )

/** The step that puts it right. */
export function stepOf(difference: Difference): SettlingStep {
  if (difference.kind === 'value') return settingOf(difference.id).step
  return difference.scope === 'network' ? 'networks' : 'radios'
}

/** Whether a value that the unit does not show is the one that was written to it last. */
export type AsWritten = (key: SettingKey) => boolean
const neverWritten: AsWritten = () => false

/** Everything that differs, in the order of the table; surplus networks go first. */
export function compare(
  desired: Config<Secrecy>,
  observed: ObservedConfig,
  asWritten: AsWritten = neverWritten,
): Difference[] {
  return [
    ...surplusNetworks(desired, observed),
    ...valuesOf('unit', '', desired.unit, observed.unit, asWritten),
    ...groups('network', desired.networks, observed.networks, asWritten),
    ...groups('radio', desired.radios, observed.radios, asWritten),
  ]
}

function surplusNetworks(desired: Config<Secrecy>, observed: ObservedConfig): Difference[] {
  return Object.entries(observed.networks)
    .filter(([of]) => desired.networks[of] === undefined)
    .map(([of]) => ({
      kind: 'surplus',
      scope: 'network',
      of,
      ...message('network-surplus', { network: networkName(observed, of) }),
    }))
}

/** The name of a network as a unit shows it; its id where it shows none. */
export function networkName(observed: ObservedConfig, of: string): string {
  const ssid = observed.networks[of]?.['network.ssid']
  return ssid?.kind === 'value' ? String(ssid.value) : of
}

type Values = Readonly<Partial<Record<string, unknown>>>
type ObservedValues = Readonly<Partial<Record<string, Observed<unknown>>>>

function groups(
  scope: 'network' | 'radio',
  desired: Readonly<Record<string, Values>>,
  observed: Readonly<Record<string, ObservedValues>>,
  asWritten: AsWritten,
): Difference[] {
  return Object.entries(desired).flatMap(([of, values]): Difference[] => {
    const there = observed[of]
    if (there) return valuesOf(scope, of, values, there, asWritten)
    const how =
      scope === 'network'
        ? message('network-missing', { network: nameOf(scope, of, values) })
        : message('radio-missing', { band: of })
    return [{ kind: 'missing', scope, of, ...how }]
  })
}

function valuesOf(
  scope: Scope,
  of: string,
  desired: Values,
  observed: ObservedValues,
  asWritten: AsWritten,
): Difference[] {
  const differences: Difference[] = []
  for (const { id, setting } of rowsOf(scope)) {
    const value = desired[id]
    if (value === undefined || setting.bySigningIn) continue
    const key: SettingKey = { id, of }
    const found = observed[id] ?? unsupported
    const isSo = isAsDesired(key, value, found, asWritten)
    // What the unit shows may be the doing of another setting, which is to be another: an address that DHCP gave it.
    const { partOf } = setting
    const whole = partOf !== undefined && differs(partOf, desired, observed) ? partOf : undefined
    if (isSo && whole === undefined) continue
    const about = { setting: id, scope, of: nameOf(scope, of, desired) }
    const how =
      isSo && whole !== undefined ? message('setting-again', { ...about, whole }) : howOff(about, id, value, found)
    differences.push({ kind: 'value', ...key, ...how })
  }
  return differences
}

const unsupported = { kind: 'unsupported' } as const

function isAsDesired(key: SettingKey, value: unknown, found: Observed<unknown>, asWritten: AsWritten): boolean {
  if (found.kind === 'unreadable') return asWritten(key)
  return found.kind === 'value' && isSame(key.id, value, found.value)
}

/** Are two values of a setting the same, by the rule of its row? */
export function isSame(id: SettingKey['id'], desired: unknown, observed: unknown): boolean {
  return (settingOf(id).same ?? dequal)(desired, observed)
}

/** A value for people; a secret stays one. */
export function valueWords(id: SettingKey['id'], value: unknown): string {
  const { secret, show = plainWords } = settingOf(id)
  return secret ? 'as in the vault' : show(value)
}

/** Does a unit show another value of a setting than the one that is asked for? */
function differs(id: SettingKey['id'], desired: Values, observed: ObservedValues): boolean {
  const found = observed[id]
  return desired[id] !== undefined && found?.kind === 'value' && !isSame(id, desired[id], found.value)
}

function howOff(
  about: { setting: string; scope: string; of: string },
  id: SettingKey['id'],
  value: unknown,
  found: Observed<unknown>,
): Message {
  if (found.kind === 'unsupported') return message('setting-not-known-to-unit', about)
  if (found.kind === 'unreadable') return message('setting-not-shown', about)
  if (settingOf(id).secret) return message('secret-differs', about)
  return message('setting-differs', { ...about, found: valueWords(id, found.value), desired: valueWords(id, value) })
}

/** Of a network its name, of a radio its band, of the unit itself nothing. */
function nameOf(scope: Scope, of: string, values: Values): string {
  return scope === 'network' ? String(values['network.ssid'] ?? of) : of
}
