/** The roll as plain text, for a terminal. States are told by shape and word, not by colour. */
import type { Unit } from '../../core/kit/unit'
import { type Course, courseOf } from '../../core/muster/called'
import type { StepState } from '../../core/muster/events'
import { type Step, steps } from '../../core/muster/procedure'
import type { Roll } from '../../core/muster/roll'
import { nextMove, type OfUnit } from './next-move'
import { stepTitles } from './steps'

const marks: Readonly<Record<StepState['kind'], string>> = {
  idle: '.',
  working: '>',
  waiting: '~',
  done: '+',
  held: '#',
}

/**
 * @param of     what is known of each unit beside the roll
 * @param shown  the steps that have a column
 */
export function rollText(
  units: readonly Unit[],
  roll: Roll,
  of: (unit: Unit) => OfUnit,
  shown: readonly Step[] = steps.filter((step) => step !== 'joined' && step !== 'save'),
): string {
  const nameWidth = Math.max(4, ...units.map((unit) => unit.name.length))
  const heads = shown.map((step) => stepTitles[step])
  const lines = units.map((unit) => {
    const row = roll.rows.get(unit.id)
    const cells = shown.map((step, index) => marks[row?.steps[step]?.kind ?? 'idle'].padEnd(heads[index]?.length ?? 1))
    return `${unit.name.padEnd(nameWidth)}  ${cells.join(' ')}  ${nextMove(unit, row, roll, of(unit)).words}`
  })
  return [
    `${'Unit'.padEnd(nameWidth)}  ${heads.join(' ')}  Next move`,
    ...lines,
    '',
    courseWords(courseOf(units, roll, new Map(units.map((unit) => [unit.model, of(unit).card])))),
    '+ done   > working   ~ waiting   # held   . not yet',
  ].join('\n')
}

/** `4 of 6 answer, 2 by hand`: those by hand are not set yet. */
export function courseWords({ units, answering, byHand }: Course): string {
  return `${answering} of ${units} answer${byHand === 0 ? '' : `, ${byHand} by hand`}`
}
