/** Orders: claimed once, however many ask; leases; what throws; what cannot be read. */

import { sql } from 'drizzle-orm'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { asTold } from '../../src/core/message/message'
import { allUnits, theseUnits } from '../../src/core/muster/selection'
import { loadJob } from '../../src/jobs/load-job'
import { allEvents, appendEvents, eventsAfter } from '../../src/store/events'
import { findJob, listJobs, StaleVersionError, saveBrief } from '../../src/store/jobs'
import { addUnits } from '../../src/store/kit'
import {
  claimOrder,
  endOrder,
  failedOrder,
  MusterOpenError,
  mostAttempts,
  orderState,
  orderThrew,
  placeOrder,
  renewLease,
} from '../../src/store/orders'
import { orders } from '../../src/store/schema'
import { pinOnFirstSight } from '../../src/store/secrets'
import { sentence } from '../../src/words/en/sentence'
import { demoJob, freshStore } from '../support/bench'

let fresh: Awaited<ReturnType<typeof freshStore>>
let jobId: number
beforeEach(async () => {
  fresh = await freshStore()
  jobId = await loadJob(fresh.store, demoJob(), new Date())
})
afterEach(() => fresh.drop())
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
const sweepOrder = () => placeOrder(fresh.store, { jobId, kind: 'sweep', units: allUnits })
const musterOrder = (units = allUnits) => placeOrder(fresh.store, { jobId, kind: 'muster', units })

describe('an order', () => {
  it('is claimed by one runner alone, however many ask at once', async () => {
    await sweepOrder()
    const claims = await Promise.all(['a', 'b', 'c', 'd'].map((owner) => claimOrder(fresh.store, owner, 5)))
    expect(claims.filter((claim) => claim !== undefined)).toHaveLength(1)
  })

  it('goes to another runner once its lease has run out, and the first is told', async () => {
    await musterOrder(theseUnits('hall-01'))
    const claimed = await claimOrder(fresh.store, 'a', 0.3)
    expect(claimed?.units).toEqual(theseUnits('hall-01'))
    expect(await claimOrder(fresh.store, 'b', 5)).toBeUndefined()
    await rest(400)
    expect((await claimOrder(fresh.store, 'b', 5))?.id).toBe(claimed?.id)
    expect(await renewLease(fresh.store, claimed?.id ?? 0, 'a', 5)).toBe('lost')
    expect(await renewLease(fresh.store, claimed?.id ?? 0, 'b', 5)).toBe('go-on')
    await endOrder(fresh.store, claimed?.id ?? 0, 'a', 'done')
    expect(await renewLease(fresh.store, claimed?.id ?? 0, 'b', 5)).toBe('go-on')
  })

  it('is not claimed a second time by the runner that works on it, although its lease ran out', async () => {
    await sweepOrder()
    const claimed = await claimOrder(fresh.store, 'a', 0.1)
    await rest(200)
    expect(await claimOrder(fresh.store, 'a', 5, [claimed?.id ?? 0])).toBeUndefined()
    // Its claim got lost on the way back: nobody works on it, and it is claimed at once.
    expect((await claimOrder(fresh.store, 'a', 5))?.id).toBe(claimed?.id)
  })

  it('is placed once where the button is pressed twice', async () => {
    const first = await musterOrder()
    expect(await musterOrder()).toBe(first)
    expect(await musterOrder(theseUnits('hall-02'))).toBe(first)
  })

  it('that musters is the only one of its job, however many press at once', async () => {
    const ids = await Promise.all(Array.from({ length: 6 }, () => musterOrder()))
    expect(new Set(ids).size).toBe(1)
    await claimOrder(fresh.store, 'a', 5)
    expect(await musterOrder()).toBe(ids[0])
    await endOrder(fresh.store, ids[0] ?? 0, 'a', 'done')
    const next = await musterOrder(theseUnits('hall-01'))
    expect(next).not.toBe(ids[0])
    await expect(musterOrder(theseUnits('hall-01', 'hall-02'))).rejects.toThrow(MusterOpenError)
    // Also where nobody asks first, the database refuses a second.
    await expect(
      fresh.store.db.insert(orders).values({ jobId, kind: 'muster', units: allUnits, createdAt: new Date() }),
    ).rejects.toMatchObject({
      kind: 'refused',
      code: 'ER_DUP_ENTRY',
    })
  })

  it('that throws is begun again after a pause, three times, and then has failed with its reason', async () => {
    const id = await sweepOrder()
    for (let attempt = 1; attempt <= mostAttempts; attempt += 1) {
      await fresh.store.db.update(orders).set({ notBefore: null })
      expect((await claimOrder(fresh.store, 'a', 5))?.id).toBe(id)
      expect(await orderThrew(fresh.store, id, 'a', `attempt ${attempt} met a wall`)).toBe(
        attempt < mostAttempts ? 'again' : 'failed',
      )
      // Not at once: the next order comes first.
      expect(await claimOrder(fresh.store, 'a', 5)).toBeUndefined()
    }
    expect(await orderState(fresh.store, id)).toMatchObject({ status: 'failed', reason: 'attempt 3 met a wall' })
    expect(await failedOrder(fresh.store, jobId)).toMatchObject({ kind: 'sweep', reason: 'attempt 3 met a wall' })
    await sweepOrder()
    expect(await failedOrder(fresh.store, jobId)).toBeUndefined()
  })

  it('that cannot be read fails by itself, and those behind it are claimed', async () => {
    const broken = await sweepOrder()
    await fresh.store.db.update(orders).set({ units: sql`'["an older form"'` as never })
    const whole = await musterOrder()
    expect((await claimOrder(fresh.store, 'a', 5))?.id).toBe(whole)
    expect(await orderState(fresh.store, broken)).toMatchObject({
      status: 'failed',
      reason: 'row-unreadable {"column":"orders.units","why":{"code":"column-not-json","params":{}}}',
    })
  })
})

