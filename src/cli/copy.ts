/** Prints the copy of a unit's configuration. */

import { revealCopy } from '../jobs/copies'
import { fromCommandLine } from '../jobs/installation'
import { sentence } from '../words/en/sentence'
import { CommandError } from './command-error'
import { mustUnit, mustView } from './job-commands'
import { withStore } from './with-store'

/**
 * @param wanted  name or id of a unit
 * @throws CommandError 2 where there is no such unit, or no such copy of it yet
 */
export function printCopy(slug: string, wanted: string, which: 'as-found' | 'as-left'): Promise<string> {
  return withStore(async (store) => {
    const view = await mustView(store, slug)
    const answer = await revealCopy(store, view.job, mustUnit(view, wanted).id, which, fromCommandLine)
    if (!answer.ok) throw new CommandError(2, sentence(answer.told))
    return answer.value?.text ?? ''
  })
}
