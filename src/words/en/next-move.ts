/**
 * "Your next move": for one unit, what the installer's hands should do, or what is being waited for.
 */

import { type KitCard, whyNotMustered } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import { message } from '../../core/message/message'
import type { StepState } from '../../core/muster/events'
import { type Step, steps } from '../../core/muster/procedure'
import { answers, isChanged, type Roll, type RollRow } from '../../core/muster/roll'
import { whereaboutsOf } from '../../core/muster/whereabouts'
import { heldWords } from './held'
import { sentence } from './sentence'
import { stepTitles } from './steps'
import { whereWords } from './whereabouts'

export interface NextMove {
  readonly words: string
  readonly tone: 'answers' | 'hands' | 'held' | 'working' | 'waiting' | 'quiet'
  /** When a wait is due, ms since 1970. */
  readonly until: number | undefined
}

/** What of a unit is known beside the roll. */
export interface OfUnit {
  readonly address: string | undefined
  readonly card: KitCard | undefined
  /** ms since 1970. */
  readonly now: number
}

export function nextMove(unit: Unit, row: RollRow | undefined, roll: Roll, { address, card, now }: OfUnit): NextMove {
  if (answers(row)) {
    const how = row?.isByHand ? ', set by hand' : ''
    return { words: `answers at ${address ?? 'its address'}${how}`, tone: 'answers', until: undefined }
  }
  if (isChanged(row) && roll.muster === 'idle')
    return { words: 'changed since: muster it again', tone: 'hands', until: undefined }
  const [step, state] = currentStep(row)
  // Nobody calls it: it is not looked for either.
  if (state.kind === 'idle' && card && whyNotMustered(card) !== undefined)
    return { words: 'by hand: its slip has every value', tone: 'quiet', until: undefined }
  switch (state.kind) {
    case 'held': {
      const { hands, why } = heldWords(state)
      return { words: hands[0] ?? why, tone: state.code === 'set-by-hand' ? 'hands' : 'held', until: undefined }
    }
    case 'waiting':
      return { words: sentence(state.waitingFor), tone: 'waiting', until: state.until }
    case 'working':
      return { words: sentence(state.doing), tone: 'working', until: undefined }
    default:
      break
  }
  if (roll.muster === 'paused')
    return { words: `paused before ${stepTitles[step].toLowerCase()}`, tone: 'quiet', until: undefined }
  if (roll.muster !== 'idle') return { words: sentence(message(`doing-${step}`)), tone: 'working', until: undefined }
  const where = whereaboutsOf({ unit, card, roll, now })
  const { move, tone } = whereWords(where, { unit, card })
  return { words: move, tone, until: where.kind === 'starting' ? where.until : undefined }
}

/** The first step that is not done, with its state. */
export function currentStep(row: RollRow | undefined): [Step, StepState] {
  const open = steps.find((step) => {
    const is = row?.steps[step]?.kind
    return is !== undefined && is !== 'done' && is !== 'idle'
  })
  const step =
    open ?? steps.find((each) => row?.steps[each]?.kind !== 'done' && each !== 'joined' && each !== 'save') ?? 'proof'
  return [step, row?.steps[step] ?? { kind: 'idle' }]
}
