/** `muster key`: the SSH key of a job. */

import { readFileSync } from 'node:fs'
import { findJob } from '../jobs/installation'
import { removeSshKey, setSshKey } from '../jobs/ssh-key'
import { sentence } from '../words/en/sentence'
import { CommandError } from './command-error'
import { withStore } from './with-store'

/** @throws CommandError with exit code 2 where there is no such job or file, or the file holds no key */
export function key(slug: string, file: string | undefined, { remove }: { remove?: true }): Promise<string> {
  return withStore(async (store) => {
    const job = await findJob(store, slug)
    if (!job) throw new CommandError(2, `There is no job "${slug}".`)
    if (remove) {
      await removeSshKey(store, job)
      return 'The key is gone.'
    }
    if (file === undefined) throw new CommandError(2, 'Name the file of a private key, such as ~/.ssh/id_ed25519.')
    const outcome = await setSshKey(store, job, textOf(file))
    if (!outcome.ok) throw new CommandError(2, `${file}: ${sentence(outcome.told)}`)
    return 'The key is sealed. It is tried where neither the factory password nor those of the job are taken.'
  })
}

function textOf(file: string): string {
  try {
    return readFileSync(file, 'utf8')
  } catch {
    throw new CommandError(2, `${file} cannot be read.`)
  }
}
