/**
 * A descriptor: all that is common to one setting. What it is called, which step writes it, where the brief asks for
 * it, when two of its values are the same, and where it stands in our YANG modules. How its value is worked out from
 * brief and plan, where the brief does not hold it as it is, stands in config/.
 */
import { dequal } from 'dequal/lite'
import type { z } from 'zod'

/** What a setting is of: the unit, each network (known by its id), each radio (known by its band). */
export type Scope = 'unit' | 'network' | 'radio'

/** Steps of a muster that write settings; a setting that is only read is settled by the proof. */
export type SettlingStep = 'country' | 'clock' | 'networks' | 'radios' | 'services' | 'password' | 'address' | 'proof'

/**
 * What a leaf that is not there stands for: a value, one that is not shown, or a setting that the unit does not know.
 */
export type Absent = { readonly value: unknown } | 'unreadable' | 'unsupported'
/** How a value is written in the unit's data where that is not plain; each is carried out in the wire's own code. */
export type LeafCodec = 'octets' | 'decimal' | 'hours' | 'client-list' | 'entries' | 'time-servers' | 'name-servers'
export interface Leaf {
  /** Steps from the network, the radio, or the top of the data (RFC 7951), with slashes. */
  readonly path: string
  /** Left out: unreadable for a secret, else the value that means nothing, else unsupported. */
  readonly absent?: Absent
  readonly codec?: LeafCodec
}

export interface Setting<T = unknown, S extends Scope = Scope> {
  readonly scope: S
  readonly step: SettlingStep
  /** As it begins a sentence: `Country`. */
  readonly words: string
  /** The label is plural ("Bands"), so sentences about it use plural verbs. */
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
  /** Ids of settings that it cannot be set without: where a model does not take one of them, it does not take this. */
  readonly needs?: readonly string[]
  /**
   * Id of another setting that it is a part of: where a unit has another value of that, what it shows of this is not
   * what it was set to, though it may look the same.
   */
  readonly partOf?: string
  /** Where the brief asks for it, with dots; that of a network from the network on. */
  readonly asked?: string
  /** Where our modules have it (models/). Left out where several leaves together say it. */
  readonly leaf?: Leaf
  /** Equality unless it is said. */
  same?(desired: T, observed: T): boolean
  /** The value for people; never called for a secret. */
  show?(value: T): string
}

/** A descriptor of one scope. */
export const ofUnit = <T>(row: Omit<Setting<T, 'unit'>, 'scope'>): Setting<T, 'unit'> => ({ scope: 'unit', ...row })
export const ofNetwork = <T>(row: Omit<Setting<T, 'network'>, 'scope' | 'step'>): Setting<T, 'network'> => ({
  scope: 'network',
  step: 'networks',
  ...row,
})
export const ofRadio = <T>(row: Omit<Setting<T, 'radio'>, 'scope' | 'step'>): Setting<T, 'radio'> => ({
  scope: 'radio',
  step: 'radios',
  ...row,
})

/** A value for people where its descriptor says nothing else. */
export function plainWords(value: unknown): string {
  if (value === null || (Array.isArray(value) && value.length === 0)) return 'none'
  if (typeof value === 'boolean') return value ? 'on' : 'off'
  return Array.isArray(value) ? value.join(', ') : String(value)
}

/** Words as they stand within a sentence: an abbreviation keeps its capitals. */
export function withinSentence(words: string): string {
  return /^[A-Z][a-z]/.test(words) ? `${words.charAt(0).toLowerCase()}${words.slice(1)}` : words
}

/** Are two lists the same as sets? */
export function sameSet(a: readonly string[], b: readonly string[]): boolean {
  return dequal([...new Set(a)].sort(), [...new Set(b)].sort())
}
