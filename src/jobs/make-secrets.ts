/** Makes the passphrases and passwords that a brief needs and the vault does not have. */
import { randomInt } from 'node:crypto'
import { type Brief, neededSecrets } from '../core/brief/brief'
import { generatePassword } from '../core/secrets/passphrase'
import { listUnits } from '../store/kit'
import type { Store } from '../store/open'
import { sealSecret, secretTimes } from '../store/secrets'

export function makeSecret(): string {
  return generatePassword((below) => randomInt(below))
}

/** For the units that are on the list now. */
export async function makeMissingSecrets(store: Store, jobId: number, brief: Brief, at: Date): Promise<void> {
  const unitIds = (await listUnits(store, jobId)).map((unit) => unit.id)
  const there = await secretTimes(store, jobId)
  for (const name of neededSecrets(brief, unitIds))
    if (!there.has(name)) await sealSecret(store, jobId, name, makeSecret(), at)
}
