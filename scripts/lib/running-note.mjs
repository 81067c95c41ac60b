// The note of what runs with a folder of data: for a second start, for one after a crash, and for the muster command.
import { createHash } from 'node:crypto'
import { readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { root } from './root.mjs'

/** @param {string} folder  of data */
export function runningNote(folder) {
  const file = join(folder, 'running.json')
  let more = {}
  let pids = []
  const write = () => {
    // Written whole under another name first: whoever reads it finds the old or the new.
    writeFileSync(`${file}.next`, JSON.stringify({ launcher: process.pid, pids, ...more }), { mode: 0o600 })
    renameSync(`${file}.next`, file)
  }
  return {
    /** Who our parts are, each time one is started again. */
    tellPids: (now) => {
      pids = now
      write()
    },
    tell: (facts) => {
      more = { ...more, ...facts }
      write()
    },
    remove: () => rmSync(file, { force: true }),
    /**
     * Makes the folder this process's own for as long as it runs, and ends what a crash has left behind.
     *
     * @returns {Promise<{ launcher?: number, address?: string } | undefined>} what runs here already, as far as it has
     *   said
     */
    take: async () => {
      const isOurs = await lock(folder)
      const before = read(file)
      if (!isOurs) return before ?? {}
      for (const pid of before?.pids ?? []) {
        const command = commandOf(pid)
        // A number may belong to somebody else by now: only what is plainly ours is ended.
        if (!command || ![folder, join(root, 'dist'), 'next-server'].some((word) => command.includes(word))) continue
        try {
          process.kill(pid, 'SIGKILL')
        } catch {
          // It was started through sudo, and ends by itself when its starter is gone.
        }
      }
      return undefined
    },
  }
}

/**
 * Of all that ask at one moment the kernel lets one have it, and takes it back when that process ends, however it ends.
 */
function lock(folder) {
  const name = createHash('sha256').update(resolve(folder)).digest('hex')
  const server = createServer().unref()
  return new Promise((done, fail) => {
    server.once('error', (error) => (error.code === 'EADDRINUSE' ? done(false) : fail(error)))
    // A name without a file (unix(7), abstract sockets): nothing is left of it.
    server.listen(`\0air-muster ${process.getuid()} ${name}`, () => done(true))
  })
}

/** @returns undefined where there is no note, or one that was cut off */
function read(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return undefined
  }
}

/** The command line of a process; undefined where there is none of this number. */
function commandOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')
  } catch {
    return undefined
  }
}
