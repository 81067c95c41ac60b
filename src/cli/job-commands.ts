/** The commands that work on jobs: they need the database, which the start scripts name. */

import { slugSchema } from '../core/job/job-document'
import type { Unit } from '../core/kit/unit'
import { called } from '../core/muster/called'
import { answers } from '../core/muster/roll'
import { allUnits, isSelected, type Selection, theseUnits } from '../core/muster/selection'
import { deletedJobs, deleteJob, jobLog, NotDeletedError } from '../jobs/delete-job'
import { exportJob } from '../jobs/export-job'
import { fromCommandLine, namedJobs, type Store } from '../jobs/installation'
import { jobLines } from '../jobs/job-lines'
import { type JobView, sheetOf, viewJob } from '../jobs/job-view'
import { JobExistsError, loadJob } from '../jobs/load-job'
import { runnerSilentMs } from '../jobs/news'
import {
  lendAddresses,
  lendingSchema,
  MusterOpenError,
  musterIsOpen,
  orderMuster,
  orderState,
  orderSweep,
} from '../jobs/order'
import { asBuiltCsv, forPrograms } from '../words/en/as-built'
import { lendingSaid } from '../words/en/lending'
import type { OfUnit } from '../words/en/next-move'
import { outcomesCsv } from '../words/en/outcomes-csv'
import { courseWords, rollText } from '../words/en/roll-text'
import { sentence, sentenceOfText } from '../words/en/sentence'
import { CommandError } from './command-error'
import { documentOf } from './job-file'
import { withStore } from './with-store'

/** @throws CommandError 2 naming the jobs that there are */
export async function mustView(store: Store, slug: string): Promise<JobView> {
  const view = slugSchema.safeParse(slug).success ? await viewJob(store, slug) : undefined
  if (view) return view
  const slugs = (await namedJobs(store)).map((job) => job.slug)
  throw new CommandError(
    2,
    `There is no job "${slug}". ${slugs.length === 0 ? 'There are none yet.' : `There are: ${slugs.join(', ')}.`}`,
  )
}

const ofUnits =
  ({ plans, cards }: JobView) =>
  ({ id, model }: Unit): OfUnit => ({ address: plans.get(id)?.address, card: cards.get(model), now: Date.now() })

/** @param deleted  those that were deleted, whose log alone is left */
export function jobs({ deleted }: { deleted?: true } = {}): Promise<string> {
  return withStore(async (store) => {
    if (deleted) {
      const gone = await deletedJobs(store)
      return gone.length === 0
        ? 'No job was deleted.'
        : gone.map(({ id, name, deletedAt }) => `${id}  ${name}, deleted ${deletedAt.toISOString()}`).join('\n')
    }
    const lines = (await jobLines(store)).map(({ slug, name, course, fault }) =>
      course ? `${slug}  ${name}, ${courseWords(course)}` : `${slug}  ${name}: ${fault ? sentence(fault) : ''}`,
    )
    return lines.length === 0 ? 'There are no jobs yet.' : lines.sort().join('\n')
  })
}

/** Deletes a job whose name is given as it stands. */
export function remove(slug: string, { name }: { name: string }): Promise<string> {
  return withStore(async (store) => {
    const job = (await namedJobs(store)).find((each) => each.slug === slug)
    if (!job) throw new CommandError(2, `There is no job "${slug}".`)
    try {
      await deleteJob(store, job.id, name, new Date())
    } catch (error) {
      if (error instanceof NotDeletedError) throw new CommandError(2, sentence(error.told))
      throw error
    }
    return `${job.name} is deleted. Its log is kept: muster log ${job.id}`
  })
}

/** @param which  slug of a job, or the number of one that was deleted */
export function log(which: string): Promise<string> {
  return withStore(async (store) => {
    const gone = /^\d{1,9}$/.test(which)
      ? (await deletedJobs(store)).find((job) => job.id === Number(which))
      : undefined
    const job = (await namedJobs(store)).find((each) => each.slug === which) ?? gone
    if (!job)
      throw new CommandError(
        2,
        `There is no job "${which}", and none with this number was deleted. See: muster jobs --deleted`,
      )
    const lines = (await jobLog(store, job.id)).map(
      (line) => `${line.at.toISOString()}  ${'event' in line ? JSON.stringify(line.event) : sentence(line.told)}`,
    )
    return lines.length === 0 ? 'Nothing was logged.' : lines.join('\n')
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
        if (error instanceof JobExistsError) throw new CommandError(2, sentence(error.told))
        throw error
      }
      lines.push(`${document.slug} is loaded: ${document.units.length} units.`)
    }
    return lines.join('\n')
  })
}

