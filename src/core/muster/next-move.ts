/**
 * "Your next move": for one unit, what the installer's hands should do, or what is being waited for.
 */
import type { Unit } from '../kit/unit'
import type { StepState } from './events'
import { heldWords } from './held'
import { procedure, type Step, steps } from './procedure'
import { answers, isChanged, type Roll, type RollRow } from './roll'

export interface NextMove {
  readonly words: string
  readonly tone: 'answers' | 'hands' | 'held' | 'working' | 'waiting' | 'quiet'
  /** When a wait is due, ms since 1970. */
  readonly until: number | undefined
}

export function nextMove(unit: Unit, row: RollRow | undefined, roll: Roll, address: string | undefined): NextMove {
  if (answers(row)) return { words: `answers at ${address ?? 'its address'}`, tone: 'answers', until: undefined }
  if (isChanged(row) && roll.muster === 'idle')
    return { words: 'changed since: muster it again', tone: 'hands', until: undefined }
  const [step, state] = currentStep(row)
  switch (state.kind) {
    case 'held': {
      const { hands, why } = heldWords(state)
      return { words: hands[0] ?? why, tone: 'held', until: undefined }
    }
    case 'waiting':
      return { words: state.waitingFor, tone: 'waiting', until: state.until }
    case 'working':
      return { words: state.doing, tone: 'working', until: undefined }
    default:
      break
  }
  if (roll.muster === 'paused')
    return { words: `paused before ${procedure[step].title.toLowerCase()}`, tone: 'quiet', until: undefined }
  if (roll.muster !== 'idle') return { words: procedure[step].doing, tone: 'working', until: undefined }
  const sighting = roll.sightings.find((each) => each.mac === unit.mac)
  if (!sighting)
    return {
      words: unit.port === null ? 'Plug it in' : `Plug it into port ${unit.port}`,
      tone: 'hands',
      until: undefined,
    }
  if (sighting.answers === 'arp-only') return { words: 'starting up', tone: 'waiting', until: undefined }
  if (sighting.answers === 'untrusted')
    return { words: 'shows another certificate than before', tone: 'hands', until: undefined }
  return { words: 'ready to muster', tone: 'quiet', until: undefined }
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
