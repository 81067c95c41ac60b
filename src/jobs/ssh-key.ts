/** The SSH key of a job, with which units that somebody set up before are signed in to. */

import ssh2 from 'ssh2'
import { secretName } from '../core/brief/brief'
import { done, failed, type Outcome } from '../core/job/outcome'
import { type Message, message } from '../core/message/message'
import type { Job } from '../store/jobs'
import type { Store } from '../store/open'
import { forgetSecret, sealSecret } from '../store/secrets'

/** A key of any kind that is in use is far shorter. */
const longest = 20_000

/**
 * Keeps a private key, sealed.
 *
 * @param text  as OpenSSH or PEM have it, without a passphrase of its own
 */
export async function setSshKey(store: Store, job: Job, text: string): Promise<Outcome> {
  const fault = privateKeyFault(text)
  if (fault !== undefined) return failed(fault)
  await sealSecret(store, job.id, secretName.sshKey, `${text.trim()}\n`, new Date())
  return done
}

export async function removeSshKey(store: Store, job: Job): Promise<Outcome> {
  await forgetSecret(store, job.id, secretName.sshKey)
  return done
}

/** Why a text is no private key that can be used, with what to do; undefined where it is one. */
export function privateKeyFault(text: string): Message | undefined {
  if (text.length > longest) return message('key-too-long')
  const key = ssh2.utils.parseKey(`${text.trim()}\n`)
  if (key instanceof Error)
    return /passphrase|encrypted/i.test(key.message) ? message('key-has-passphrase') : message('key-of-no-form')
  const [first] = [key].flat()
  if (!first?.isPrivateKey()) return message('key-is-public')
  return undefined
}
