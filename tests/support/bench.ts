/** A bench for tests: a fresh database, a lab with stand-ins, and a job for them. */
import { randomBytes } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createConnection } from 'mysql2/promise'
import { inject } from 'vitest'
import { parse } from 'yaml'
import { type JobDocument, jobDocumentSchema } from '../../src/core/job/job-document'
import type { PlacedEvent } from '../../src/core/muster/events'
import { heldFacts } from '../../src/core/muster/held'
import type { Step } from '../../src/core/muster/procedure'
import type { Roll, RollRow } from '../../src/core/muster/roll'
import { allUnits, theseUnits } from '../../src/core/muster/selection'
import { viewJob } from '../../src/jobs/job-view'
import { loadJob } from '../../src/jobs/load-job'
import { serveControl } from '../../src/lab/control-server'
import { sheets } from '../../src/lab/device/sheet'
import { Lab, type LabOptions } from '../../src/lab/lab'
import type { AwakeClock } from '../../src/runner/ports/awake-clock'
import { storedRecords } from '../../src/runner/ports/stored-records'
import { Runner } from '../../src/runner/runner'
import { eventsAfter } from '../../src/store/events'
import { findJob, type Job } from '../../src/store/jobs'
import { migrateStore } from '../../src/store/migrate'
import { openStore, type Store } from '../../src/store/open'
import { musterIsOpen, placeOrder } from '../../src/store/orders'
import { loadRegulatory } from '../../src/store/regulatory-file'
import type { Host } from '../../src/wire/host/host'
import { labHost } from '../../src/wire/host/lab'
import { wireSessions } from '../../src/wire/wire-sessions'
import { heldWords } from '../../src/words/en/held'
import type { HeldWords } from '../../src/words/en/held-parts'
import { patienceMs } from './patience'

const root = join(import.meta.dirname, '../..')

/** A database of its own with the demo's first job. */
export async function freshDemoJob(): Promise<Awaited<ReturnType<typeof freshStore>> & { job: Job }> {
  const fresh = await freshStore()
  await loadJob(fresh.store, demoJob(), new Date())
  const job = await findJob(fresh.store, 'port-ellery')
  if (!job) throw new Error('the job is gone')
  return { ...fresh, job }
}

/** @param server  where the database is made; the one of all tests where it is left out */
export async function freshStore(
  server = inject('databaseUrl'),
): Promise<{ store: Store; url: string; vaultKeyFile: string; database: string; drop: () => Promise<void> }> {
  const database = `air_muster_${randomBytes(5).toString('hex')}`
  const admin = await createConnection({ uri: server.replace('mariadb:', 'mysql:'), multipleStatements: true })
  await admin.query(`create database ${database} character set utf8mb4 collate utf8mb4_unicode_ci`)
  const isShared = server === inject('databaseUrl')
  if (isShared) await admin.query(`use ${database}; ${inject('emptyTables')}`)
  await admin.end()
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-vault-'))
  const url = server.replace(/air_muster$/, database)
  const vaultKeyFile = join(folder, 'vault.key')
  const store = openStore({ url, vaultKeyFile })
  if (!isShared) await migrateStore(store, join(root, 'src/store/migrations'))
  const drop = async (): Promise<void> => {
    await store.close()
    const again = await createConnection({ uri: server.replace('mariadb:', 'mysql:') })
    await again.query(`drop database ${database}`)
    await again.end()
    rmSync(folder, { recursive: true, force: true })
  }
  return { store, url, vaultKeyFile, database, drop }
}

export function demoJob(change: (job: JobDocument) => void = () => {}): JobDocument {
  const job = jobDocumentSchema.parse(parse(readFileSync(join(root, 'data/demo/port-ellery.yaml'), 'utf8')))
  change(job)
  return job
}

export interface Bench {
  readonly store: Store
  readonly lab: Lab
  readonly jobId: number
  readonly job: JobDocument
  readonly database: string
  /** Environment for a runner in a process of its own. */
  readonly env: Record<string, string>
  roll(): Promise<Roll>
  /** All events so far: asked again, it reads only what is new, and may be asked often. */
  events(): Promise<readonly PlacedEvent[]>
  /** Starts a runner in this process; returns the way to stop it. */
  startRunner(options?: {
    clock?: AwakeClock
    host?: (host: Host) => Host
    /** The wire's seconds between two sweeps that nobody asked for. */
    sweepEverySeconds?: number
    /** Given the runner, for what it does beside its orders. */
    given?: (runner: Runner) => void
  }): () => Promise<void>
  order(units?: string[]): Promise<number>
  /** Waits until no muster is open. */
  settled(): Promise<Roll>
  close(): Promise<void>
}

