/**
 * Which installation a command speaks to: the one that it names, else the environment's, else the one that runs here.
 */
import { existsSync, readFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { join, resolve } from 'node:path'
import { z } from 'zod'
import { type StoreOptions, storeOptionsFromEnvironment } from '../jobs/installation'
import { CommandError } from './command-error'

const runningSchema = z.object({
  launcher: z.int(),
  databaseUrl: z.string(),
  vaultKeyFile: z.string(),
  interfaceName: z.string().optional(),
  helperSocket: z.string().optional(),
})
type Running = z.infer<typeof runningSchema>

/** Folder of data that this command names. */
let named: string | undefined

/** @param folder  as `npm start -- --data` was given it; undefined for whatever runs here */
export function lookIn(folder: string | undefined): void {
  named = folder && resolve(folder)
}

/** @throws CommandError where nothing runs */
export function installation(): StoreOptions {
  if (process.env.AIR_MUSTER_DB && named === undefined) {
    if (!process.env.AIR_MUSTER_VAULT_FILE)
      throw new CommandError(2, 'AIR_MUSTER_DB is set and AIR_MUSTER_VAULT_FILE is not: set both, or neither.')
    return storeOptionsFromEnvironment()
  }
  const { databaseUrl, vaultKeyFile } = running()
  return { url: databaseUrl, vaultKeyFile }
}

/** Where installations keep their data: the one that is named, else that of npm start and that of the demo. */
export function dataFolders(): string[] {
  const chosen = named ?? process.env.AIR_MUSTER_DATA
  if (chosen) return [chosen]
  const state = process.env.XDG_STATE_HOME || join(homedir(), '.local/state')
  return [join(state, 'air-muster'), join(process.env.AIR_MUSTER_ROOT ?? process.cwd(), '.data/demo')]
}

/** What runs here. @throws CommandError where nothing does */
export function running(): Running {
  const notes = dataFolders()
    .map((folder) => join(folder, 'running.json'))
    .filter((file) => existsSync(file))
  const read = notes.map((file) => ({ file, note: readNote(readFileSync(file, 'utf8')) }))
  const alive = read.find(({ note }) => note && isAlive(note.launcher))
  if (alive?.note) return alive.note
  const [first] = read
  if (!first)
    throw new CommandError(
      2,
      `Nothing runs with its data in ${dataFolders().join(' or ')}: start it with npm run demo, or on a real ` +
        'wire with npm start. Where that was given another folder, name it here too: --data FOLDER.',
    )
  if (!first.note)
    throw new CommandError(
      2,
      `${first.file} cannot be read: the start is still under way, or was broken off. Wait a moment, or ` +
        'start anew with npm run demo.',
    )
  throw new CommandError(
    2,
    `What ran here has ended without cleaning up (process ${first.note.launcher}): start it anew with npm run demo.`,
  )
}

/** What runs here; undefined where nothing does. */
export function whatRuns(): Running | undefined {
  try {
    return running()
  } catch (error) {
    if (error instanceof CommandError) return undefined
    throw error
  }
}

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
