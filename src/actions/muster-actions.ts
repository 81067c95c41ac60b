'use server'
/** Orders that the pages place: a runner carries them out. */
import { done, type Outcome } from '../core/job/outcome'
import type { Selection } from '../core/muster/selection'
import type { Job } from '../jobs/find-job'
import { fromPages, type Store } from '../jobs/installation'
import {
  orderLaptopBack,
  orderMuster,
  orderSweep,
  pauseMuster as pause,
  type SeenToByHand,
  seeToByHand as seeTo,
  trustNewCertificate as trust,
} from '../jobs/order'
import { withJob } from './with-job'

function order(slug: string, act: (store: Store, job: Job) => Promise<unknown>): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    await act(store, job)
    return done
  })
}

export async function sweepNow(slug: string): Promise<Outcome> {
  return order(slug, orderSweep)
}

export async function musterUnits(slug: string, selection: Selection): Promise<Outcome> {
  return withJob(slug, (store, job) => orderMuster(store, job, selection))
}

export async function trustNewCertificate(slug: string, unit: string): Promise<Outcome> {
  return withJob(slug, (store, job) => trust(store, job, unit, fromPages))
}

export async function seeToByHand(slug: string, given: SeenToByHand): Promise<Outcome> {
  return withJob(slug, (store, job) => seeTo(store, job, given))
}

export async function pauseMuster(slug: string): Promise<Outcome> {
  return order(slug, pause)
}

export async function restoreLaptop(slug: string): Promise<Outcome> {
  return order(slug, orderLaptopBack)
}
