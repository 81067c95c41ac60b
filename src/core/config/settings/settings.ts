/**
 * The table of settings. An id is stable: kit cards, outcomes, exports and what was kept hang on it.
 *
 * To add a setting: one row here, one line in each dialect that knows it, one in each stand-in.
 */
import type { z } from 'zod'
import type { SettingId } from '../setting-ids'
import { networkSettings } from './network-settings'
import { radioSettings } from './radio-settings'
import { servicesSettings } from './services-settings'
import type { Scope, Setting } from './setting'
import { unitSettings as identitySettings } from './unit-settings'

export const unitSettings = { ...identitySettings, ...servicesSettings } as const

export const settingsOf = { unit: unitSettings, network: networkSettings, radio: radioSettings } as const
export const settings = { ...unitSettings, ...networkSettings, ...radioSettings } as const satisfies Record<
  SettingId,
  unknown
>

export type IdOf<S extends Scope> = S extends Scope ? keyof (typeof settingsOf)[S] & SettingId : never
export type ValueOf<I extends SettingId> = z.infer<(typeof settings)[I]['value']>
/** Values of one unit, network or radio, as far as they are spoken of. */
export type ValuesOf<S extends Scope> = { [I in IdOf<S>]?: ValueOf<I> }

export const idsOf = <S extends Scope>(scope: S): IdOf<S>[] => Object.keys(settingsOf[scope]) as IdOf<S>[]

/** A row by its id, for loops over all of them: what it does with a value is checked where the value is made. */
export function settingOf(id: SettingId): Setting<unknown> {
  return settings[id] as unknown as Setting<unknown>
}

/** One row with its id. */
export interface Row {
  readonly id: SettingId
  readonly setting: Setting<unknown>
}
const rows = (scope: Scope): readonly Row[] => idsOf(scope).map((id) => ({ id, setting: settingOf(id) }))
const rowsBy = { unit: rows('unit'), network: rows('network'), radio: rows('radio') }

/** Rows of a scope in the order of the table, ready for loops over many units. */
export function rowsOf(scope: Scope): readonly Row[] {
  return rowsBy[scope]
}
