/** The value that is desired of each setting: as the brief holds it, or as it follows from brief, plan and card. */

import { type Row, rowsOf, type SettingId, settings } from '../catalogue/catalogue'
import { isPlain, type Plain, type Section } from '../catalogue/plain'
import type { Scope } from '../catalogue/setting'
import type { Message } from '../message/message'
import type { AskedRadio, Asking, Desire, Subjects } from './asking'
import { networkDesires } from './desired-network'
import { planOf, radioDesires } from './desired-radio'
import { unitDesires } from './desired-unit'

type AnyDesire = Desire<unknown, Scope>

const worked = { ...unitDesires, ...networkDesires, ...radioDesires } as unknown as Record<string, AnyDesire>

type Values = Readonly<Record<string, unknown>>

/** A radio that is to be off is asked nothing more; null is what each model comes with. */
function plainDesire({ field: { section, key } }: Plain<Section, string, unknown>): AnyDesire {
  if (section === 'network') return { desired: (_asking, network) => (network as unknown as Values)[key] }
  if (section === 'aftercare') return { desired: ({ brief }) => (brief.aftercare as Values)[key] }
  return {
    desired: (asking, radio) =>
      planOf(asking, radio as AskedRadio) ? ((asking.brief.radio as Values)[key] ?? undefined) : undefined,
  }
}

const desires = new Map<SettingId, AnyDesire>(
  Object.entries<object>(settings).flatMap(([id, setting]) => {
    const desire = isPlain(setting) ? plainDesire(setting) : worked[id]
    return desire ? [[id as SettingId, desire]] : []
  }),
)

/** Descriptors of a scope with what is desired of each, in their order: ready for loops over many units. */
export interface DesireRow extends Row {
  readonly desire: AnyDesire
}
const rowsWithDesires = (scope: Scope): readonly DesireRow[] =>
  rowsOf(scope).flatMap((row) => {
    const desire = desires.get(row.id)
    return desire ? [{ ...row, desire }] : []
  })
const rowsBy = {
  unit: rowsWithDesires('unit'),
  network: rowsWithDesires('network'),
  radio: rowsWithDesires('radio'),
}
export const desireRowsOf = (scope: Scope): readonly DesireRow[] => rowsBy[scope]

/** What brief and plan ask of one setting; undefined where they do not speak of it. */
export function desiredValue<S extends Scope>(id: SettingId, asking: Asking, subject: Subjects[S]): unknown {
  return desires.get(id)?.desired(asking, subject)
}

/** Why this model cannot take the value of a setting; undefined where it can. */
export function whyNotTaken<S extends Scope>(
  id: SettingId,
  value: unknown,
  asking: Asking,
  subject: Subjects[S],
): Message | undefined {
  return desires.get(id)?.unfit?.(value, asking, subject)
}
