/** Which installation a command speaks to: the environment's, else the one that runs from this folder. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { type StoreOptions, storeOptionsFromEnvironment } from '../jobs/installation'
import { CommandError } from './command-error'

const runningSchema = z.object({ launcher: z.int(), databaseUrl: z.string(), vaultKeyFile: z.string() })

/** @throws CommandError where nothing runs */
export function installation(): StoreOptions {
  if (process.env.AIR_MUSTER_DB) {
    if (!process.env.AIR_MUSTER_VAULT_FILE)
      throw new CommandError(2, 'AIR_MUSTER_DB is set and AIR_MUSTER_VAULT_FILE is not: set both, or neither.')
    return storeOptionsFromEnvironment()
  }
  const folder = process.env.AIR_MUSTER_DATA ?? join(process.env.AIR_MUSTER_ROOT ?? process.cwd(), '.data/demo')
  const file = join(folder, 'running.json')
  let text: string
  try {
    text = readFileSync(file, 'utf8')
  } catch {
    throw new CommandError(2, nothingRuns)
  }
  const running = readNote(text)
  if (!running)
    throw new CommandError(
      2,
      `${file} cannot be read: the start is still under way, or was broken off. Wait a moment, or start anew with npm run demo.`,
    )
  if (!isAlive(running.launcher))
    throw new CommandError(
      2,
      `What ran here has ended without cleaning up (process ${running.launcher}): start it anew with npm run demo.`,
    )
  return { url: running.databaseUrl, vaultKeyFile: running.vaultKeyFile }
}

const nothingRuns = 'Nothing runs here: start it with npm run demo.'

function readNote(text: string): z.infer<typeof runningSchema> | undefined {
  try {
    return runningSchema.parse(JSON.parse(text))
  } catch {
    return undefined
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}
