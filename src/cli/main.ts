/** The `muster` command as a program. */
import { runCommand } from './commands'

process.exitCode = await runCommand(process.argv.slice(2), {
  print: (text) => process.stdout.write(`${text}\n`),
  complain: (sentence) => process.stderr.write(`${sentence}\n`),
})
