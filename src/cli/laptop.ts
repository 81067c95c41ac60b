/** `muster laptop restore`: takes away whatever was added to this laptop, whether anything still runs or not. */
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { askHelper } from '../wire/host/linux'
import { CommandError } from './command-error'
import { dataFolders, whatRuns } from './installation'

export async function restoreLaptop(): Promise<string> {
  const socket = whatRuns()?.helperSocket
  if (socket) {
    const { ask, close } = askHelper(socket)
    await ask('restore', {})
    close()
    return 'This laptop is as it was.'
  }
  const ledgers = dataFolders()
    .map((folder) => join(folder, 'laptop.ledger'))
    .filter((file) => existsSync(file))
  for (const ledger of ledgers) takeBack(ledger)
  return ledgers.length === 0 ? 'Nothing was ever added to this laptop.' : 'This laptop is as it was.'
}

/** The helper by itself, only to take back what its ledger says. */
function takeBack(ledger: string): void {
  const program = join(process.env.AIR_MUSTER_ROOT ?? process.cwd(), 'dist/wire-helper.mjs')
  const words = [`AIR_MUSTER_LEDGER=${ledger}`, process.execPath, program, '--restore-only']
  const prefix = process.getuid?.() === 0 ? [] : ['sudo']
  const [command = '', ...rest] = [...prefix, 'env', ...words]
  if (spawnSync(command, rest, { stdio: 'inherit' }).status !== 0)
    throw new CommandError(1, `What ${ledger} says could not be taken back; the reason is above.`)
}
