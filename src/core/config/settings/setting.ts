/**
 * One row of the table of settings: what a setting is called, who writes it, how it is asked for, and when two of its
 * values are the same. Everything that is done with settings follows from the rows.
 */
import type { z } from 'zod'
import type { Brief } from '../../brief/brief'
import type { WirelessNetwork } from '../../brief/wireless-network'
import type { CardRadio } from '../../kit/card-parts'
import type { KitCard } from '../../kit/kit-card'
import type { Unit } from '../../kit/unit'
import type { UnitPlan } from '../../plan/plan'
import type { Band } from '../../regulatory/blocks'
import type { SettingId } from '../setting-ids'

/** Steps of a muster that write settings; a setting that is only read is settled by the proof. */
export type SettlingStep = 'country' | 'clock' | 'networks' | 'radios' | 'services' | 'password' | 'address' | 'proof'

/** All that settings are asked from. */
export interface Asking {
  readonly brief: Brief
  readonly unit: Unit
  readonly plan: UnitPlan
  readonly card: KitCard
  /** By the name that the vault files it under: clear text for a muster, marks for what is kept. */
  readonly secrets: ReadonlyMap<string, string>
  /** Day by which rules of time zones are looked up. */
  readonly today: Date
  /** Of a controller: how many units of the kit list are set through it. */
  readonly manages?: number | undefined
  /** Of a unit that is set through a controller: the address that this is to have. */
  readonly controller?: string | undefined
}

/** A radio that the card has or the brief asks for. */
export interface AskedRadio {
  readonly band: Band
  /** Undefined where the model has none in this band. */
  readonly radio: CardRadio | undefined
}

/** What a row is asked about beside the unit: nothing more, one network, or one radio. */
export interface Subjects {
  readonly unit: undefined
  readonly network: WirelessNetwork
  readonly radio: AskedRadio
}
export type Scope = keyof Subjects

export interface Setting<T, S extends Scope = Scope> {
  readonly scope: S
  readonly step: SettlingStep
  /** As it begins a sentence: `Client isolation`. */
  readonly words: string
  /** The words are of several things: they are, and are not, what they are to be. */
  readonly plural?: true
  /** What values it has, also in what was kept. */
  readonly value: z.ZodType<T>
  readonly secret?: true
  /** Value that a unit which does not know the setting satisfies by its nature. */
  readonly nothing?: T
  /** Read back, and never written. */
  readonly onlyRead?: true
  /** Proven by signing in with it, and never compared. */
  readonly bySigningIn?: true
  /** Never shown, and proven by asking a service of the unit with it. */
  readonly byAsking?: true
  /** A model that does not know it is not asked for it. */
  readonly whereAsked?: true
  /** Equipment often ships with it on: hands see to it even where the brief asks for none. */
  readonly oftenOn?: true
  /** It cannot be set without these: where a model does not take one of them, it does not take this. */
  readonly needs?: readonly SettingId[]
  /**
   * Another setting that it is a part of: where a unit has another value of that, what it shows of this is not what it
   * was set to, though it may look the same.
   */
  readonly partOf?: SettingId
  /** What the brief and the plan say; undefined where they do not speak of it. */
  ask(asking: Asking, subject: Subjects[S]): T | undefined
  /** Why this model cannot take the value; undefined where it can. */
  unfit?(value: T, asking: Asking, subject: Subjects[S]): string | undefined
  /** Equality unless it is said. */
  same?(desired: T, observed: T): boolean
  /** The value for people; never called for a secret. */
  show?(value: T): string
}

/** A row of one scope, with the type of its value taken from its schema. */
export const ofUnit = <T>(row: Omit<Setting<T, 'unit'>, 'scope'>): Setting<T, 'unit'> => ({ scope: 'unit', ...row })
export const ofNetwork = <T>(row: Omit<Setting<T, 'network'>, 'scope'>): Setting<T, 'network'> => ({
  scope: 'network',
  ...row,
})
export const ofRadio = <T>(row: Omit<Setting<T, 'radio'>, 'scope'>): Setting<T, 'radio'> => ({ scope: 'radio', ...row })

/** A value for people where its row says nothing else. */
export function plainWords(value: unknown): string {
  if (value === null || (Array.isArray(value) && value.length === 0)) return 'none'
  if (typeof value === 'boolean') return value ? 'on' : 'off'
  return Array.isArray(value) ? value.join(', ') : String(value)
}

/** Words as they stand within a sentence: an abbreviation keeps its capitals. */
export function withinSentence(words: string): string {
  return /^[A-Z][a-z]/.test(words) ? `${words.charAt(0).toLowerCase()}${words.slice(1)}` : words
}

/** Are two values the same, whatever the order of the fields within? */
export function sameValue(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((key) => sameValue((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
}

/** Are two lists the same as sets? */
export function sameSet(a: readonly string[], b: readonly string[]): boolean {
  return sameValue([...new Set(a)].sort(), [...new Set(b)].sort())
}
