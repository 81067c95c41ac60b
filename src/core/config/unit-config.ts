/**
 * What one unit is to be, or is: values by their id in the table of settings. Networks are known by their id, radios
 * by their band.
 */
import { z } from 'zod'
import { type IdOf, idsOf, settingIds, settingOf, type ValueOf, type ValuesOf } from '../catalogue/catalogue'
import type { Scope } from '../catalogue/setting'

declare const secrecy: unique symbol
/** What the secrets among some values are: clear text, for a unit alone; or marks, which may be kept and shown. */
export type Clear = 'clear'
export type Mark = 'mark'
export type Secrecy = Clear | Mark
/** Values that were made with one kind of secret are not taken where the other belongs: the compiler says so. */
export interface Holding<S extends Secrecy> {
  readonly [secrecy]?: S
}

/** Values as far as they are spoken of: what is left out is neither asked nor written. */
export interface Config<S extends Secrecy> extends Holding<S> {
  readonly unit: ValuesOf<'unit'>
  readonly networks: Readonly<Record<string, ValuesOf<'network'>>>
  readonly radios: Readonly<Record<string, ValuesOf<'radio'>>>
}

/**
 * What a unit tells of one setting: its value; that it has one and does not show it; or nothing, because it does not
 * know the setting.
 */
export type Observed<T> =
  | { readonly kind: 'value'; readonly value: T }
  | { readonly kind: 'unreadable' }
  | { readonly kind: 'unsupported' }
type ObservedOf<S extends Scope> = { readonly [I in IdOf<S>]?: Observed<ValueOf<I>> }

/** As it was read. A setting that is missing is unsupported; a network or radio that is missing is not there. */
export interface ObservedConfig {
  readonly unit: ObservedOf<'unit'>
  readonly networks: Readonly<Record<string, ObservedOf<'network'>>>
  readonly radios: Readonly<Record<string, ObservedOf<'radio'>>>
}

/** Values as if a unit had told them all. */
export function asObserved(config: Config<Secrecy>): ObservedConfig {
  const each = (values: object): object =>
    Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { kind: 'value', value }]))
  const all = (groups: Readonly<Record<string, object>>): Record<string, object> =>
    Object.fromEntries(Object.entries(groups).map(([of, values]) => [of, each(values)]))
  return { unit: each(config.unit), networks: all(config.networks), radios: all(config.radios) }
}

/** One setting of one unit; `of` is the network's id or the radio's band, and empty for the unit itself. */
export interface SettingKey {
  readonly id: (typeof settingIds)[number]
  readonly of: string
}
export const keyText = ({ id, of }: SettingKey): string => (of === '' ? id : `${id} ${of}`)

const valuesSchema = (scope: Scope) =>
  z.object(Object.fromEntries(idsOf(scope).map((id) => [id, settingOf(id).value.optional()])))

export const unitConfigSchema: z.ZodType<Config<Mark>> = z.object({
  unit: valuesSchema('unit'),
  networks: z.record(z.string(), valuesSchema('network')),
  radios: z.record(z.string(), valuesSchema('radio')),
}) as unknown as z.ZodType<Config<Mark>>

export const settingIdSchema = z.enum(settingIds)
