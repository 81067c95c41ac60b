/** Which installation a command speaks to: the environment's, else the one that runs from this folder. */
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { type StoreOptions, storeOptionsFromEnvironment } from '../store/open'
import { CommandError } from './command-error'

const runningSchema = z.object({ databaseUrl: z.string(), vaultKeyFile: z.string() })

/** @throws CommandError where nothing runs */
export function installation(): StoreOptions {
  if (process.env.AIR_MUSTER_DB) return storeOptionsFromEnvironment()
  const folder = process.env.AIR_MUSTER_DATA ?? join(process.env.AIR_MUSTER_ROOT ?? process.cwd(), '.data/demo')
  const file = join(folder, 'running.json')
  if (!existsSync(file)) throw new CommandError(2, 'Nothing runs here: start it with npm run demo.')
  const { databaseUrl, vaultKeyFile } = runningSchema.parse(JSON.parse(readFileSync(file, 'utf8')))
  return { url: databaseUrl, vaultKeyFile }
}
