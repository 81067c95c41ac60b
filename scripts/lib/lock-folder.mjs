// One installation at a time works with a folder of data.
import { readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** @returns {(() => void) | undefined} gives it free again; undefined where somebody has it */
export function lockFolder(folder) {
  const file = join(folder, 'running.pid')
  for (let tries = 0; tries < 2; tries += 1) {
    try {
      writeFileSync(file, String(process.pid), { flag: 'wx', mode: 0o600 })
      return () => rmSync(file, { force: true })
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
      if (isRunning(Number(readFileSync(file, 'utf8')))) return undefined
      // Whoever had it was ended in the middle.
      rmSync(file, { force: true })
    }
  }
  return undefined
}

function isRunning(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs')
  } catch {
    return false
  }
}
