/** Logins that a client uses today: kept sealed, tried by a muster, and never shown again. */

import { macSchema } from '../core/address/mac'
import { secretName } from '../core/brief/brief'
import { done, failedBy, type Outcome } from '../core/job/outcome'
import { loginTodaySchema } from '../core/secrets/login-today'
import type { Job } from '../store/jobs'
import type { Store } from '../store/open'
import { forgetSecret, sealSecret } from '../store/secrets'

/** Whose login it is: of all units of a job, or of the box with a MAC. */
export type LoginOf = 'job' | { readonly mac: string }

const nameOf = (of: LoginOf): string =>
  of === 'job' ? secretName.loginToday : secretName.boxLoginToday(macSchema.parse(of.mac))

export async function keepLoginToday(store: Store, job: Job, of: LoginOf, given: unknown): Promise<Outcome> {
  const login = loginTodaySchema.safeParse(given)
  if (!login.success) return failedBy(login.error)
  await sealSecret(store, job.id, nameOf(of), JSON.stringify(login.data), new Date())
  return done
}

export async function forgetLoginToday(store: Store, job: Job, of: LoginOf): Promise<Outcome> {
  await forgetSecret(store, job.id, nameOf(of))
  return done
}
