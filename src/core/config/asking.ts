/** All that the settings of one unit are worked out from. */

import type { Brief } from '../brief/brief'
import type { WirelessNetwork } from '../brief/wireless-network'
import type { IdOf, PlainId, ValueOf } from '../catalogue/catalogue'
import type { Scope } from '../catalogue/setting'
import type { CardRadio } from '../kit/card-parts'
import type { KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'
import type { Message } from '../message/message'
import type { UnitPlan } from '../plan/plan'
import type { Band } from '../regulatory/blocks'
import type { Holding, Secrecy } from './unit-config'

/** Secrets by the name that the vault files them under. */
export type Secrets<S extends Secrecy> = ReadonlyMap<string, string> & Holding<S>

export interface Asking<S extends Secrecy = Secrecy> {
  readonly brief: Brief
  readonly unit: Unit
  readonly plan: UnitPlan
  readonly card: KitCard
  /** Clear text for a muster, marks for what is kept. */
  readonly secrets: Secrets<S>
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

/** What a setting is of, beside the unit: nothing more, one network, or one radio. */
export interface Subjects {
  readonly unit: undefined
  readonly network: WirelessNetwork
  readonly radio: AskedRadio
}

/** How the value of one setting is worked out. */
export interface Desire<T, S extends Scope> {
  /** What brief and plan say; undefined where they do not speak of it. */
  desired(asking: Asking, subject: Subjects[S]): T | undefined
  /** Why this model cannot take the value; undefined where it can. */
  unfit?(value: T, asking: Asking, subject: Subjects[S]): Message | undefined
}

/** For every setting of a scope that is not plain. */
export type DesiresOf<S extends Scope> = {
  readonly [I in Exclude<IdOf<S>, PlainId>]: Desire<ValueOf<I>, S>
}
