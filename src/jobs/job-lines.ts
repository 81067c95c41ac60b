/**
 * All jobs, a line each: how far each is, or why it cannot be read. One that cannot be read leaves the others alone.
 */

import type { Brief } from '../core/brief/brief'
import type { Message } from '../core/message/message'
import { type Course, courseOf } from '../core/muster/called'
import { BrokenRowError } from '../store/faults'
import { type Job, listJobs } from '../store/jobs'
import type { Store } from '../store/open'
import { viewJob } from './job-view'

export interface KeptJobLine {
  readonly id: number
  readonly slug: string
  readonly name: string
  readonly brief: Brief | undefined
  /** Undefined where it cannot be read. */
  readonly course: Course | undefined
  readonly fault: Message | undefined
}

/** In order of their names. */
export async function jobLines(store: Store): Promise<KeptJobLine[]> {
  const { jobs, broken } = await listJobs(store)
  const whole = await Promise.all(jobs.map((job) => lineOf(store, job)))
  const faulty = broken.map(
    ({ told, ...job }): KeptJobLine => ({ ...job, brief: undefined, course: undefined, fault: told }),
  )
  return [...whole, ...faulty].sort((a, b) => a.name.localeCompare(b.name))
}

async function lineOf(store: Store, { id, slug, name, brief }: Job): Promise<KeptJobLine> {
  const line = { id, slug, name, brief }
  try {
    const view = await viewJob(store, slug)
    return { ...line, course: view && courseOf(view.units, view.roll, view.cards), fault: undefined }
  } catch (error) {
    if (!(error instanceof BrokenRowError)) throw error
    return { ...line, course: undefined, fault: error.told }
  }
}
