/** The `muster` command, from its words. What needs the database is loaded only by the commands that use it. */

import { Command } from 'commander'
import { ToldError } from '../core/message/told-error'
import { sentence } from '../words/en/sentence'
import type { BackupOptions } from './backup'
import { CommandError, fileError } from './command-error'
import { lookIn } from './installation'
import { type RulesOptions, rules } from './rules'

const jobCommands = () => import('./job-commands')

export interface Outlet {
  /** Told each line of what was asked for. */
  print(text: string): void
  /** Told why it cannot be carried out. */
  complain(sentence: string): void
}

/** @returns the exit code; 0 where it was carried out */
export async function runCommand(words: readonly string[], { print, complain }: Outlet): Promise<number> {
  let status = 0
  const endWith = (code: number): void => {
    status = code
  }
  try {
    await commandLine(print, endWith).parseAsync(words, { from: 'user' })
    return status
  } catch (error) {
    const fault = commandErrorOf(error)
    if (!fault) throw error
    complain(fault.message)
    return fault.exitCode
  }
}

/** What was wrong, where it is something that whoever typed the command can see to. */
function commandErrorOf(error: unknown): CommandError | undefined {
  if (error instanceof CommandError) return error
  return error instanceof ToldError ? new CommandError(2, `${sentence(error.told)}.`) : fileError(error, 'used')
}

/** @param endWith  told the exit code of a command that was carried out, where it is not 0 */
function commandLine(print: Outlet['print'], endWith: (code: number) => void): Command {
  const program = new Command('muster')
    .description('Air Muster from the command line')
    .option('--data <folder>', 'where the data of the installation lies, as npm start was told')
    .hook('preAction', (whole) => lookIn(whole.opts<{ data?: string }>().data))
    .showHelpAfterError()
  program
    .command('jobs')
    .description('list the jobs, each with how many of its units answer')
    .option('--deleted', 'those that were deleted')
    .action(async (options: { deleted?: true }) => print(await (await jobCommands()).jobs(options)))
  program
    .command('run <job>')
    .description('muster the units of a job')
    .option('--wait', 'wait until it is over; exit 0 only if every unit answers, 3 where no runner works')
    .option('--units <names...>', 'only these units, by name or id')
    .action(async (job: string, options: { wait?: true; units?: string[] }) =>
      print(await (await jobCommands()).run(job, options)),
    )
  program
    .command('lend <job> <on|off>')
    .description('lend addresses on the bench to units of a job that wait for one, or no more')
    .action(async (job: string, state: string) => print(await (await jobCommands()).lend(job, state)))
  program
    .command('roll <job>')
    .description('print the roll')
    .option('--json', 'for programs')
    .action(async (job: string, options: { json?: true }) => print(await (await jobCommands()).roll(job, options)))
  program
    .command('export <job>')
    .description('print the as-built sheet, or the whole job')
    .option('--csv', 'the units of the as-built sheet as CSV')
    .option('--settings', 'what became of every setting, as CSV')
    .option('--json', 'the as-built sheet with every setting, as JSON')
    .option('--job', 'the whole job as a file, without its secrets')
    .action(async (job: string, options: { csv?: true; settings?: true; json?: true; job?: true }) =>
      print(await (await jobCommands()).exportSheet(job, options)),
    )
  program
    .command('copy <job> <unit>')
    .description("print a unit's configuration in its own form, as it was left; the asking is recorded")
    .option('--found', 'as it was found instead, before the first change')
    .action(async (job: string, unit: string, { found }: { found?: true }) => {
      const { printCopy } = await import('./copy')
      print(await printCopy(job, unit, found ? 'as-found' : 'as-left'))
    })
  program
    .command('delete <job>')
    .description('delete a job; its log is kept')
    .requiredOption('--name <name>', 'its name as it stands, to be sure')
    .action(async (job: string, options: { name: string }) => print(await (await jobCommands()).remove(job, options)))
  program
    .command('log <job>')
    .description('print the log of a job, also of a deleted one by its number')
    .action(async (job: string) => print(await (await jobCommands()).log(job)))
  program
    .command('load <files...>')
    .description('load jobs from YAML or JSON files')
    .action(async (files: string[]) => print(await (await jobCommands()).load(files)))
  program
    .command('key <job> [file]')
    .description('keep an SSH private key, with which units that were set up before are signed in to')
    .option('--remove', 'take it away')
    .action(async (job: string, file: string | undefined, options: { remove?: true }) =>
      print(await (await import('./key')).key(job, file, options)),
    )
  program
    .command('sweep <job>')
    .description('look who is on the wire')
    .action(async (job: string) => print(await (await jobCommands()).sweepBench(job)))
  program
    .command('rules [country]')
    .description('print the channels that are legal in a country')
    .option('--json', 'for programs')
    .option('--all', 'every country, one to a line')
    .action((country: string | undefined, options: RulesOptions) => print(rules(country, options)))

  program
    .command('plan')
    .description('solve a channel problem from a file')
    .requiredOption('--problem <file>', 'radios, their options and who hears whom, as JSON; - for standard input')
    .option('--json', 'for programs')
    .action(async (options: { problem: string; json?: true }) => print((await import('./plan')).plan(options)))

  program
    .command('doctor')
    .description('say what stands in the way of working a wire from this laptop, and what cures it')
    .option('--interface <name>', 'the wired interface to the bench')
    .option('--json', 'for programs')
    .action(async (options: { interface?: string; json?: true }) =>
      print(await (await import('./doctor')).doctor(options, endWith)),
    )
  program
    .command('lane <unit>')
    .description('open a way of your own to one unit: its name on a kit list, or MAC@address')
    .option('--ports <numbers...>', 'ports of the unit to lead to; that of its management service where none is named')
    .action(async (unit: string, options: { ports?: string[] }) => (await import('./lane')).lane(unit, options, print))
  program
    .command('laptop')
    .description('put this laptop back as it was')
    .addCommand(new Command('restore').action(async () => print(await (await import('./laptop')).restoreLaptop())))

  program
    .command('backup <file>')
    .description('keep everything in one sealed file: jobs, logs, secrets')
    .option('--passphrase-file <file>', 'where its passphrase stands')
    .action(async (file: string, options: BackupOptions) =>
      print(await (await import('./backup')).backup(file, options)),
    )
  program
    .command('restore <file>')
    .description('replace everything by what a backup holds')
    .option('--passphrase-file <file>', 'where its passphrase stands')
    .option('--replace', 'also where there are jobs')
    .action(async (file: string, options: BackupOptions & { replace?: true }) =>
      print(await (await import('./backup')).restore(file, options)),
    )
  return program
}
