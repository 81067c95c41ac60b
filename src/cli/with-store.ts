/** The store of the installation that a command speaks to, and what is said where it does not answer. */

import { BrokenRowError, openInstallation, type Store, storeErrorOf } from '../jobs/installation'
import { sentence } from '../words/en/sentence'
import { CommandError } from './command-error'
import { installation } from './installation'

/** A person waits at the terminal. */
const patienceMs = 8000

/**
 * Opens the store of the installation that runs, and closes it again.
 * @throws CommandError where its database does not answer, or a row cannot be read
 */
export async function withStore<T>(use: (store: Store) => Promise<T>): Promise<T> {
  let store: Store | undefined
  try {
    store = await openInstallation({ ...installation(), patienceMs })
    return await use(store)
  } catch (error) {
    const fault = storeErrorOf(error)
    if (fault?.kind === 'away')
      throw new CommandError(
        2,
        'The database does not answer. See whether npm run demo still runs; it starts a database that died ' +
          'again by itself.',
      )
    if (fault) throw new CommandError(2, `${sentence(fault.told)}.`)
    if (error instanceof BrokenRowError)
      throw new CommandError(2, `${sentence(error.told)}. The other jobs are not touched by it.`)
    throw error
  } finally {
    await store?.close().catch(() => undefined)
  }
}