it('lists every other job where the brief of one cannot be read', async () => {
  await loadJob(fresh.store, { ...demoJob(), slug: 'harbour', name: 'Harbour' }, new Date())
  await fresh.store.db.execute(sql`update jobs set brief = '{"country":7}' where slug = 'harbour'`)
  const { jobs, broken } = await listJobs(fresh.store)
  expect(jobs.map(({ slug }) => slug)).toEqual(['port-ellery'])
  expect(broken).toEqual([
    expect.objectContaining({
      slug: 'harbour',
      name: 'Harbour',
      told: {
        code: 'row-unreadable',
        params: { column: 'jobs.brief', why: expect.objectContaining({ code: 'at-path' }) },
      },
    }),
  ])
})

it('numbers events without gaps, however many write at once', async () => {
  const texts = Array.from({ length: 20 }, (_, index) => String(index))
  await Promise.all(
    texts.map((text) =>
      appendEvents(fresh.store, jobId, [
        { at: new Date(), event: { kind: 'log', unit: 'hall-01', told: asTold(text) } },
      ]),
    ),
  )
  const events = await allEvents(fresh.store, jobId)
  expect(events.map((event) => event.seq)).toEqual(texts.map((_, index) => index + 1))
  expect(new Set(events.map(({ event }) => (event.kind === 'log' ? sentence(event.told) : '')))).toEqual(new Set(texts))
  expect((await eventsAfter(fresh.store, jobId, 17)).map((event) => event.seq)).toEqual([18, 19, 20])
})

it('writes events once where the answer to the first try was lost, and again where they are others', async () => {
  const batch = ['one', 'two'].map((text) => ({
    at: new Date('2026-11-20T10:00:00.123Z'),
    event: { kind: 'log' as const, unit: 'hall-01', told: asTold(text) },
  }))
  await appendEvents(fresh.store, jobId, batch)
  await appendEvents(fresh.store, jobId, batch, 'perhaps-there')
  await appendEvents(fresh.store, jobId, batch.toReversed(), 'perhaps-there')
  expect(
    (await allEvents(fresh.store, jobId)).map(({ event }) => (event.kind === 'log' ? sentence(event.told) : '')),
  ).toEqual(['one', 'two', 'two', 'one'])
})

it('tells the second of two who change the brief, and keeps the first change', async () => {
  const job = await findJob(fresh.store, 'port-ellery')
  if (!job) throw new Error('no job')
  await saveBrief(fresh.store, job.id, { ...job.brief, site: 'Quay' }, job.version)
  await expect(saveBrief(fresh.store, job.id, { ...job.brief, site: 'Yard' }, job.version)).rejects.toThrow(
    StaleVersionError,
  )
  expect((await findJob(fresh.store, 'port-ellery'))?.brief.site).toBe('Quay')
})

it('keeps one MAC to a job even when nobody checked before', async () => {
  const [unit] = demoJob().units
  if (!unit) throw new Error('no unit')
  await expect(addUnits(fresh.store, jobId, [{ ...unit, id: 'twin', name: 'twin' }])).rejects.toThrow()
})

it('pins the certificate that is seen first, and shows it to whoever comes with another', async () => {
  expect(await pinOnFirstSight(fresh.store, jobId, '02:4f:52:10:6a:2c', 'AA', new Date())).toEqual({
    fingerprint: 'AA',
    first: 'now',
  })
  expect(await pinOnFirstSight(fresh.store, jobId, '02:4f:52:10:6a:2c', 'BB', new Date())).toEqual({
    fingerprint: 'AA',
    first: 'before',
  })
})
