/** The six stages, and in a few words where each stands. */
import type { Brief } from '../brief/brief'
import type { Unit } from '../kit/unit'
import { answers, heldStep, isChanged, type Roll, waitsForHands } from './roll'

export const stages = ['brief', 'kit', 'plan', 'bench', 'muster', 'handover'] as const
export type Stage = (typeof stages)[number]

export interface Standing {
  readonly words: string
  readonly mark: 'done' | 'attention' | 'none'
}

export interface Standings {
  readonly brief: Brief
  readonly countryName: string
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

const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`

export function standings({
  brief,
  countryName,
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
  // The papers open for what hands have set too: they say what is missing.
  const all = units.length > 0 && called.every((unit) => answers(roll.rows.get(unit.id)))
  return {
    brief:
      faults.brief === 0 && brief.networks.length === 0
        ? { words: `${countryName}, no network yet`, mark: 'none' }
        : judged(faults.brief, `${countryName}, ${counted(brief.networks.length, 'network')}`),
    kit:
      units.length === 0
        ? { words: 'nothing on the list yet', mark: 'attention' }
        : judged(faults.kit, `${counted(units.length, 'unit')} on the list`),
    plan:
      units.length === 0
        ? { words: 'nothing to plan yet', mark: 'none' }
        : planned < units.length
          ? { words: `${counted(units.length - planned, 'unit')} without a plan`, mark: 'attention' }
          : judged(faults.plan, 'addresses and channels set'),
    bench: {
      words:
        present.size === 0
          ? forHands > 0
            ? `${forHands} on the wire, for hands`
            : 'nothing on the wire yet'
          : `${matched} on the wire${strays > 0 ? `, ${counted(strays, 'stray')}` : ''}`,
      mark: strays > 0 ? 'attention' : matched === units.length && matched > 0 ? 'done' : 'none',
    },
    muster: {
      words: `${answering} of ${units.length} answer${troubles(held, changed) || (byHand > 0 ? `, ${byHand} by hand` : '')}`,
      mark: held + changed > 0 ? 'attention' : all && byHand === 0 ? 'done' : 'none',
    },
    handover: !all
      ? { words: 'opens when all answer', mark: 'none' }
      : incomplete()
        ? { words: 'not complete yet', mark: 'attention' }
        : { words: 'ready to print', mark: 'done' },
  }
}

/** A tab has room for a few words: where there are both kinds, their sum. */
function troubles(held: number, changed: number): string {
  if (held > 0 && changed > 0) return `, ${held + changed} need you`
  return held > 0 ? `, ${held} held` : changed > 0 ? `, ${changed} changed` : ''
}

function judged(faults: number, words: string): Standing {
  return faults > 0
    ? { words: counted(faults, 'thing to mend', 'things to mend'), mark: 'attention' }
    : { words, mark: 'done' }
}
