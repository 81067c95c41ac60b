'use server'
/** Orders that the pages place: a runner carries them out. */
import { allUnits, type Selection, selectionSchema, theseUnits } from '../core/muster/selection'
import { appendEvents } from '../store/events'
import type { Job } from '../store/jobs'
import { listUnits } from '../store/kit'
import type { Store } from '../store/open'
import { askPause, placeOrder } from '../store/orders'
import { forgetPin } from '../store/secrets'
import { done, failed, type Outcome } from './outcome'
import { withJob } from './with-job'

function order(slug: string, act: (store: Store, job: Job) => Promise<unknown>): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    await act(store, job)
    return done
  })
}

export async function sweepNow(slug: string): Promise<Outcome> {
  return order(slug, (store, job) => placeOrder(store, { jobId: job.id, kind: 'sweep', units: allUnits }))
}

export async function musterUnits(slug: string, selection: Selection): Promise<Outcome> {
  const parsed = selectionSchema.safeParse(selection)
  if (!parsed.success) return failed('These are not units of the list.')
  return order(slug, (store, job) => placeOrder(store, { jobId: job.id, kind: 'muster', units: parsed.data }))
}

/** Lets the certificate go that a unit showed first, on somebody's word that it was reset, and musters the unit. */
export async function trustNewCertificate(slug: string, unit: string): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    const found = (await listUnits(store, job.id)).find((each) => each.id === unit)
    if (!found) return failed('This unit is no longer on the kit list.')
    await appendEvents(store, job.id, [
      {
        at: new Date(),
        event: { kind: 'log', unit: found.id, text: 'somebody says that it was reset: its next certificate is pinned' },
      },
    ])
    await forgetPin(store, job.id, found.mac)
    await placeOrder(store, { jobId: job.id, kind: 'muster', units: theseUnits(found.id) })
    return done
  })
}

export async function pauseMuster(slug: string): Promise<Outcome> {
  return order(slug, (store, job) => askPause(store, job.id))
}

export async function restoreLaptop(slug: string): Promise<Outcome> {
  return order(slug, (store, job) => placeOrder(store, { jobId: job.id, kind: 'restore-laptop', units: allUnits }))
}
