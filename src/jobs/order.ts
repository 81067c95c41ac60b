/** Orders that people place: a runner carries them out. */

import { z } from 'zod'
import { settingIdSchema } from '../core/config/unit-config'
import { lineSchema } from '../core/input/line'
import { done, failed, failedBy, type Outcome } from '../core/job/outcome'
import { oldCryptoSchema } from '../core/kit/old-crypto'
import { type Unit, unitIdSchema } from '../core/kit/unit'
import { message, messageText } from '../core/message/message'
import { allUnits, type Selection, selectionSchema, theseUnits } from '../core/muster/selection'
import { appendEvents } from '../store/events'
import type { Job } from '../store/jobs'
import { listUnits } from '../store/kit'
import { inTransaction, type Store } from '../store/open'
import { askPause, placeOrder } from '../store/orders'
import { forgetPin } from '../store/secrets'
import type { Actor } from './installation'

export { MusterOpenError, musterIsOpen, orderState } from '../store/orders'

/** @throws MusterOpenError where one is under way for other units */
export async function orderMuster(store: Store, job: Job, selection: Selection): Promise<Outcome<number>> {
  const parsed = selectionSchema.safeParse(selection)
  if (!parsed.success) return failed(message('units-not-listed'))
  return { ok: true, value: await placeOrder(store, { jobId: job.id, kind: 'muster', units: parsed.data }) }
}

export function orderSweep(store: Store, job: Job): Promise<number> {
  return placeOrder(store, { jobId: job.id, kind: 'sweep', units: allUnits })
}

export function orderLaptopBack(store: Store, job: Job): Promise<number> {
  return placeOrder(store, { jobId: job.id, kind: 'restore-laptop', units: allUnits })
}

export const lendingSchema = z.enum(['on', 'off'])

/** Has the laptop lend addresses to boxes of the list that wait for one, or no more; the bench is swept at once. */
export function lendAddresses(
  store: Store,
  job: Job,
  state: z.infer<typeof lendingSchema>,
  { name }: Actor,
): Promise<number> {
  return inTransaction(store, async (inner) => {
    await appendEvents(inner, job.id, [{ at: new Date(), event: { kind: 'lending', state, by: name } }])
    return orderSweep(inner, job)
  })
}

export async function pauseMuster(store: Store, job: Job): Promise<void> {
  await askPause(store, job.id)
}

export const thenSchema = z.enum(['muster', 'nothing'])

/**
 * What somebody's word changes about one unit of the list.
 * @param then  `muster` it afterwards, or leave it to the person who has its window open
 */
function onOneUnit(
  store: Store,
  job: Job,
  unit: string,
  then: z.infer<typeof thenSchema>,
  change: (inner: Store, found: Unit) => Promise<void>,
): Promise<Outcome> {
  return inTransaction(store, async (inner) => {
    const found = (await listUnits(inner, job.id)).find((each) => each.id === unit)
    if (!found) return failed(message('unit-no-longer-listed'))
    await change(inner, found)
    if (then === 'muster') await placeOrder(inner, { jobId: job.id, kind: 'muster', units: theseUnits(found.id) })
    return done
  })
}

/** Lets the certificate go that a unit showed first, on somebody's word that it was reset. */
export function trustNewCertificate(
  store: Store,
  job: Job,
  unit: string,
  then: z.infer<typeof thenSchema>,
  { name }: Actor,
): Promise<Outcome> {
  return onOneUnit(store, job, unit, then, async (inner, found) => {
    const told = message('certificate-pinned-anew', { name })
    await appendEvents(inner, job.id, [{ at: new Date(), event: { kind: 'log', unit: found.id, told } }])
    await forgetPin(inner, job.id, found.mac)
  })
}

export const oldNamesSchema = z.array(oldCryptoSchema).max(20)

/** Lets what is no longer safe be spoken with one unit, by name; with no name no more. */
export function speakOld(
  store: Store,
  job: Job,
  unit: string,
  old: z.infer<typeof oldNamesSchema>,
  then: z.infer<typeof thenSchema>,
  { name }: Actor,
): Promise<Outcome> {
  return onOneUnit(store, job, unit, then, async (inner, found) => {
    const event = { kind: 'speaks-old', unit: found.id, old, by: name } as const
    await appendEvents(inner, job.id, [{ at: new Date(), event }])
  })
}

const byHandSchema = z.object({
  unit: unitIdSchema,
  settings: z
    .array(z.object({ id: settingIdSchema, of: z.string().max(40), asked: z.string().max(4000) }))
    .min(1)
    .max(2000),
  who: lineSchema(60).min(1, messageText('name-missing')),
  done: z.enum(['yes', 'no']),
})
export type SeenToByHand = z.input<typeof byHandSchema>

/** Somebody has set by hand what no muster can set, or has not after all; all of a unit at once, where it is much. */
export async function seeToByHand(store: Store, job: Job, given: SeenToByHand): Promise<Outcome> {
  const parsed = byHandSchema.safeParse(given)
  if (!parsed.success) return failedBy(parsed.error)
  const { settings, ...rest } = parsed.data
  const at = new Date()
  const events = settings.map((setting) => ({ at, event: { kind: 'by-hand', ...rest, ...setting } as const }))
  await appendEvents(store, job.id, events)
  return done
}
