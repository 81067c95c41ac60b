'use server'
/** Orders that the pages place: a runner carries them out. */
import { z } from 'zod'
import { settingIdSchema } from '../core/config/unit-config'
import { lineSchema } from '../core/input/line'
import { unitIdSchema } from '../core/kit/unit'
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

const byHandSchema = z.object({
  unit: unitIdSchema,
  settings: z
    .array(z.object({ id: settingIdSchema, of: z.string().max(40), asked: z.string().max(4000) }))
    .min(1)
    .max(2000),
  who: lineSchema(60).min(1, 'say who has seen to it'),
  done: z.enum(['yes', 'no']),
})

/** Somebody has set by hand what no muster can set, or has not after all; all of a unit at once, where it is much. */
export async function seeToByHand(slug: string, given: z.input<typeof byHandSchema>): Promise<Outcome> {
  const parsed = byHandSchema.safeParse(given)
  if (!parsed.success) return failed(parsed.error.issues[0]?.message ?? 'This is not a setting.')
  const { settings, ...rest } = parsed.data
  const at = new Date()
  return order(slug, (store, job) =>
    appendEvents(
      store,
      job.id,
      settings.map((setting) => ({ at, event: { kind: 'by-hand', ...rest, ...setting } as const })),
    ),
  )
}

export async function pauseMuster(slug: string): Promise<Outcome> {
  return order(slug, (store, job) => askPause(store, job.id))
}

export async function restoreLaptop(slug: string): Promise<Outcome> {
  return order(slug, (store, job) => placeOrder(store, { jobId: job.id, kind: 'restore-laptop', units: allUnits }))
}
