// The note of what runs with a folder of data: for a second start, for one after a crash, and for the muster command.
import { readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './root.mjs'

/**
 * @param {string} folder  of data
 * @param {string} program  words of the command line of whoever starts it
 */
export function runningNote(folder, program) {
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
    /** @returns {{ launcher: number, address?: string } | undefined} what runs here already; ends what a crash has left behind */
    earlier: () => {
      const before = read(file)
      if (!before) return undefined
      if (commandOf(before.launcher)?.includes(program)) return before
      for (const pid of before.pids ?? []) {
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
