/** The plan of a job: made again, locked at single places, and following the floors. */

import { parseIpv4 } from '../core/address/ipv4'
import { done, failed, failedBy, type Outcome } from '../core/job/outcome'
import { message } from '../core/message/message'
import { newSiteSchema } from '../core/radio/propagation/floor'
import type { Band } from '../core/regulatory/blocks'
import { type Job, listJobs } from '../store/jobs'
import type { Store } from '../store/open'
import { lockAddress as keepAddress, lockChannel as keepChannel } from '../store/plans'
import { saveSite as keepSite } from '../store/sites'
import { replan } from './replan'

export { loadSite } from '../store/sites'

/** @param effort  how long the search may take */
export async function planAgain(store: Store, job: Job, effort: 'quick' | 'thorough' = 'thorough'): Promise<Outcome> {
  const planning = await replan(store, job.id, { effort })
  return planning ? done : failed(message('no-radio-rules', { country: job.brief.country }))
}

/** @param channel  null lets the channel go */
export async function lockChannel(
  store: Store,
  job: Job,
  { unit, band, channel }: { readonly unit: string; readonly band: Band; readonly channel: number | null },
): Promise<Outcome> {
  await keepChannel(store, job.id, unit, band, channel ?? undefined)
  return planAgain(store, job, 'quick')
}

/** @param address  null lets the address go */
export async function lockAddress(store: Store, job: Job, unit: string, address: string | null): Promise<Outcome> {
  const locked = address?.trim()
  if (locked !== undefined && parseIpv4(locked) === undefined)
    return failed(message('lock-not-an-address', { address: locked }), 'address')
  await keepAddress(store, job.id, unit, locked)
  return planAgain(store, job, 'quick')
}

/** Saves floors and places; the plan follows. @returns the new version */
export async function saveFloors(store: Store, job: Job, version: number, input: unknown): Promise<Outcome<number>> {
  const parsed = newSiteSchema.safeParse(input)
  if (!parsed.success) return failedBy(parsed.error)
  const next = await keepSite(store, job.id, parsed.data, version)
  await planAgain(store, job, 'quick')
  return { ok: true, value: next }
}

/** Plans every job anew: what all of them are made from has changed. */
export async function planAllAgain(store: Store): Promise<void> {
  for (const job of (await listJobs(store)).jobs) await replan(store, job.id)
}
