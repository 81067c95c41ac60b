// Child processes: started with a log, waited for until they are ready, ended by their id.
import { spawn } from 'node:child_process'
import { closeSync, openSync, readFileSync } from 'node:fs'

/**
 * Starts a child whose words go to a log. It has a channel to us: when we are gone, it ends by itself.
 * @returns {{ pid: number, stop: (patienceMs?: number) => Promise<void>, ended: Promise<number | null>, logFile: string
 *   }}
 */
export function startChild(command, args, { env, cwd, logFile, channel = true, input = 'none' }) {
  const log = openLog(logFile)
  const child = spawn(command, args, {
    cwd,
    env: { ...process.env, ...env },
    // An input that stays open as long as we live: who reads it sees us end, also through sudo.
    stdio: [input === 'tied' ? 'pipe' : 'ignore', log, log, ...(channel ? ['ipc'] : [])],
  })
  closeSync(log)
  child.unref()
  child.channel?.unref()
  child.stdin?.unref?.()
  child.stdin?.on('error', () => undefined)
  const ended = new Promise((resolve) => {
    child.once('exit', (code) => resolve(code))
    child.once('error', () => resolve(127))
  })
  return {
    pid: child.pid,
    stop: (patienceMs) => stopChild(child, ended, patienceMs),
    ended,
    logFile,
    kill: (signal) => child.kill(signal),
  }
}

/** A full disk must not keep anything from starting. */
function openLog(file) {
  try {
    return openSync(file, 'a')
  } catch {
    return openSync('/dev/null', 'a')
  }
}

/** Asks it to end, and after some patience no longer asks. */
async function stopChild(child, ended, patienceMs = 8000) {
  if (child.exitCode !== null || child.signalCode !== null) return
  child.ref()
  child.kill('SIGTERM')
  const timer = setTimeout(() => child.kill('SIGKILL'), patienceMs)
  await ended
  clearTimeout(timer)
}

/**
 * Waits until a question is answered with something, or the child ends.
 * @throws Error with the end of its log
 */
export async function until(child, what, ask, seconds = 60) {
  const deadline = Date.now() + seconds * 1000
  let over = false
  child.ended.then(() => {
    over = true
  })
  while (Date.now() < deadline) {
    const answer = await ask()
    if (answer) return answer
    if (over) break
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  await child.stop()
  throw new Error(
    `${what} ${over ? 'ended at once' : `was not ready in ${seconds} s`}. The end of ` +
      `${child.logFile}:\n${readFileSync(child.logFile, 'utf8').slice(-1500)}`,
  )
}
