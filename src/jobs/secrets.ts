/** Secrets of a job: set, made anew, and shown, which is recorded first. */

import { z } from 'zod'
import { macSchema } from '../core/address/mac'
import { neededSecrets, secretName } from '../core/brief/brief'
import { done, failed, failedBy, type Outcome } from '../core/job/outcome'
import { message } from '../core/message/message'
import { passphraseFault } from '../core/secrets/passphrase'
import { passphraseWeakness } from '../core/secrets/strength'
import { appendEvents } from '../store/events'
import type { Job } from '../store/jobs'
import { listUnits } from '../store/kit'
import { inTransaction, type Store } from '../store/open'
import { forgetSecret, openSecret, sealSecret } from '../store/secrets'
import type { Actor } from './installation'
import { makeSecret } from './make-secrets'

export { weakSecrets } from '../store/secrets'

const nameSchema = z.string().max(120)

/** Keeps a passphrase that was typed. One that WPA2 does not allow is refused; a weak one is kept, and said. */
export async function setPassphrase(store: Store, job: Job, networkId: string, text: string): Promise<Outcome> {
  const network = job.brief.networks.find((each) => each.id === networkId)
  if (!network) return failed(message('network-not-saved-yet'))
  const passphrase = z.string().max(200).parse(text)
  const fault = passphraseFault(passphrase, network.security)
  if (fault) return failed(fault, 'passphrase')
  const { site, client } = job.brief
  const weakness = passphraseWeakness(passphrase, network.ssid, [site, client, job.name])
  await sealSecret(store, job.id, secretName.passphrase(network), passphrase, new Date(), weakness)
  return done
}

const labelPasswords = z.array(z.object({ mac: macSchema, password: z.string().min(1).max(200) })).max(20_000)
export type LabelPasswords = z.input<typeof labelPasswords>

/** Seals passwords that are printed on the labels of boxes, by the MAC beside them. */
export async function keepLabelPasswords(store: Store, job: Job, input: LabelPasswords): Promise<Outcome> {
  const parsed = labelPasswords.safeParse(input)
  if (!parsed.success) return failedBy(parsed.error)
  await inTransaction(store, async (inner) => {
    for (const { mac, password } of parsed.data)
      await sealSecret(inner, job.id, secretName.labelPassword(mac), password, new Date())
  })
  return done
}

/** Takes the password on the label of a box away for good. */
export async function forgetLabelPassword(store: Store, job: Job, mac: string): Promise<Outcome> {
  await forgetSecret(store, job.id, secretName.labelPassword(macSchema.parse(mac)))
  return done
}

/** Makes a secret anew, strong and without look-alike characters. */
export function renewSecret(store: Store, job: Job, name: string): Promise<Outcome> {
  return inTransaction(store, async (inner) => {
    const units = await listUnits(inner, job.id)
    const needed = neededSecrets(
      job.brief,
      units.map((unit) => unit.id),
    )
    if (!needed.includes(nameSchema.parse(name))) return failed(message('secret-not-saved-yet'))
    await sealSecret(inner, job.id, name, makeSecret(), new Date())
    return done
  })
}

/** Shows a secret. The asking is recorded in the same transaction: nothing is shown that was not. */
export function revealSecret(store: Store, job: Job, name: string, { name: by }: Actor): Promise<Outcome<string>> {
  return inTransaction(store, async (inner) => {
    const secret = nameSchema.parse(name)
    if (secret === secretName.sshKey) return failed(message('private-key-never-shown'))
    if (secret.startsWith('today/')) return failed(message('login-never-shown'))
    await appendEvents(inner, job.id, [{ at: new Date(), event: { kind: 'reveal', secret, by } }])
    const clear = await openSecret(inner, job.id, secret)
    return clear === undefined ? failed(message('secret-not-made-yet')) : { ok: true, value: clear }
  })
}
