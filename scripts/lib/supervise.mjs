// Keeps the parts of an installation running: one that ends without being told to is started again, after a pause that
// grows while it keeps ending. How the parts stand is written into a file that the pages read.
import { renameSync, writeFileSync } from 'node:fs'

const shortestPauseMs = 300
const longestPauseMs = 15_000
/** Who ran so long has recovered: the next pause is short again. */
const recoveredMs = 30_000

/**
 * @typedef {{ pid: number, ended: Promise<number | null>, stop: (patienceMs?: number) => Promise<void>, kill: (signal:
 *   string) => void }} Child
 *
 * @param {{ file: string, onPids?: (pids: number[]) => void }} options  `file`: where the standing of the parts is told
 */
export function supervise({ file, onPids = () => {} }) {
  const parts = []
  let stopping = false

  const tell = () => {
    const standing = parts.map(({ name, runs, since, restarts }) => ({
      name,
      standing: runs ? 'runs' : 'away',
      since,
      restarts,
    }))
    try {
      writeFileSync(`${file}.next`, JSON.stringify({ parts: standing }), { mode: 0o600 })
      renameSync(`${file}.next`, file)
    } catch {
      // A full disk: the pages see by themselves who answers.
    }
    onPids(parts.flatMap(({ child }) => child?.pid ?? []))
  }

  const watch = async (part) => {
    let pause = shortestPauseMs
    for (;;) {
      const began = performance.now()
      await part.child?.ended
      if (stopping) return
      if (performance.now() - began > recoveredMs) pause = shortestPauseMs
      Object.assign(part, { runs: false, child: undefined, since: new Date().toISOString() })
      tell()
      await part.rest(pause)
      pause = Math.min(pause * 2, longestPauseMs)
      if (stopping) return
      try {
        const child = await part.start()
        if (stopping) return void (await child.stop(part.patienceMs))
        Object.assign(part, { child, runs: true, since: new Date().toISOString(), restarts: part.restarts + 1 })
        tell()
      } catch (error) {
        process.stderr.write(`${part.name} could not be started again: ${String(error).split('\n')[0]}\n`)
      }
    }
  }

  return {
    /**
     * Takes over a part that runs.
     *
     * @param {string} name
     * @param {Child} child
     * @param {() => Promise<Child>} start  starts it again, at the same address
     * @param {number} [patienceMs]  how long it may take to end when it is told to
     */
    keep(name, child, start, patienceMs) {
      let wake = () => {}
      const rest = (ms) =>
        new Promise((resolve) => {
          const timer = setTimeout(resolve, ms)
          wake = () => {
            clearTimeout(timer)
            resolve()
          }
        })
      const part = {
        name,
        child,
        start,
        patienceMs,
        runs: true,
        since: new Date().toISOString(),
        restarts: 0,
        rest,
        wake: () => wake(),
      }
      parts.push(part)
      tell()
      part.over = watch(part)
    },
    /** The process that is a part now; undefined while it is away. */
    child: (name) => parts.find((part) => part.name === name)?.child,
    pids: () => parts.flatMap(({ child }) => child?.pid ?? []),
    /** Ends all of them, the last one first. */
    async stop() {
      stopping = true
      for (const part of parts) part.wake()
      for (const part of parts.toReversed()) {
        await part.child?.stop(part.patienceMs)
        await part.over
      }
    },
  }
}
