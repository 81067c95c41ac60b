/**
 * The radio rules of the installation: looked at before they are taken into use, and then every job is planned anew.
 */
import { done, failed, type Outcome } from '../core/job/outcome'
import type { RulesOffer } from '../core/regulatory/rules-offer'
import { listJobs } from '../store/jobs'
import type { Store } from '../store/open'
import { forgetDroppedRegulatory, offerRegulatory, takeRegulatory } from '../store/regulatory-file'
import { planAllAgain } from './plan'

export { loadRegulatory, radioRules } from '../store/regulatory-file'

export interface GivenRules {
  readonly name: string
  readonly bytes: Buffer
  readonly signature: Buffer | undefined
}

/** What would change, and whose the rules are. Nothing is in use until somebody says yes. */
export async function offerRules(store: Store, given: GivenRules): Promise<Outcome<RulesOffer>> {
  const { jobs } = await listJobs(store)
  const countries = jobs.map((job) => job.brief.country)
  const reading = await offerRegulatory(store, { ...given, countries, at: new Date() })
  return reading.ok ? { ok: true, value: reading.offer } : failed(reading.told)
}

/** @param hash  those that were looked at, and no others */
export async function takeRules(store: Store, hash: string): Promise<Outcome> {
  const refusal = await takeRegulatory(store, hash, new Date())
  if (refusal !== undefined) return failed(refusal)
  await planAllAgain(store)
  return done
}

export async function forgetRules(store: Store): Promise<Outcome> {
  await forgetDroppedRegulatory(store)
  await planAllAgain(store)
  return done
}
