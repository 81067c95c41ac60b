/** The commands that work on jobs: they need the database, which the start scripts name. */
import { readFileSync } from 'node:fs'
import { parse } from 'yaml'
import { asBuilt, asBuiltCsv } from '../core/handover/as-built'
import { answers } from '../core/muster/roll'
import { rollText, summary } from '../core/muster/roll-text'
import { type JobView, viewJob } from '../store/job-view'
import { listJobs } from '../store/jobs'
import { jobFileSchema, loadJob } from '../store/load-job'
import { migrateStore, openStore, type Store } from '../store/open'
import { musterIsOpen, placeOrder } from '../store/orders'
import { CommandError } from './command-error'
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

export function load(path: string): Promise<string> {
  const parsed = jobFileSchema.safeParse(parse(readFileSync(path, 'utf8')))
  if (!parsed.success) throw new CommandError(2, parsed.error.issues.map((issue) => `${path}: ${issue.path.join('.')}: ${issue.message}`).join('\n'))
  return withStore(async (store) => {
    await loadJob(store, parsed.data, new Date())
    return `${parsed.data.slug} is loaded: ${parsed.data.units.length} units.`
  })
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
        steps: view.roll.rows.get(unit.id)?.steps ?? {},
      })),
    })
  })
}

export function exportSheet(slug: string, { csv }: { csv?: true }): Promise<string> {
  if (!csv) throw new CommandError(2, 'Say in which form: muster export <job> --csv.')
  return withStore(async (store) => {
    const { job, units, plans, roll: called } = await mustView(store, slug)
    return asBuiltCsv(asBuilt(job.brief, units, plans, called)).trimEnd()
  })
}
