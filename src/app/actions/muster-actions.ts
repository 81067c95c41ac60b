'use server'
/** Orders that the pages place: a runner carries them out. */
import { z } from 'zod'
import type { Job } from '../../store/jobs'
import type { Store } from '../../store/open'
import { askPause, placeOrder } from '../../store/orders'
import { withJob } from '../server/with-job'
import { done, failed, type Outcome } from './outcome'

const unitsSchema = z.array(z.string().regex(/^[a-z0-9-]{1,40}$/)).max(2000)

function order(slug: string, act: (store: Store, job: Job) => Promise<unknown>): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    await act(store, job)
    return done
  })
}

export async function sweepNow(slug: string): Promise<Outcome> {
  return order(slug, (store, job) => placeOrder(store, { jobId: job.id, kind: 'sweep', units: [] }))
}

/** @param units  ids; empty for all on the list */
export async function musterUnits(slug: string, units: string[]): Promise<Outcome> {
  const parsed = unitsSchema.safeParse(units)
  if (!parsed.success) return failed('These are not units of the list.')
  return order(slug, (store, job) => placeOrder(store, { jobId: job.id, kind: 'muster', units: parsed.data }))
}

export async function pauseMuster(slug: string): Promise<Outcome> {
  return order(slug, (store, job) => askPause(store, job.id))
}

export async function restoreLaptop(slug: string): Promise<Outcome> {
  return order(slug, (store, job) => placeOrder(store, { jobId: job.id, kind: 'restore-laptop', units: [] }))
}
