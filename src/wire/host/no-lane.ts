/** What a refused lane is to whoever asked for it. */
import { WireError } from '../errors/wire-error'
import { QuestionRefused } from './questions'

/** The wire works, and has no way to this unit. */
export function noLane(error: unknown): never {
  if (error instanceof QuestionRefused) throw new WireError('unreachable', error.message, { cause: error })
  throw error
}
