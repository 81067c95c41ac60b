/**
 * What differs between what a unit is to be and what it is.
 *
 * In: a configuration and what was read. Out: differences, each with its setting and a sentence. A sentence never
 * holds a secret, and neither may anything that is logged.
 */
import { dequal } from 'dequal/lite'
import { rowsOf, settingOf } from '../catalogue/catalogue'
import { plainWords, type Scope, type Setting, type SettlingStep, withinSentence } from '../catalogue/setting'
import type { Config, Observed, ObservedConfig, Secrecy, SettingKey } from './unit-config'

export type Difference =
  | (SettingKey & { readonly kind: 'value'; readonly sentence: string })
  /** A network or a radio that is not there. */
  | { readonly kind: 'missing'; readonly scope: 'network' | 'radio'; readonly of: string; readonly sentence: string }
  /** A network that the brief does not have. */
  | { readonly kind: 'surplus'; readonly scope: 'network'; readonly of: string; readonly sentence: string }

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
      sentence: `Network ${networkName(observed, of)} is on the unit and not in the brief.`,
    }))
}

/** The name of a network as a unit shows it, in quotes; its id where it shows none. */
export function networkName(observed: ObservedConfig, of: string): string {
  const ssid = observed.networks[of]?.['network.ssid']
  return `"${ssid?.kind === 'value' ? ssid.value : of}"`
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
    const sentence =
      scope === 'network' ? `${nameOf(scope, of, values)} is missing.` : `The unit shows no ${of} GHz radio.`
    return [{ kind: 'missing', scope, of, sentence }]
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
    const what = of === '' ? setting.words : `${nameOf(scope, of, desired)}: ${withinSentence(setting.words)}`
    const how = isSo && whole !== undefined ? againWords(setting, whole) : differenceWords(key, value, found)
    differences.push({ kind: 'value', ...key, sentence: `${what} ${how}` })
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

const verbOf = ({ plural }: Pick<Setting<unknown>, 'plural'>): string => (plural ? 'are' : 'is')

/** Does a unit show another value of a setting than the one that is asked for? */
function differs(id: SettingKey['id'], desired: Values, observed: ObservedValues): boolean {
  const found = observed[id]
  return desired[id] !== undefined && found?.kind === 'value' && !isSame(id, desired[id], found.value)
}

const againWords = (setting: Setting<unknown>, whole: SettingKey['id']): string =>
  `${verbOf(setting)} to be set again, since ${withinSentence(settingOf(whole).words)} changes.`

function differenceWords({ id }: SettingKey, value: unknown, found: Observed<unknown>): string {
  const verb = verbOf(settingOf(id))
  if (found.kind === 'unsupported') return `${verb} not known to the unit.`
  if (found.kind === 'unreadable') return `${verb} not shown by the unit, and not what was written last.`
  if (settingOf(id).secret) return 'differs.'
  return `${verb} ${valueWords(id, found.value)}, to be ${valueWords(id, value)}.`
}

function nameOf(scope: Scope, of: string, values: Values): string {
  return scope === 'network' ? `Network "${values['network.ssid'] ?? of}"` : `At ${of} GHz`
}
