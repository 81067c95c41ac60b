// The whole example without a browser, in a folder of its own that is gone afterwards.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoSizes, loadDemoJob, musterCommand } from './demo-job.mjs'
import { startStack } from './stack.mjs'

/** @param {{ pace: number, size: 'small' | 'whole' }} options */
export async function demoHeadless({ pace, size }) {
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-'))
  let stack
  let cleaning
  const cleanUp = () => {
    cleaning ??= Promise.resolve(stack?.stop()).then(() => rmSync(folder, { recursive: true, force: true }))
    return cleaning
  }
  // The same signal may come twice, from the terminal and from npm: the second must not cut the cleaning short.
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => cleanUp().then(() => process.exit(130)))
  try {
    const { jobs, shelf } = demoSizes[size]
    stack = await startStack({ folder, pace, web: false, shelf })
    await loadDemoJob(stack.env)
    return (await musterCommand(stack.env, ['run', jobs[0], '--wait'])).code
  } finally {
    await cleanUp()
  }
}
