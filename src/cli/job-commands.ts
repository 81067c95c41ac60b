/** The commands that work on jobs: they need the database, which the start scripts name. */
import { parse } from 'yaml'
import { asBuilt, asBuiltCsv } from '../core/handover/as-built'
import { type JobDocument, readJobDocument } from '../core/job/job-document'
import { answers } from '../core/muster/roll'
import { rollText, summary } from '../core/muster/roll-text'
import { exportJob } from '../store/export-job'
import { type JobView, viewJob } from '../store/job-view'
import { listJobs } from '../store/jobs'
import { JobExistsError, loadJob } from '../store/load-job'
import { migrateStore, openStore, type Store } from '../store/open'
import { musterIsOpen, placeOrder } from '../store/orders'
import { CommandError, readText } from './command-error'
import { installation } from './installation'

/** Opens the store of the installation that runs, and closes it again. */
async function withStore<T>(use: (store: Store) => Promise<T>): Promise<T> {
  const store = openStore(installation())
  try {
    await migrateStore(store)
    return await use(store)
  } finally {
    await store.close()
  }
}

async function mustView(store: Store, slug: string): Promise<JobView> {
  const view = await viewJob(store, slug)
  if (view) return view
  const slugs = (await listJobs(store)).map((job) => job.slug)
  throw new CommandError(2, `There is no job "${slug}". ${slugs.length === 0 ? 'There are none yet.' : `There are: ${slugs.join(', ')}.`}`)
}

const addresses = (view: JobView): Map<string, string> => new Map([...view.plans].map(([unit, plan]) => [unit, plan.address]))

export function jobs(): Promise<string> {
  return withStore(async (store) => {
    const views = await Promise.all((await listJobs(store)).map((job) => mustView(store, job.slug)))
    return views.length === 0 ? 'There are no jobs yet.' : views.map(({ job, units, roll }) => `${job.slug}  ${job.name}, ${summary(units, roll)}`).join('\n')
  })
}

/** Loads jobs. Every file is read before the first is loaded: a fault in one loads none. */
export function load(paths: readonly string[]): Promise<string> {
  const documents = paths.map(documentOf)
  return withStore(async (store) => {
    const lines: string[] = []
    for (const document of documents) {
      try {
        await loadJob(store, document, new Date())
      } catch (error) {
        if (error instanceof JobExistsError) throw new CommandError(2, error.message)
        throw error
      }
      lines.push(`${document.slug} is loaded: ${document.units.length} units.`)
    }
    return lines.join('\n')
  })
}

function documentOf(path: string): JobDocument {
  const reading = readJobDocument(parse(readText(path)))
  if (!reading.ok) throw new CommandError(2, reading.faults.map((fault) => `${path}: ${fault}`).join('\n'))
  if (reading.document.secrets) throw new CommandError(2, `${path} brings sealed secrets: take it in on the Jobs page, where its passphrase can be typed.`)
  return reading.document
}

export function sweepBench(slug: string): Promise<string> {
  return withStore(async (store) => {
    const { job } = await mustView(store, slug)
    await placeOrder(store, { jobId: job.id, kind: 'sweep', units: [] })
    return 'The bench is being swept.'
  })
}

/** @returns the roll; with `wait` once the muster is over, and fails with exit code 1 where not every unit answers */
export function run(slug: string, { wait, units }: { wait?: true; units?: string[] }): Promise<string> {
  return withStore(async (store) => {
    const { job } = await mustView(store, slug)
    await placeOrder(store, { jobId: job.id, kind: 'muster', units: units ?? [] })
    if (!wait) return 'The muster begins.'
    // The first order may be followed by one that a runner places when somebody's hands have helped.
    while (await musterIsOpen(store, job.id)) await new Promise((resolve) => setTimeout(resolve, 200))
    const view = await mustView(store, slug)
    const text = rollText(view.units, view.roll, addresses(view))
    if (!view.units.every((unit) => answers(view.roll.rows.get(unit.id)))) throw new CommandError(1, text)
    return text
  })
}

export function roll(slug: string, { json }: { json?: true }): Promise<string> {
  return withStore(async (store) => {
    const view = await mustView(store, slug)
    if (!json) return rollText(view.units, view.roll, addresses(view))
    return JSON.stringify({
      job: view.job.slug,
      muster: view.roll.muster,
      units: view.units.map((unit) => ({
        unit: unit.name,
        mac: unit.mac,
        address: view.plans.get(unit.id)?.address ?? null,
        answers: answers(view.roll.rows.get(unit.id)),
        changedSince: view.roll.rows.get(unit.id)?.changes ?? [],
        steps: view.roll.rows.get(unit.id)?.steps ?? {},
      })),
    })
  })
}

export function exportSheet(slug: string, { csv, job: whole }: { csv?: true; job?: true }): Promise<string> {
  if (!csv && !whole) throw new CommandError(2, 'Say in which form: muster export <job> --csv, or --job for the whole job without its secrets.')
  if (whole) return withStore(async (store) => JSON.stringify(await exportJob(store, (await mustView(store, slug)).job, undefined), null, 2))
  return withStore(async (store) => {
    const { job, units, plans, roll: called } = await mustView(store, slug)
    return asBuiltCsv(asBuilt(job.brief, units, plans, called)).trimEnd()
  })
}
