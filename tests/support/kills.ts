/** Parts of an installation that are killed as a unit comes to a step of its muster. */
import { expect } from 'vitest'
import type { Installation } from './installation'
import { patienceMs } from './patience'

type Part = Parameters<Installation['pidOf']>[0]

/** Kills a process, as soon as the one that was killed before has been started again. */
export function killer(installation: Installation): (part: Part) => Promise<void> {
  const killedLast = new Map<Part, number>()
  return async (part) => {
    await expect.poll(() => installation.pidOf(part), { interval: 100 }).not.toBe(killedLast.get(part))
    const pid = installation.pidOf(part)
    killedLast.set(part, pid)
    process.kill(pid, 'SIGKILL')
  }
}

/** Waits until a unit works on a step: one process that reads what is new, since the machines need all else. */
export async function reachedStep(installation: Installation, step: string): Promise<void> {
  const came = await installation.script<boolean>(
    `import { openStore, storeOptionsFromEnvironment } from './src/store/open.ts'
    import { eventsAfter } from './src/store/events.ts'
    const store = openStore(storeOptionsFromEnvironment())
    const end = Date.now() + ${patienceMs}
    const tell = (came) => { console.log(came); process.exit(0) }
    for (let last = 0; Date.now() < end; await new Promise((resolve) => setTimeout(resolve, 100))) {
      const events = await eventsAfter(store, 1, last)
      last = events.at(-1)?.seq ?? last
      const works = ({ event }) =>
        event.kind === 'step' && event.step === ${JSON.stringify(step)} && event.state.kind === 'working'
      if (events.some(works)) tell(true)
    }
    tell(false)`,
    'sources',
  )
  if (!came) throw new Error(`no unit came to ${step}`)
}

/** Where a unit of the demo's job is held, the end of its log, which says why. */
export async function troublesOf(installation: Installation): Promise<string[]> {
  const lines = (await installation.muster('log', 'port-ellery')).text.split('\n')
  const held = lines.filter((line) => line.includes('"held"') || line.includes('"bad"'))
  const unit = /"unit":"([^"]+)"/.exec(held[0] ?? '')?.[1]
  return unit === undefined
    ? []
    : lines.filter((line) => line.includes(`"${unit}"`) && !line.includes('"sweep"')).slice(-40)
}
