/** A database that goes away, is in the way, or refuses: against a server of its own, that is killed. */

import { rmSync } from 'node:fs'
import { eq, sql } from 'drizzle-orm'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { startMariadb } from '../../scripts/lib/mariadb.mjs'
import { asTold } from '../../src/core/message/message'
import { answers } from '../../src/core/muster/roll'
import { loadJob } from '../../src/jobs/load-job'
import { allEvents, appendEvents } from '../../src/store/events'
import { StoreError, storeErrorOf } from '../../src/store/faults'
import { findJob } from '../../src/store/jobs'
import { databaseAnswers, openStore } from '../../src/store/open'
import { jobs, units } from '../../src/store/schema'
import { sealSecret } from '../../src/store/secrets'
import { sentence } from '../../src/words/en/sentence'
import { demoJob, freshStore, openBench } from '../support/bench'
import { passingFolder } from '../support/passing-folder'
import { patienceMs } from '../support/patience'

interface Child {
  kill(signal: string): void
  stop(patienceMs?: number): Promise<void>
}
interface Server {
  readonly urlOf: (database: string) => string
  kill(signal: string): void
  startAgain(): Promise<Child>
  stop(): Promise<void>
}

let folder: string
let server: Server
/** The server, once it was started again after a kill. */
let again: Child | undefined
beforeAll(async () => {
  folder = passingFolder('air-muster-lasting-')
  server = await startMariadb(folder)
})
afterAll(async () => {
  await again?.stop(20_000)
  await server.stop()
  rmSync(folder, { recursive: true, force: true })
})

const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
let dead = false
/** Away for so long, ms, without a word. */
async function away(ms: number): Promise<void> {
  ;(again ?? server).kill('SIGKILL')
  dead = true
  await rest(ms)
  again = await server.startAgain()
  dead = false
}

describe('a database that is away for three seconds', () => {
  let fresh: Awaited<ReturnType<typeof freshStore>>
  let jobId: number
  beforeEach(async () => {
    fresh = await freshStore(server.urlOf('air_muster'))
    jobId = await loadJob(fresh.store, demoJob(), new Date())
  })
  afterEach(() => fresh.drop())

  it('answers what it was asked meanwhile when it is back: readings, changes and transactions', async () => {
    // As patient as the server takes to start again.
    const store = openStore({ url: fresh.url, vaultKeyFile: fresh.vaultKeyFile, patienceMs })
    const gone = away(3000)
    await expect.poll(() => dead).toBe(true)
    const asked = Promise.all([
      findJob(store, 'port-ellery'),
      store.db.update(units).set({ location: 'quay' }).where(eq(units.id, 'hall-01')),
      appendEvents(store, jobId, [
        { at: new Date(), event: { kind: 'log', unit: 'hall-01', told: asTold('said while it was away') } },
      ]),
      sealSecret(store, jobId, 'admin/password', 'another-Strong-1', new Date()),
    ])
    expect(await databaseAnswers(fresh.store, 500)).toBe(false)
    await gone
    const [job] = await asked
    await store.close()
    expect(job?.name).toBe('Port Ellery ferry terminal')
    expect(
      (await allEvents(fresh.store, jobId)).map(({ event }) => (event.kind === 'log' ? sentence(event.told) : '')),
    ).toEqual(['said while it was away'])
    expect(await databaseAnswers(fresh.store)).toBe(true)
  })

  it('is given up after the patience of whoever asks, in words without a value of the statement', async () => {
    const hasty = openStore({
      url: fresh.url.replace(/:\d+\//, ':1/'),
      vaultKeyFile: fresh.vaultKeyFile,
      patienceMs: 200,
    })
    const fault = await hasty.db
      .update(jobs)
      .set({ name: 'a name that no log may show' })
      .where(eq(jobs.slug, 'port-ellery'))
      .catch((error: unknown) => error)
    await hasty.close()
    expect(fault).toBeInstanceOf(StoreError)
    expect(fault).toMatchObject({ kind: 'away', code: 'ECONNREFUSED' })
    expect(JSON.stringify([String(fault), (fault as Error).stack, (fault as Error).cause])).not.toContain(
      'no log may show',
    )
  })
})

it('musters on through an outage in the middle, and loses and doubles no event', async () => {
  const bench = await openBench({ pace: 30, server: server.urlOf('air_muster') })
  try {
    const stop = bench.startRunner()
    await bench.order()
    await expect.poll(async () => [...(await bench.roll()).rows.values()].some((row) => row.steps.networks)).toBe(true)
    await away(2000)
    const roll = await bench.settled()
    expect(bench.job.units.filter((unit) => answers(roll.rows.get(unit.id)))).toHaveLength(4)
    const events = await allEvents(bench.store, bench.jobId)
    expect(events.map(({ seq }) => seq)).toEqual(events.map((_, index) => index + 1))
    // A unit that was silent for long is read anew, and may be sent through a door again: later, and told as such.
    const doors = events.flatMap(({ at, event }) => (event.kind === 'door' ? [`${at} ${JSON.stringify(event)}`] : []))
    expect(doors.length).toBeGreaterThan(0)
    expect(new Set(doors).size).toBe(doors.length)
    await stop().catch(() => undefined)
  } finally {
    await bench.close()
  }
})

describe('transactions that are in each other’s way', () => {
  it('are both carried out, although the database ends one of them to free the other', async () => {
    const fresh = await freshStore(server.urlOf('air_muster'))
    try {
      const jobId = await loadJob(fresh.store, demoJob(), new Date())
      let first = 0
      let second = 0
      const moved = (id: string, text: string) =>
        sql`update ${units} set location = ${text} where job_id = ${jobId} and id = ${id}`
      const turn = async (count: () => void, a: string, b: string, text: string) =>
        fresh.store.db.transaction(async (transaction) => {
          count()
          await transaction.execute(moved(a, text))
          await rest(300)
          await transaction.execute(moved(b, text))
        })
      await Promise.all([
        turn(() => (first += 1), 'hall-01', 'hall-02', 'one'),
        turn(() => (second += 1), 'hall-02', 'hall-01', 'two'),
      ])
      // One of them was taken back as the victim of a deadlock, and done again.
      expect(first + second).toBeGreaterThan(2)
      const locations = await fresh.store.db
        .select({ id: units.id, location: units.location })
        .from(units)
        .where(eq(units.jobId, jobId))
      expect(
        new Set(locations.filter(({ id }) => ['hall-01', 'hall-02'].includes(id)).map(({ location }) => location)).size,
      ).toBe(1)
    } finally {
      await fresh.drop()
    }
  })

  it('say what the driver said in sentences of ours, whatever it was', () => {
    const driver = (code: string, errno: number) =>
      Object.assign(new Error('insert into secrets values (x)'), { code, errno })
    expect([1205, 1213, 1020].map((errno) => storeErrorOf(driver('ER_X', errno))?.kind)).toEqual([
      'contended',
      'contended',
      'contended',
    ])
    expect([1021, 1114].map((errno) => storeErrorOf(driver('ER_X', errno))?.kind)).toEqual(['full', 'full'])
    expect(storeErrorOf(new Error('wrapped', { cause: driver('ER_DUP_ENTRY', 1062) }))).toMatchObject({
      kind: 'refused',
      told: { code: 'database-refused', params: { code: 'ER_DUP_ENTRY', statement: null } },
    })
    expect(storeErrorOf(new TypeError('no database in sight'))).toBeUndefined()
  })
})
