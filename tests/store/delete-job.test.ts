/** Jobs that come whole or not at all, and go with their name typed, leaving their log. */

import { sql } from 'drizzle-orm'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { readJobDocument } from '../../src/core/job/job-document'
import { asTold } from '../../src/core/message/message'
import { allUnits } from '../../src/core/muster/selection'
import { deletedJobs, deleteJob, jobLog } from '../../src/jobs/delete-job'
import { loadJob } from '../../src/jobs/load-job'
import { appendEvents, JobGoneError } from '../../src/store/events'
import { findJob, listJobs } from '../../src/store/jobs'
import type { Store } from '../../src/store/open'
import { claimOrder, endOrder, placeOrder } from '../../src/store/orders'
import { demoJob, freshStore } from '../support/bench'
import { english } from '../support/english'

let fresh: Awaited<ReturnType<typeof freshStore>>
let store: Store
let jobId: number
beforeEach(async () => {
  fresh = await freshStore()
  store = fresh.store
  jobId = await loadJob(store, demoJob(), new Date())
})
afterEach(() => fresh.drop())

const count = async (table: string, id: number): Promise<number> => {
  const [rows] = (await store.db.execute(
    sql.raw(`select count(*) as count from ${table} where job_id = ${id}`),
  )) as unknown as [[{ count: number }]]
  return Number(rows[0].count)
}
const tables = [
  'units',
  'unit_plans',
  'plannings',
  'sites',
  'secrets',
  'orders',
  'floor_drawings',
  'backups',
  'pins',
  'former_passwords',
  'unit_locks',
]

describe('a job file with a doubled MAC, name, id or address', () => {
  it.each([
    [
      'mac',
      (unit: Record<string, unknown>, first: Record<string, unknown>) => ({ ...unit, mac: first.mac }),
      'units.1.mac: hall-02 has the same MAC as hall-01: 02:4f:52:10:6a:2c',
    ],
    [
      'name',
      (unit: Record<string, unknown>, first: Record<string, unknown>) => ({
        ...unit,
        name: String(first.name).toUpperCase(),
      }),
      'units.1.name: HALL-01 has the same name as hall-01: HALL-01',
    ],
    [
      'id',
      (unit: Record<string, unknown>, first: Record<string, unknown>) => ({ ...unit, id: first.id }),
      'units.1.id: hall-02 has the same id as hall-01: hall-01',
    ],
  ])('is refused with the place, before anything is stored: %s', (_what, change, sentence) => {
    const job = demoJob()
    const [first, second, ...others] = job.units
    if (!first || !second) throw new Error('the demo has units')
    const reading = readJobDocument({ ...job, units: [first, change(second, first), ...others] })
    expect(english(reading.ok ? [] : reading.faults)).toEqual([sentence])
  })

  it('leaves nothing behind where the database finds it first', async () => {
    const job = demoJob()
    const twin = { ...job, slug: 'twin', units: job.units.map((unit) => ({ ...unit, mac: '02:4f:52:10:6a:2c' })) }
    await expect(loadJob(store, twin, new Date())).rejects.toMatchObject({ kind: 'refused', code: 'ER_DUP_ENTRY' })
    expect(await findJob(store, 'twin')).toBeUndefined()
    const [rows] = (await store.db.execute(sql`select count(distinct job_id) as count from units`)) as unknown as [
      [{ count: number }],
    ]
    expect(Number(rows[0].count)).toBe(1)
  })
})

describe('deleting a job', () => {
  it('takes its name, leaves its log alone, and lets another job have its place', async () => {
    await appendEvents(store, jobId, [
      { at: new Date('2026-11-20T10:00:00Z'), event: { kind: 'log', unit: 'hall-01', told: asTold('signed in') } },
    ])
    await deleteJob(store, jobId, ' Port Ellery ferry terminal ', new Date('2026-11-21T10:00:00Z'))
    expect((await listJobs(store)).jobs).toEqual([])
    expect(await findJob(store, 'port-ellery')).toBeUndefined()
    for (const table of tables) expect(await count(table, jobId), table).toBe(0)
    expect(await jobLog(store, jobId)).toEqual([
      {
        seq: 1,
        at: new Date('2026-11-20T10:00:00Z'),
        event: { kind: 'log', unit: 'hall-01', told: asTold('signed in') },
      },
    ])
    expect(await deletedJobs(store)).toEqual([
      { id: jobId, name: 'Port Ellery ferry terminal', deletedAt: new Date('2026-11-21T10:00:00Z') },
    ])
    const again = await loadJob(store, demoJob(), new Date())
    expect(await count('units', again)).toBe(4)
  })

  it('refuses another name, and a job that is being mustered', async () => {
    await expect(deleteJob(store, jobId, 'Port Ellery', new Date())).rejects.toThrow('delete-needs-name')
    const order = await placeOrder(store, { jobId, kind: 'muster', units: allUnits })
    await expect(deleteJob(store, jobId, 'Port Ellery ferry terminal', new Date())).rejects.toThrow(
      'delete-during-muster',
    )
    await claimOrder(store, 'a', 5)
    await endOrder(store, order, 'a', 'done')
    await deleteJob(store, jobId, 'Port Ellery ferry terminal', new Date())
    await expect(deleteJob(store, 999, 'x', new Date())).rejects.toThrow('job-no-longer-there')
    await expect(
      appendEvents(store, 999, [{ at: new Date(), event: { kind: 'log', unit: 'x', told: asTold('y') } }]),
    ).rejects.toThrow(JobGoneError)
  })

  it('works where its brief cannot be read any more', async () => {
    await store.db.execute(sql`update jobs set brief = 'nonsense' where id = ${jobId}`)
    await deleteJob(store, jobId, 'Port Ellery ferry terminal', new Date())
    expect((await listJobs(store)).broken).toEqual([])
  })
})
