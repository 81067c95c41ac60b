/**
 * What a unit was asked to be, as it may be kept and shown: each secret stands as the mark of its last change.
 *
 * Kept when a unit has proven itself, and compared with what the brief, the kit list and the plan ask of it now.
 */

import { z } from 'zod'
import { adminSecretName, type Brief } from '../brief/brief'
import { isMustered, type KitCard } from '../kit/kit-card'
import { controllerOf, managedBy } from '../kit/managed-by'
import type { Unit } from '../kit/unit'
import { type Message, message, messageOf } from '../message/message'
import type { UnitPlan } from '../plan/plan'
import type { Asking, Secrets } from './asking'
import { compare } from './compare'
import { configOf, desiredOf } from './compile'
import { expectedOf, type SettingOutcome, spokenOf } from './outcomes'
import { asObserved, type Config, type Mark, unitConfigSchema } from './unit-config'

export const askedSchema = z.object({
  mac: z.string(),
  /** Secrets are marks. */
  config: unitConfigSchema,
  /** Mark of the admin password. */
  password: z.string(),
  /** Kept before networks had ids: they are known by their names. */
  networksBy: z.literal('name').optional(),
})
export type Asked = z.infer<typeof askedSchema>

/** @param changedAt  when it was last changed: an instant, ISO 8601 */
export const secretMark = (name: string, changedAt: string): string => `${name} of ${changedAt}`

export interface AskingJob {
  readonly brief: Brief
  /** All of the kit list. */
  readonly units: readonly Unit[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  readonly cards: ReadonlyMap<string, KitCard>
  /** When each secret was last changed, by its name. */
  readonly secretTimes: ReadonlyMap<string, string>
  readonly today: Date
}

const askingBefore = new WeakMap<AskingJob, Map<Unit, Asking<Mark> | undefined>>()

/** What is asked of one unit, secrets as marks; undefined where it has no plan or no kit card. Worked out once. */
export function askingWithMarks(job: AskingJob, unit: Unit): Asking<Mark> | undefined {
  const known = askingBefore.get(job) ?? new Map<Unit, Asking<Mark> | undefined>()
  askingBefore.set(job, known)
  if (!known.has(unit)) known.set(unit, askingFor(job, unit))
  return known.get(unit)
}

function askingFor(
  { brief, units, plans, cards, secretTimes, today }: AskingJob,
  unit: Unit,
): Asking<Mark> | undefined {
  const plan = plans.get(unit.id)
  const card = cards.get(unit.model)
  if (!plan || !card) return undefined
  const manages = card.role === 'controller' ? managedBy(unit, units, cards).length : undefined
  const controller = plans.get(controllerOf(unit, units, cards)?.id ?? '')?.address
  return { brief, unit, plan, card, today, secrets: marksOf(secretTimes), manages, controller }
}

/** What is asked of each unit now, by its id; undefined where it has no plan or no kit card. */
export function askingOf(job: AskingJob): ReadonlyMap<string, Asked> {
  return new Map(
    job.units.flatMap((unit) => {
      const asking = askingWithMarks(job, unit)
      if (!asking) return []
      const password = asking.secrets.get(adminSecretName(job.brief.admin, unit.id)) ?? ''
      // A unit that is set by hand is to have everything that is asked; one that a muster sets, what its model takes of
      // it.
      const config = isMustered(asking.card) ? desiredOf(asking) : configOf(spokenOf(asking))
      return [[unit.id, { mac: unit.mac, config, password }] as const]
    }),
  )
}

/** Every setting that is asked of each unit, with what can be said of it before anything is tried. */
export function expectedOfAll(job: AskingJob): ReadonlyMap<string, readonly SettingOutcome[]> {
  return new Map(
    job.units.flatMap((unit) => {
      const asking = askingWithMarks(job, unit)
      return asking ? [[unit.id, expectedOf(asking)] as const] : []
    }),
  )
}

const marked = new WeakMap<ReadonlyMap<string, string>, Secrets<Mark>>()
function marksOf(times: ReadonlyMap<string, string>): Secrets<Mark> {
  const known = marked.get(times)
  if (known) return known
  const marks = new Map([...times].map(([name, changedAt]) => [name, secretMark(name, changedAt)]))
  marked.set(times, marks)
  return marks
}

/** What is asked now and was not asked then, a message each; none where all is the same. */
export function changesSince(then: Asked, now: Asked): Message[] {
  return [
    ...(then.mac === now.mac ? [] : [message('mac-was', { was: then.mac, now: now.mac })]),
    ...compare(
      now.config,
      asObserved(then.networksBy === 'name' ? knownByName(then.config, now.config) : then.config),
    ).map(messageOf),
    ...(then.password === now.password ? [] : [message('admin-password-another')]),
  ]
}

/** Networks under the id that a network of the same name has now. */
function knownByName(then: Config<Mark>, now: Config<Mark>): Config<Mark> {
  const ids = new Map(Object.entries(now.networks).map(([id, values]) => [values['network.ssid'], id]))
  return {
    ...then,
    networks: Object.fromEntries(
      Object.entries(then.networks).map(([name, values]) => [ids.get(name) ?? name, values]),
    ),
  }
}