export interface BenchOptions {
  readonly pace?: number
  readonly change?: (job: JobDocument) => void
  /** URL of a database server of its own. */
  readonly server?: string
  /** Model of every stand-in, where it is not that of the kit list. */
  readonly shelf?: string
  /** What the stand-ins have on air out of their boxes. */
  readonly ships?: 'silent' | 'open'
  /** More of the lab: its DHCP server, its time servers, made-up variants. */
  readonly lab?: Partial<LabOptions>
}

export async function openBench({
  pace = 300,
  change,
  server,
  shelf,
  ships,
  lab: more,
}: BenchOptions = {}): Promise<Bench> {
  const { store, url, vaultKeyFile, database, drop } = await freshStore(server)
  const job = demoJob(change)
  const jobId = await loadJob(store, job, new Date())
  const lab = await Lab.open({
    pace,
    regulatory: loadRegulatory(),
    // What has no stand-in lies boxed elsewhere.
    shelf: job.units
      .map(({ model, mac, serial }) => ({ model: shelf ?? model, mac, serial, ships }))
      .filter(({ model }) => sheets.has(model) || more?.variants?.has(model)),
    ...more,
  })
  lab.plugInAll()
  const token = randomBytes(12).toString('hex')
  const control = await serveControl(lab, token)
  const labUrl = `http://127.0.0.1:${control.port}`
  const stops = new Set<() => Promise<void>>()
  const known: PlacedEvent[] = []
  const roll = async (): Promise<Roll> => {
    const view = await viewJob(store, job.slug)
    if (!view) throw new Error('the job is gone')
    return view.roll
  }
  const events = async (): Promise<readonly PlacedEvent[]> => {
    for (;;) {
      const more = await eventsAfter(store, jobId, known.at(-1)?.seq ?? 0)
      if (more.length === 0) return known
      known.push(...more)
    }
  }
  return {
    store,
    lab,
    jobId,
    job,
    database,
    env: {
      AIR_MUSTER_ROOT: root,
      AIR_MUSTER_DB: url,
      AIR_MUSTER_VAULT_FILE: vaultKeyFile,
      AIR_MUSTER_LAB_URL: labUrl,
      AIR_MUSTER_LAB_TOKEN: token,
    },
    roll,
    events,
    startRunner: ({ clock, host = (own: Host) => own, sweepEverySeconds = 10, given } = {}) => {
      const ending = new AbortController()
      const faults: object[] = []
      const runner = new Runner({
        id: `test-${randomBytes(4).toString('hex')}`,
        records: storedRecords(store),
        host: host(labHost({ url: labUrl, token })),
        sessions: wireSessions,
        sweepEverySeconds,
        ...(clock ? { clock } : {}),
        log: { info: () => {}, error: (fields, text) => faults.push({ text, ...fields }) },
      })
      given?.(runner)
      const running = runner.run(ending.signal)
      const stop = async (): Promise<void> => {
        stops.delete(stop)
        ending.abort()
        await running
        if (faults.length > 0) throw new Error(`the runner complained: ${JSON.stringify(faults)}`)
      }
      stops.add(stop)
      return stop
    },
    order: (units = []) => {
      return placeOrder(store, { jobId, kind: 'muster', units: units.length === 0 ? allUnits : theseUnits(...units) })
    },
    settled: async () => {
      let [seq, movedAt] = [0, performance.now()]
      while (await musterIsOpen(store, jobId)) {
        const now = (await events()).length
        if (now !== seq) [seq, movedAt] = [now, performance.now()]
        if (performance.now() - movedAt > patienceMs)
          throw new Error(`the muster does not end, and nothing is told any more: ${JSON.stringify(known.at(-1))}`)
        await new Promise((resolve) => setTimeout(resolve, 50))
      }
      return roll()
    },
    close: async () => {
      for (const stop of [...stops]) await stop()
      await control.close()
      await lab.close()
      await drop()
    },
  }
}

/** Why a unit is held at a step, in words; undefined where it is not held there. */
export function heldAt(
  row: RollRow | undefined,
  step: Step,
): (HeldWords & ReturnType<typeof heldFacts> & { readonly code: string }) | undefined {
  const state = row?.steps[step]
  return state?.kind === 'held' ? { ...heldWords(state), ...heldFacts(state), code: state.code } : undefined
}
