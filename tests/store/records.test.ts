/** What a runner keeps, by one contract: MariaDB's records, and those in memory that simulations go by. */

import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { asTold } from '../../src/core/message/message'
import type { MusterEvent } from '../../src/core/muster/events'
import { allUnits, theseUnits } from '../../src/core/muster/selection'
import { deleteJob } from '../../src/jobs/delete-job'
import { loadJob } from '../../src/jobs/load-job'
import type { Records } from '../../src/runner/ports/records'
import { storedRecords } from '../../src/runner/ports/stored-records'
import { JobGoneError, type TimedEvent } from '../../src/store/events'
import { askPause, MusterOpenError } from '../../src/store/orders'
import { openSecrets, sealSecret } from '../../src/store/secrets'
import { sentence } from '../../src/words/en/sentence'
import { MemoryRecords } from '../simulation/records'
import { scenarioOf } from '../simulation/scenario'
import { jobOf, rulesOfCountry } from '../simulation/site'
import { demoJob, freshStore } from '../support/bench'

interface Subject {
  readonly records: Records
  readonly jobId: number
  /** A unit of the job. */
  readonly unit: string
  /** Name of an admin secret of the job, with what it is. */
  readonly secret: { readonly name: string; readonly clear: string }
  askPause(): Promise<void>
  changeSecret(name: string, clear: string): Promise<void>
  deleteJob(): Promise<void>
  end(): Promise<void>
}

async function stored(): Promise<Subject> {
  const { store, drop } = await freshStore()
  const job = demoJob()
  const jobId = await loadJob(store, job, new Date())
  const name = 'admin/password'
  return {
    records: storedRecords(store),
    jobId,
    unit: job.units[0]?.id ?? '',
    secret: { name, clear: (await openSecrets(store, jobId)).get(name) ?? '' },
    askPause: () => askPause(store, jobId),
    changeSecret: (secret, clear) => sealSecret(store, jobId, secret, clear, new Date()),
    deleteJob: () => deleteJob(store, jobId, job.name, new Date()),
    end: drop,
  }
}

async function inMemory(): Promise<Subject> {
  const records = new MemoryRecords(() => Date.now(), rulesOfCountry)
  const job = jobOf(scenarioOf(1).site)
  const name = 'admin/password'
  records.load(1, job)
  return {
    records,
    jobId: 1,
    unit: job.units[0]?.id ?? '',
    secret: { name, clear: job.secrets.get(name) ?? '' },
    askPause: async () => records.askPause(1),
    changeSecret: async (secret, clear) => records.changeSecret(1, secret, clear),
    deleteJob: () => records.deleteJob(1),
    end: async () => undefined,
  }
}

const log = (unit: string, text: string): MusterEvent => ({ kind: 'log', unit, told: asTold(text) })
const timed = (...events: MusterEvent[]): TimedEvent[] => events.map((event) => ({ at: new Date(), event }))
/** Longer than any of these tests takes, and shorter than that, seconds. */
const long = 300
const short = 0.05

