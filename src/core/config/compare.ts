/**
 * What differs between what a unit is to be and what it is.
 *
 * In: a configuration and what was read. Out: differences, each with its setting and a sentence. A sentence never
 * holds a secret, and neither may anything that is logged.
 */
import { plainWords, type Scope, type SettlingStep, sameValue, withinSentence } from './settings/setting'
import { idsOf, settingOf } from './settings/settings'
import type { Observed, ObservedConfig, SettingKey, UnitConfig } from './unit-config'

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
  desired: UnitConfig,
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

function surplusNetworks(desired: UnitConfig, observed: ObservedConfig): Difference[] {
  return Object.entries(observed.networks)
    .filter(([of]) => desired.networks[of] === undefined)
    .map(([of, network]) => {
      const ssid = network['network.ssid']
      const name = ssid?.kind === 'value' ? ssid.value : of
      return {
        kind: 'surplus',
        scope: 'network',
        of,
        sentence: `Network "${name}" is on the unit and not in the brief.`,
      }
    })
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
  return idsOf(scope).flatMap((id): Difference[] => {
    const value = desired[id]
    if (value === undefined || settingOf(id).bySigningIn) return []
    const key: SettingKey = { id, of }
    const found = observed[id] ?? { kind: 'unsupported' as const }
    if (isAsDesired(key, value, found, asWritten)) return []
    const what =
      of === '' ? settingOf(id).words : `${nameOf(scope, of, desired)}: ${withinSentence(settingOf(id).words)}`
    return [{ kind: 'value', ...key, sentence: `${what} ${differenceWords(key, value, found)}` }]
  })
}

function isAsDesired(key: SettingKey, value: unknown, found: Observed<unknown>, asWritten: AsWritten): boolean {
  if (found.kind === 'unreadable') return asWritten(key)
  return found.kind === 'value' && isSame(key.id, value, found.value)
}

/** Are two values of a setting the same, by the rule of its row? */
export function isSame(id: SettingKey['id'], desired: unknown, observed: unknown): boolean {
  return (settingOf(id).same ?? sameValue)(desired, observed)
}

/** A value for people; a secret stays one. */
export function valueWords(id: SettingKey['id'], value: unknown): string {
  const { secret, show = plainWords } = settingOf(id)
  return secret ? 'as in the vault' : show(value)
}

function differenceWords({ id }: SettingKey, value: unknown, found: Observed<unknown>): string {
  const verb = settingOf(id).plural ? 'are' : 'is'
  if (found.kind === 'unsupported') return `${verb} not known to the unit.`
  if (found.kind === 'unreadable') return `${verb} not shown by the unit, and not what was written last.`
  if (settingOf(id).secret) return 'differs.'
  return `${verb} ${valueWords(id, found.value)}, to be ${valueWords(id, value)}.`
}

function nameOf(scope: Scope, of: string, values: Values): string {
  return scope === 'network' ? `Network "${values['network.ssid'] ?? of}"` : `At ${of} GHz`
}
