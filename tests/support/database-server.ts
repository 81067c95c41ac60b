/** One MariaDB for all tests, in a folder that is gone afterwards. Each test makes a database of its own on it. */
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { mariadbIn, startMariadb } from '../../scripts/lib/mariadb.mjs'

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string
    databaseFolder: string
  }
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-test-'))
  // Made once: whoever starts a server of its own gets a copy.
  const empty = join(folder, 'empty')
  mariadbIn(folder)
  cpSync(join(folder, 'data'), empty, { recursive: true })
  process.env.AIR_MUSTER_EMPTY_DATA = empty
  const server = await startMariadb(folder)
  project.provide('databaseUrl', server.urlOf('air_muster'))
  project.provide('databaseFolder', folder)
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
