/**
 * What a unit was asked to be, as it may be kept and shown: each secret stands as the mark of its last change.
 *
 * Kept when a unit has proven itself, and compared with what the brief, the kit list and the plan ask of it now.
 */
import { z } from 'zod'
import { parseCidr } from '../addressing/ipv4'
import { adminSecretName, type Brief } from '../brief/brief'
import type { KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'
import type { UnitPlan } from '../plan/plan'
import { compare } from './compare'
import { unitConfigOf } from './compile'
import { unitConfigSchema } from './unit-config'

export const askedSchema = z.object({
  mac: z.string(),
  /** Passphrases are marks. */
  config: unitConfigSchema,
  /** Mark of the admin password. */
  password: z.string(),
})
export type Asked = z.infer<typeof askedSchema>

/** @param changedAt  when it was last changed: an instant, ISO 8601 */
export const secretMark = (name: string, changedAt: string): string => `${name} of ${changedAt}`

export interface Asking {
  readonly brief: Brief
  readonly units: readonly Unit[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  readonly cards: ReadonlyMap<string, KitCard>
  /** When each secret was last changed, by its name. */
  readonly secretTimes: ReadonlyMap<string, string>
}

/** What is asked of each unit now, by its id; undefined where it has no plan or no kit card. */
export function askingOf({ brief, units, plans, cards, secretTimes }: Asking): ReadonlyMap<string, Asked> {
  const marks = new Map([...secretTimes].map(([name, changedAt]) => [name, secretMark(name, changedAt)]))
  const prefix = parseCidr(brief.management.cidr)?.prefix ?? 0
  return new Map(
    units.flatMap((unit) => {
      const plan = plans.get(unit.id)
      const card = cards.get(unit.model)
      if (!plan || !card) return []
      const config = unitConfigOf({ brief, unit, plan, card, secrets: marks }, prefix)
      return [
        [unit.id, { mac: unit.mac, config, password: marks.get(adminSecretName(brief.admin, unit.id)) ?? '' }] as const,
      ]
    }),
  )
}

/** What is asked now and was not asked then, a sentence each; none where all is the same. */
export function changesSince(then: Asked, now: Asked): string[] {
  return [
    ...(then.mac === now.mac ? [] : [`It was ${then.mac}, and is ${now.mac} now.`]),
    ...compare(now.config, then.config).map(({ sentence }) => sentence),
    ...(then.password === now.password ? [] : ['The admin password is another.']),
  ]
}
