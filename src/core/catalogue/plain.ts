/**
 * Plain settings: the brief holds their value as it is, so that the field of the brief, its form and what is asked of a
 * unit all follow from the descriptor.
 */

import { z } from 'zod'
import { messageText } from '../message/message'
import type { Leaf, Scope, Setting, SettlingStep } from './setting'

/** Parts of the brief that hold plain settings, with the scope and the step of what they hold. */
const sections = {
  network: { scope: 'network', step: 'networks', path: '' },
  aftercare: { scope: 'unit', step: 'services', path: 'aftercare.' },
  radio: { scope: 'radio', step: 'radios', path: 'radio.' },
} as const satisfies Record<string, { scope: Scope; step: SettlingStep; path: string }>
export type Section = keyof typeof sections
type ScopeOf<P extends Section> = (typeof sections)[P]['scope']

/** A field of the brief. */
export interface Field<P extends Section = Section, K extends string = string, T = unknown> {
  readonly section: P
  readonly key: K
  readonly kind: 'flag' | 'number' | 'choice'
  /** With the value that it has where nothing is said. */
  readonly schema: z.ZodType<T>
  readonly unit?: string
  readonly choices?: readonly string[]
}
export type Plain<P extends Section, K extends string, T> = Setting<T, ScopeOf<P>> & { readonly field: Field<P, K, T> }

interface Row<T> extends Pick<Setting<T>, 'words' | 'plural' | 'nothing' | 'show' | 'needs'> {
  /** Of the brief. */
  readonly default: T
  readonly leaf: Leaf
}

function plain<P extends Section, K extends string, T>(
  { default: _default, ...row }: Row<T>,
  value: z.ZodType<T>,
  field: Field<P, K, T>,
): Plain<P, K, T> {
  const { scope, step, path } = sections[field.section]
  return { scope: scope as ScopeOf<P>, step, value, asked: `${path}${field.key}`, field, ...row }
}

/** On or off. */
export function flag<P extends Section, K extends string>(section: P, key: K, row: Row<boolean>): Plain<P, K, boolean> {
  return plain(row, z.boolean(), { section, key, kind: 'flag', schema: z.boolean().default(row.default) })
}

/** A whole number of a unit within bounds; null for none. */
export function figure<P extends Section, K extends string>(
  section: P,
  key: K,
  { unit, least, most, ...row }: Row<number | null> & { unit: string; least: number; most: number },
): Plain<P, K, number | null> {
  const rule = messageText('whole-number-unfit', { unit, least, most })
  const schema = z.int(rule).min(least, rule).max(most, rule).nullable().default(row.default)
  return plain(row, z.number().nullable(), { section, key, kind: 'number', schema, unit })
}

/** One of a few. */
export function choice<P extends Section, K extends string, const C extends string>(
  section: P,
  key: K,
  { choices, ...row }: Row<NoInfer<C>> & { choices: readonly C[] },
): Plain<P, K, C> {
  const schema = z.enum(choices).default(row.default as never) as unknown as z.ZodType<C>
  return plain(row, z.enum(choices) as unknown as z.ZodType<C>, { section, key, kind: 'choice', schema, choices })
}

export function isPlain(setting: object): setting is Plain<Section, string, unknown> {
  return 'field' in setting
}

/** The fields of one part of the brief, as they stand in its schema. */
export type FieldsOf<Rows, P extends Section> = {
  [I in keyof Rows as Rows[I] extends { readonly field: Field<P, infer K, unknown> } ? K : never]: Rows[I] extends {
    readonly field: Field<P, string, infer T>
  }
    ? z.ZodDefault<z.ZodType<T>>
    : never
}
export function fieldsOf<Rows extends object, P extends Section>(rows: Rows, section: P): FieldsOf<Rows, P> {
  const fields = Object.values(rows).flatMap((row: object) =>
    isPlain(row) && row.field.section === section ? [[row.field.key, row.field.schema]] : [],
  )
  return Object.fromEntries(fields)
}
