/**
 * The catalogue: every setting by its id. An id is stable: kit cards, outcomes, exports and what was kept hang on it.
 *
 * To add a plain setting: a descriptor here, its leaf in models/, its words for the brief, and a line in each card that
 * takes it.
 */
import type { z } from 'zod'
import { networkSettings } from './network'
import { isPlain, type Plain, type Section } from './plain'
import { radioSettings } from './radio'
import { servicesSettings } from './services'
import type { Scope, Setting } from './setting'
import { unitSettings } from './unit'

const byScope = {
  unit: { ...unitSettings, ...servicesSettings },
  network: networkSettings,
  radio: radioSettings,
} as const
export const settings = { ...byScope.unit, ...byScope.network, ...byScope.radio } as const

export type SettingId = keyof typeof settings
export const settingIds = Object.keys(settings) as readonly SettingId[] as readonly [SettingId, ...SettingId[]]

export type IdOf<S extends Scope> = S extends Scope ? keyof (typeof byScope)[S] & SettingId : never
export type ValueOf<I extends SettingId> = z.infer<(typeof settings)[I]['value']>
/** Values of one unit, network or radio, as far as they are spoken of. */
export type ValuesOf<S extends Scope> = { [I in IdOf<S>]?: ValueOf<I> }
/** Settings that the brief holds as they are. */
export type PlainId = {
  [I in SettingId]: (typeof settings)[I] extends { readonly field: unknown } ? I : never
}[SettingId]

export const idsOf = <S extends Scope>(scope: S): IdOf<S>[] => Object.keys(byScope[scope]) as IdOf<S>[]

export function isSettingId(id: string): id is SettingId {
  return Object.hasOwn(settings, id)
}

/** A descriptor in which the ids are known ones; a test holds them against the catalogue. */
export interface KnownSetting extends Omit<Setting, 'needs' | 'partOf'> {
  readonly needs?: readonly SettingId[]
  readonly partOf?: SettingId
}

/** A descriptor by its id, for loops over all of them: what it does with a value is checked where the value is made. */
export function settingOf(id: SettingId): KnownSetting {
  return settings[id] as unknown as KnownSetting
}

/** One descriptor with its id. */
export interface Row {
  readonly id: SettingId
  readonly setting: KnownSetting
}
const rows = (scope: Scope): readonly Row[] => idsOf(scope).map((id) => ({ id, setting: settingOf(id) }))
const rowsBy = { unit: rows('unit'), network: rows('network'), radio: rows('radio') }

/** Descriptors of a scope in their order, ready for loops over many units. */
export function rowsOf(scope: Scope): readonly Row[] {
  return rowsBy[scope]
}

/** Plain settings of one part of the brief, in their order. */
export function plainsOf(
  section: Section,
): { readonly id: PlainId; readonly setting: Plain<Section, string, unknown> }[] {
  return settingIds.flatMap((id) => {
    const setting: object = settings[id]
    return isPlain(setting) && setting.field.section === section ? [{ id: id as PlainId, setting }] : []
  })
}

const having = (test: (setting: KnownSetting) => true | undefined): ReadonlySet<string> =>
  new Set(settingIds.filter((id) => test(settingOf(id))))
/** Settings that are read and never written. */
export const onlyReadIds = having(({ onlyRead }) => onlyRead)
/** Settings that are proven by signing in with them, and neither read nor written with the others. */
export const signInIds = having(({ bySigningIn }) => bySigningIn)
