import { afterEach, beforeEach, expect, it } from 'vitest'
import { allEvents, appendEvents, eventsAfter } from '../../src/store/events'
import { findJob, StaleVersionError, saveBrief } from '../../src/store/jobs'
import { addUnits } from '../../src/store/kit'
import { loadJob } from '../../src/store/load-job'
import { claimOrder, endOrder, placeOrder, renewLease } from '../../src/store/orders'
import { pinnedFingerprint } from '../../src/store/secrets'
import { demoJob, freshStore } from '../support/bench'

let fresh: Awaited<ReturnType<typeof freshStore>>
let jobId: number
beforeEach(async () => {
  fresh = await freshStore()
  jobId = await loadJob(fresh.store, demoJob(), new Date())
})
afterEach(() => fresh.drop())

it('is claimed by one runner alone, however many ask at once', async () => {
  await placeOrder(fresh.store, { jobId, kind: 'sweep', units: [] })
  const claims = await Promise.all(['a', 'b', 'c', 'd'].map((owner) => claimOrder(fresh.store, owner, 5)))
  expect(claims.filter((claim) => claim !== undefined)).toHaveLength(1)
})

it('goes to another runner once its lease has run out, and the first is told', async () => {
  await placeOrder(fresh.store, { jobId, kind: 'muster', units: ['hall-01'] })
  const claimed = await claimOrder(fresh.store, 'a', 0.3)
  expect(claimed?.units).toEqual(['hall-01'])
  expect(await claimOrder(fresh.store, 'b', 5)).toBeUndefined()
  await new Promise((resolve) => setTimeout(resolve, 400))
  expect((await claimOrder(fresh.store, 'b', 5))?.id).toBe(claimed?.id)
  expect(await renewLease(fresh.store, claimed?.id ?? 0, 'a', 5)).toBe('lost')
  expect(await renewLease(fresh.store, claimed?.id ?? 0, 'b', 5)).toBe('go-on')
  await endOrder(fresh.store, claimed?.id ?? 0, 'a', 'done')
  expect(await renewLease(fresh.store, claimed?.id ?? 0, 'b', 5)).toBe('go-on')
})

it('is placed once where the button is pressed twice', async () => {
  const first = await placeOrder(fresh.store, { jobId, kind: 'muster', units: [] })
  expect(await placeOrder(fresh.store, { jobId, kind: 'muster', units: [] })).toBe(first)
})

it('numbers events without gaps, however many write at once', async () => {
  const texts = Array.from({ length: 20 }, (_, index) => String(index))
  await Promise.all(texts.map((text) => appendEvents(fresh.store, jobId, [{ at: new Date(), event: { kind: 'log', unit: 'hall-01', text } }])))
  const events = await allEvents(fresh.store, jobId)
  expect(events.map((event) => event.seq)).toEqual(texts.map((_, index) => index + 1))
  expect(new Set(events.map(({ event }) => (event.kind === 'log' ? event.text : '')))).toEqual(new Set(texts))
  expect((await eventsAfter(fresh.store, jobId, 17)).map((event) => event.seq)).toEqual([18, 19, 20])
})

it('tells the second of two who change the brief, and keeps the first change', async () => {
  const job = await findJob(fresh.store, 'port-ellery')
  if (!job) throw new Error('no job')
  await saveBrief(fresh.store, job.id, { ...job.brief, site: 'Quay' }, job.version)
  await expect(saveBrief(fresh.store, job.id, { ...job.brief, site: 'Yard' }, job.version)).rejects.toThrow(StaleVersionError)
  expect((await findJob(fresh.store, 'port-ellery'))?.brief.site).toBe('Quay')
})

it('keeps one MAC to a job even when nobody checked before', async () => {
  const [unit] = demoJob().units
  if (!unit) throw new Error('no unit')
  await expect(addUnits(fresh.store, jobId, [{ ...unit, id: 'twin', name: 'twin' }])).rejects.toThrow()
})

it('pins the certificate that is seen first, and shows it to whoever comes with another', async () => {
  expect(await pinnedFingerprint(fresh.store, jobId, '02:4f:52:10:6a:2c', 'AA', new Date())).toEqual({ fingerprint: 'AA', first: 'now' })
  expect(await pinnedFingerprint(fresh.store, jobId, '02:4f:52:10:6a:2c', 'BB', new Date())).toEqual({ fingerprint: 'AA', first: 'before' })
})
