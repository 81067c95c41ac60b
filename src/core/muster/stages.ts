/** The six stages, and the state of each. */

import type { Brief } from '../brief/brief'
import type { Unit } from '../kit/unit'
import { type Message, message } from '../message/message'
import { answers, heldStep, isChanged, type Roll, waitsForHands } from './roll'

export const stages = ['brief', 'kit', 'plan', 'bench', 'muster', 'handover'] as const
export type Stage = (typeof stages)[number]

export interface Standing {
  readonly told: Message
  readonly mark: 'done' | 'attention' | 'none'
}

export interface Standings {
  readonly brief: Brief
  readonly units: readonly Unit[]
  /** How many units have a plan. */
  readonly planned: number
  readonly faults: { readonly brief: number; readonly kit: number; readonly plan: number }
  /** Units that a muster sets; all of them where nothing is said. */
  readonly called?: readonly Unit[]
  readonly roll: Roll
  /** Whether the papers miss something still; asked only where all answer. */
  readonly incomplete?: () => boolean
}

export function standings({
  brief,
  units,
  called = units,
  planned,
  faults,
  roll,
  incomplete = () => false,
}: Standings): Record<Stage, Standing> {
  const known = new Set(units.map((unit) => unit.mac))
  const present = new Set(roll.sightings.map((sighting) => sighting.mac))
  const matched = [...present].filter((mac) => known.has(mac)).length
  const strays = present.size - matched
  const rows = units.map((unit) => roll.rows.get(unit.id))
  const answering = rows.filter(answers).length
  const held = rows.filter((row) => heldStep(row) && !waitsForHands(row)).length
  const changed = rows.filter(isChanged).length
  const set = new Set(called)
  const isHeard = ({ mac }: Unit): boolean =>
    roll.heard.onLink.some((each) => each.mac === mac && each.address !== null)
  const forHands = units.filter((unit) => !set.has(unit) && !present.has(unit.mac) && isHeard(unit)).length
  const byHand = units.filter((unit, index) => !set.has(unit) && !answers(rows[index])).length
  // The papers open for units that were set by hand as well: they say what is missing.
  const all = units.length > 0 && called.every((unit) => answers(roll.rows.get(unit.id)))
  return {
    brief:
      faults.brief === 0 && brief.networks.length === 0
        ? { told: message('stage-no-network', { country: brief.country }), mark: 'none' }
        : judged(faults.brief, message('stage-networks', { country: brief.country, count: brief.networks.length })),
    kit:
      units.length === 0
        ? { told: message('stage-list-empty'), mark: 'attention' }
        : judged(faults.kit, message('stage-listed', { count: units.length })),
    plan:
      units.length === 0
        ? { told: message('stage-nothing-to-plan'), mark: 'none' }
        : planned < units.length
          ? { told: message('stage-unplanned', { count: units.length - planned }), mark: 'attention' }
          : judged(faults.plan, message('stage-planned')),
    bench: {
      told:
        present.size === 0
          ? forHands > 0
            ? message('stage-for-hands', { count: forHands })
            : message('stage-wire-empty')
          : message('stage-on-wire', { count: matched, strays }),
      mark: strays > 0 ? 'attention' : matched === units.length && matched > 0 ? 'done' : 'none',
    },
    muster: {
      told: message('stage-answering', { answering, units: units.length, held, changed, byHand }),
      mark: held + changed > 0 ? 'attention' : all && byHand === 0 ? 'done' : 'none',
    },
    handover: !all
      ? { told: message('stage-papers-shut'), mark: 'none' }
      : incomplete()
        ? { told: message('stage-papers-incomplete'), mark: 'attention' }
        : { told: message('stage-papers-ready'), mark: 'done' },
  }
}

function judged(faults: number, told: Message): Standing {
  return faults > 0 ? { told: message('stage-to-mend', { count: faults }), mark: 'attention' } : { told, mark: 'done' }
}
