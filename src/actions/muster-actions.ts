'use server'
/** Orders that the pages place: a runner carries them out. */
import { z } from 'zod'
import { done, type Outcome } from '../core/job/outcome'
import type { Selection } from '../core/muster/selection'
import { copySchema, pageWhenHeld, revealCopy } from '../jobs/copies'
import type { Job } from '../jobs/installation'
import { fromPages, type Store } from '../jobs/installation'
import {
  lendAddresses,
  lendingSchema,
  oldNamesSchema,
  orderLaptopBack,
  orderMuster,
  orderSweep,
  pauseMuster as pause,
  type SeenToByHand,
  seeToByHand as seeTo,
  speakOld as speak,
  thenSchema,
  trustNewCertificate as trust,
} from '../jobs/order'
import { action } from './action'
import { withJob } from './with-job'

const text = z.string()
const ofJob = z.tuple([text])

function order(slug: string, act: (store: Store, job: Job) => Promise<unknown>): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    await act(store, job)
    return done
  })
}

export const sweepNow = action(ofJob, (slug) => order(slug, orderSweep))

export const lendAddressesAction = action(z.tuple([text, lendingSchema]), (slug, state) =>
  order(slug, (store, job) => lendAddresses(store, job, state, fromPages)),
)

export const musterUnits = action(z.tuple([text, z.custom<Selection>()]), (slug, selection) =>
  withJob(slug, (store, job) => orderMuster(store, job, selection)),
)

export const trustNewCertificate = action(z.tuple([text, text, thenSchema]), (slug, unit, then) =>
  withJob(slug, (store, job) => trust(store, job, unit, then, fromPages)),
)

export const speakOldAction = action(z.tuple([text, text, oldNamesSchema, thenSchema]), (slug, unit, old, then) =>
  withJob(slug, (store, job) => speak(store, job, unit, old, then, fromPages)),
)

export const seeToByHand = action(z.tuple([text, z.custom<SeenToByHand>()]), (slug, given) =>
  withJob(slug, (store, job) => seeTo(store, job, given)),
)

export const showCopy = action(z.tuple([text, text, copySchema]), (slug, unit, copy) =>
  withJob(slug, (store, job) => revealCopy(store, job, unit, copy, fromPages)),
)

export const showPageWhenHeld = action(z.tuple([text, text]), (slug, unit) =>
  withJob(slug, (store, job) => pageWhenHeld(store, job, unit)),
)

export const pauseMuster = action(ofJob, (slug) => order(slug, pause))

export const restoreLaptop = action(ofJob, (slug) => order(slug, orderLaptopBack))
