/** Plans in a worker thread: a large site takes seconds, and pages are answered in that time. */

import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { message } from '../core/message/message'
import { ToldError } from '../core/message/told-error'
import { makePlan, type PlanInput, type Planning } from '../core/plan/plan'

/** Up to here a thread takes longer to start than the plan takes. */
const fewUnits = 6

export async function planInThread(input: PlanInput): Promise<Planning> {
  if (input.units.length <= fewUnits) return makePlan(input)
  return new Promise((resolve, reject) => {
    // Not by `new`: the bundler of the pages would look for the file among its own.
    const worker: Worker = Reflect.construct(Worker, [
      join(process.env.AIR_MUSTER_ROOT ?? process.cwd(), 'dist/planner.mjs'),
      { workerData: input },
    ])
    worker.once('message', resolve)
    worker.once('error', reject)
    worker.once('exit', (code) => reject(new ToldError(message('planner-ended', { code }))))
  })
}