describe.each([
  ['in MariaDB', stored],
  ['in memory', inMemory],
])('records %s', (_words, open) => {
  let subject: Subject
  beforeEach(async () => {
    subject = await open()
  })
  afterEach(() => subject.end())
  const muster = (units = allUnits) => subject.records.placeOrder({ jobId: subject.jobId, kind: 'muster', units })

  it('give an order to one runner, and to another when its lease has run out', async () => {
    const { records } = subject
    const id = await muster()
    expect((await records.claimOrder('one', short, []))?.id).toBe(id)
    expect(await records.claimOrder('one', long, [id])).toBeUndefined()
    await expect.poll(async () => (await records.claimOrder('two', long, []))?.id).toBe(id)
    expect(await records.claimOrder('three', long, [])).toBeUndefined()
    expect(await records.renewLease(id, 'one', long)).toBe('lost')
    expect(await records.renewLease(id, 'two', long)).toBe('go-on')
    // Whoever lost it ends nothing.
    await records.endOrder(id, 'one', 'done')
    expect(await records.musterIsOpen(subject.jobId)).toBe(true)
    await records.endOrder(id, 'two', 'done')
    expect(await records.musterIsOpen(subject.jobId)).toBe(false)
    expect(await records.renewLease(id, 'two', long)).toBe('lost')
  })

  it('give a runner its own order again, unless it works on that', async () => {
    const { records } = subject
    const id = await muster()
    await records.claimOrder('one', long, [])
    expect((await records.claimOrder('one', long, []))?.id).toBe(id)
  })

  it('take the same order once, and no muster of other units beside one that is open', async () => {
    const id = await muster(theseUnits(subject.unit))
    expect(await muster(theseUnits(subject.unit))).toBe(id)
    await expect(muster()).rejects.toThrow(MusterOpenError)
  })

  it('tell that a pause is wanted, keep it over a new claim, and take a new order when it is paused', async () => {
    const { records } = subject
    const id = await muster()
    await records.claimOrder('one', short, [])
    await subject.askPause()
    await expect.poll(async () => (await records.claimOrder('two', long, []))?.id).toBe(id)
    expect(await records.renewLease(id, 'two', long)).toBe('pause')
    await records.endOrder(id, 'two', 'paused')
    expect(await records.musterIsOpen(subject.jobId)).toBe(false)
    expect(await muster()).not.toBe(id)
  })

  it('begin an order that throws three times, and for ever where only the wire was away', async () => {
    const { records } = subject
    const id = await muster()
    const again = async (): Promise<void> => {
      await expect.poll(async () => (await records.claimOrder('one', long, []))?.id).toBe(id)
    }
    await again()
    expect(await records.orderThrew(id, 'one', 'why', 'wire-away')).toBe('again')
    expect(await records.claimOrder('one', long, [])).toBeUndefined()
    await again()
    expect(await records.orderThrew(id, 'one', 'why', 'counts')).toBe('again')
    await again()
    expect(await records.orderThrew(id, 'one', 'why', 'counts')).toBe('again')
    await again()
    expect(await records.orderThrew(id, 'one', 'why', 'counts')).toBe('failed')
    expect(await records.musterIsOpen(subject.jobId)).toBe(false)
  })

  it('keep events in their order without gaps, and once where the answer was lost', async () => {
    const { records, jobId, unit } = subject
    const { seq } = await records.rollOf(jobId)
    const [first, second] = [timed(log(unit, 'one'), log(unit, 'two')), timed(log(unit, 'three'))]
    await records.appendEvents(jobId, first, 'new')
    await records.appendEvents(jobId, first, 'perhaps-there')
    await records.appendEvents(jobId, second, 'perhaps-there')
    const roll = await records.rollOf(jobId)
    expect(roll.seq).toBe(seq + 3)
    expect(roll.rows.get(unit)?.log.map(sentence)).toEqual(['one', 'two', 'three'])
    expect((await records.rollOf(jobId, roll)).seq).toBe(roll.seq)
  })

  it('know what is asked, and what has changed since a unit was proven', async () => {
    const { records, jobId, unit } = subject
    const job = await records.job(jobId)
    expect(job?.units.map(({ id }) => id)).toContain(unit)
    expect(job?.plans.get(unit)?.address).toMatch(/^10\./)
    expect(job?.country?.country).toBe(job?.brief.country)
    const bench = await records.bench(jobId)
    expect(bench?.plans.find((plan) => plan.unit === unit)).toEqual(job?.plans.get(unit))
    expect(bench?.cards.get(bench.units[0]?.model ?? '')).toBeDefined()
  })

  it('open secrets, and admin passwords that were replaced, the newest first', async () => {
    const { records, jobId, secret } = subject
    const before = await records.secrets(jobId)
    expect(before.secrets.get(secret.name)).toBe(secret.clear)
    await subject.changeSecret(secret.name, 'Another-password-1')
    await subject.changeSecret(secret.name, 'Another-password-2')
    const { secrets, times, former } = await records.secrets(jobId)
    expect(secrets.get(secret.name)).toBe('Another-password-2')
    expect(Date.parse(times.get(secret.name) ?? '')).toBeGreaterThanOrEqual(
      Date.parse(before.times.get(secret.name) ?? ''),
    )
    expect(former.map(({ clear }) => clear)).toEqual(['Another-password-1', secret.clear])
    expect(former[1]?.changedAt).toBe(before.times.get(secret.name))
  })

  it('pin what a unit shows first, and keep the first copy as found and the newest as left', async () => {
    const { records, jobId } = subject
    const [mac, at] = ['02:00:00:00:00:01', new Date()]
    expect(await records.pinOnFirstSight(jobId, mac, 'aa', at)).toEqual({ fingerprint: 'aa', first: 'now' })
    expect(await records.pinOnFirstSight(jobId, mac, 'bb', at)).toEqual({ fingerprint: 'aa', first: 'before' })
    expect(await records.hasBackup(jobId, mac, 'as-found')).toBe(false)
    await records.keepBackup(jobId, mac, 'as-found', 'found', at)
    await records.keepBackup(jobId, mac, 'as-found', 'later', at)
    expect(await records.hasBackup(jobId, mac, 'as-found')).toBe(true)
    expect(await records.hasBackup(jobId, mac, 'as-left')).toBe(false)
    expect(await records.backup(jobId, mac, 'as-found')).toBe('found')
    expect(await records.backup(jobId, mac, 'from-pages')).toBeUndefined()
    for (const text of ['first', 'second']) await records.keepBackup(jobId, mac, 'from-pages', text, at)
    expect(await records.backup(jobId, mac, 'from-pages')).toBe('second')
  })

  it('let go of a job that is deleted, with all that hangs on it', async () => {
    const { records, jobId, unit } = subject
    const order = await muster()
    await records.claimOrder('one', long, [])
    await expect(subject.deleteJob()).rejects.toThrow('muster')
    await records.endOrder(order, 'one', 'paused')
    await subject.deleteJob()
    expect(await records.renewLease(order, 'one', long)).toBe('lost')
    // What a runner tells late is kept with the rest; of a job that never was, nothing is.
    await records.appendEvents(jobId, timed(log(unit, 'late')), 'new')
    await expect(records.appendEvents(999_999, timed(log(unit, 'late')), 'new')).rejects.toThrow(JobGoneError)
    expect(await records.job(jobId)).toBeUndefined()
    expect(await records.bench(jobId)).toBeUndefined()
    expect(await records.claimOrder('two', long, [])).toBeUndefined()
  })
})
