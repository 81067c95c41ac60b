// The demo with its pages: runs until Ctrl-C, then ends every child.
import { spawn } from 'node:child_process'
import { mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoSizes, loadDemoJob } from './demo-job.mjs'
import { root } from './root.mjs'
import { runningNote } from './running-note.mjs'
import { startStack } from './stack.mjs'

const folder = process.env.AIR_MUSTER_DATA ?? join(root, '.data/demo')
const note = runningNote(folder)

/** @param {{ pace: number, port: number, size: 'small' | 'whole' | 'boxes' }} options */
export async function demoInBrowser({ pace, port, size }) {
  const before = await dealWithEarlierStart()
  if (before) {
    process.stdout.write(`${before}\n`)
    return 0
  }
  // The stand-ins come out of their boxes anew at each start, so the job does too.
  rmSync(folder, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  let stack
  // The same signal may come twice, from the terminal and from npm: the second must not cut the ending short.
  const stopped = new Promise((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, resolve)
  })
  try {
    const { jobs, shelf } = demoSizes[size]
    stack = await startStack({ folder, pace, wantedPort: port, shelf, onPids: note.tellPids })
    await loadDemoJob(stack.env, jobs)
    const address = `${stack.url}/jobs/${jobs[0]}/bench?key=${stack.key}`
    note.tell({ address, databaseUrl: stack.databaseUrl, vaultKeyFile: stack.vaultKeyFile })
    process.stdout.write(`\nAir Muster is ready: ${address}\nWhoever has this address can open it. Ctrl-C ends it.\n`)
    openInBrowser(address)
    const alive = setInterval(() => {}, 60_000)
    await stopped
    clearInterval(alive)
    process.stdout.write('Ending …\n')
    return 0
  } finally {
    await stack?.stop()
    note.remove()
  }
}

/** @returns a sentence about a demo that runs */
async function dealWithEarlierStart() {
  const before = await note.take()
  if (!before) return undefined
  const { launcher, address } = before
  if (!address) return 'The demo is starting already; its own terminal will say where.'
  return (await answers(address))
    ? `The demo runs already: ${address}`
    : 'The demo runs already, and its pages do not answer at the moment: they are started again by themselves. ' +
        `Then: ${address}\nIf they stay away, end process ${launcher} and start anew.`
}

async function answers(address) {
  try {
    return (await fetch(new URL('/api/health', address), { signal: AbortSignal.timeout(3000) })).ok
  } catch {
    return false
  }
}

/**
 * Opens the page where there is a screen to open it on. By a file that only we can read: everybody on this machine sees
 * the words that a program was started with, and the address holds the key.
 */
function openInBrowser(address) {
  if (!process.env.DISPLAY && !process.env.WAYLAND_DISPLAY) return
  const page = join(folder, 'open.html')
  writeFileSync(
    page,
    '<!doctype html><title>Air Muster</title><meta http-equiv="refresh" ' +
      `content="0;url=${address.replaceAll('&', '&amp;')}">`,
    { mode: 0o600 },
  )
  const child = spawn('xdg-open', [page], { stdio: 'ignore', detached: true })
  child.once('error', () => {})
  child.unref()
}