export function sweepBench(slug: string): Promise<string> {
  return withStore(async (store) => {
    const { job } = await mustView(store, slug)
    await orderSweep(store, job)
    return 'The bench is being swept.'
  })
}

export function lend(slug: string, state: string): Promise<string> {
  const wanted = lendingSchema.safeParse(state)
  if (!wanted.success) throw new CommandError(2, `"${state}" is neither on nor off.`)
  return withStore(async (store) => {
    const { job } = await mustView(store, slug)
    await lendAddresses(store, job, wanted.data, fromCommandLine)
    return lendingSaid[wanted.data]
  })
}

/** After so long without a runner that has ever reported, ms, none is waited for. */
const noRunnerMs = 8000
/** One that has reported may be on its way back: its starter waits up to 15 s before it starts it again. */
const silentRunnerMs = 45_000

/**
 * @returns the roll; with `wait` once the muster is over
 * @throws CommandError 1 where not every unit answers or the muster failed, 2 where it cannot begin, 3 where no runner
 *   works
 */
export function run(slug: string, { wait, units }: { wait?: true; units?: string[] }): Promise<string> {
  return withStore(async (store) => {
    const before = await mustView(store, slug)
    const selection = selected(before, units)
    let order: number
    try {
      const placed = await orderMuster(store, before.job, selection)
      if (!placed.ok || placed.value === undefined) throw new CommandError(2, placed.ok ? '' : sentence(placed.told))
      order = placed.value
    } catch (error) {
      if (error instanceof MusterOpenError) throw new CommandError(2, sentence(error.told))
      throw error
    }
    if (!wait) return 'The muster begins.'
    await over(store, before.job.id, order)
    const view = await mustView(store, slug)
    const text = rollText(view.units, view.roll, ofUnits(view))
    const chosen = view.units.filter((unit) => isSelected(selection, unit.id))
    if (!called(chosen, view.cards).every((unit) => answers(view.roll.rows.get(unit.id))))
      throw new CommandError(1, text)
    return text
  })
}

/** Waits until an order is over, and any that a runner places itself when somebody's hands have helped. */
async function over(store: Store, jobId: number, order: number): Promise<void> {
  const since = performance.now()
  for (;;) {
    const state = await orderState(store, order)
    if (state?.status === 'failed')
      throw new CommandError(
        1,
        `The muster failed three times and is not begun again by itself: ${sentenceOfText(state.reason ?? '')}`,
      )
    if (!(await musterIsOpen(store, jobId))) return
    const silentMs = (await runnerSilentMs(store)) ?? Number.POSITIVE_INFINITY
    const patienceMs = silentMs === Number.POSITIVE_INFINITY ? noRunnerMs : silentRunnerMs
    if (silentMs > patienceMs && performance.now() - since > patienceMs)
      throw new CommandError(
        3,
        'No runner works on the wire. The order waits, and is carried out when one runs: see whether npm run ' +
          'demo still runs.',
      )
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
}

/** Units by their names or ids. */
function selected(view: JobView, asked: readonly string[] | undefined): Selection {
  return asked === undefined ? allUnits : theseUnits(...new Set(asked.map((word) => mustUnit(view, word).id)))
}

/** @param word  name or id of a unit. @throws CommandError 2 naming the units that there are */
export function mustUnit({ units, job }: JobView, word: string): Unit {
  const found =
    units.find((unit) => unit.id === word) ?? units.find((unit) => unit.name.toLowerCase() === word.toLowerCase())
  if (found) return found
  throw new CommandError(
    2,
    `There is no unit "${word}" in ${job.slug}. There are: ${units.map((unit) => unit.name).join(', ')}.`,
  )
}

export function roll(slug: string, { json }: { json?: true }): Promise<string> {
  return withStore(async (store) => {
    const view = await mustView(store, slug)
    if (!json) return rollText(view.units, view.roll, ofUnits(view))
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

export interface ExportForms {
  readonly csv?: true
  readonly settings?: true
  readonly json?: true
  readonly job?: true
}

export function exportSheet(slug: string, { csv, settings, json, job: whole }: ExportForms): Promise<string> {
  if (!csv && !settings && !json && !whole)
    throw new CommandError(
      2,
      'Say in which form: muster export <job> --csv for the units, --settings for every setting, --json for ' +
        'both, or --job for the whole job without its secrets.',
    )
  return withStore(async (store) => {
    const view = await mustView(store, slug)
    if (whole) return JSON.stringify(await exportJob(store, view.job, undefined), null, 2)
    if (csv) return asBuiltCsv(sheetOf(view)).trimEnd()
    return settings ? outcomesCsv(sheetOf(view)).trimEnd() : JSON.stringify(forPrograms(sheetOf(view)), null, 2)
  })
}
