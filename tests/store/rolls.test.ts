import { sql } from 'drizzle-orm'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { asTold } from '../../src/core/message/message'
import type { MusterEvent } from '../../src/core/muster/events'
import { foldRoll } from '../../src/core/muster/roll'
import { loadJob } from '../../src/jobs/load-job'
import { allEvents, appendEvents } from '../../src/store/events'
import { rollOf } from '../../src/store/rolls'
import { demoJob, freshStore } from '../support/bench'

let fresh: Awaited<ReturnType<typeof freshStore>>
let jobId: number
beforeEach(async () => {
  fresh = await freshStore()
  jobId = await loadJob(fresh.store, demoJob(), new Date())
})
afterEach(() => fresh.drop())

const tell = (count: number, from = 0) =>
  appendEvents(
    fresh.store,
    jobId,
    Array.from({ length: count }, (_, index) => {
      const unit = index % 2 === 0 ? 'hall-01' : 'hall-02'
      const told = asTold(`line ${from + index}`)
      const event: MusterEvent =
        index % 10 === 0
          ? { kind: 'step', unit, step: 'reach', state: { kind: 'done', note: told } }
          : { kind: 'log', unit, told }
      return { at: new Date(1_000_000 + index), event }
    }),
  )
const snapshots = async (): Promise<{ seq: number }[]> =>
  ((await fresh.store.db.execute(sql`select seq from rolls`)) as unknown as [{ seq: number }[]])[0]

it('is the same from a snapshot as from all of its history', async () => {
  await tell(700)
  const first = await rollOf(fresh.store, jobId)
  expect(await snapshots()).toEqual([{ seq: 700 }])
  await tell(600, 700)
  // The next snapshot takes the place of the first, as a whole.
  await rollOf(fresh.store, jobId)
  expect(await snapshots()).toEqual([{ seq: 1300 }])
  await tell(30, 1300)
  const second = await rollOf(fresh.store, jobId)
  expect(second).toEqual(foldRoll(await allEvents(fresh.store, jobId)))
  expect(second.seq).toBe(1330)
  expect(first.rows.get('hall-01')?.log).toHaveLength(200)
  // A few more events are no reason to keep another.
  expect(await snapshots()).toEqual([{ seq: 1300 }])
})

it('goes by the events where the snapshot is damaged, or of another program', async () => {
  await tell(600)
  const whole = await rollOf(fresh.store, jobId)
  await fresh.store.db.execute(sql`update rolls set roll = '{"rows":[['`)
  expect(await rollOf(fresh.store, jobId)).toEqual(whole)
  await fresh.store.db.execute(sql`update rolls set form = 0, roll = '{"rows":[]}'`)
  expect(await rollOf(fresh.store, jobId)).toEqual(whole)
})

it('never puts an older snapshot in the place of a newer one', async () => {
  await tell(600)
  await rollOf(fresh.store, jobId)
  await fresh.store.db.execute(sql`update rolls set seq = 900`)
  await tell(700, 600)
  // Somebody who began long ago, and ends after the other.
  await rollOf(fresh.store, jobId, foldRoll([]))
  expect((await snapshots())[0]?.seq).toBe(1300)
  await fresh.store.db.execute(sql`update rolls set seq = 5000, roll = 'the newer'`)
  await rollOf(fresh.store, jobId, foldRoll([]))
  expect(await snapshots()).toEqual([{ seq: 5000 }])
})
