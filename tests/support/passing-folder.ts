/** Folders for what is gone after the tests. */
import { existsSync, mkdtempSync, statfsSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const memory = '/dev/shm'
/** What the databases of all tests take at the most, bytes. */
const mostBytes = 4 * 2 ** 30

/** A new folder, in memory where there is some: on a disk every commit of every test would wait for it. */
export function passingFolder(name: string): string {
  const hasRoom = existsSync(memory) && statfsSync(memory).bavail * statfsSync(memory).bsize > mostBytes
  return mkdtempSync(join(hasRoom ? memory : tmpdir(), name))
}
