/** The `muster` command within a test: the same words and codes as the program's, without starting one for each. */
import { runCommand } from '../../src/cli/commands'

export interface CommandResult {
  readonly status: number
  readonly out: string
  readonly err: string
}

/** @param env  the environment of this command alone; others wait until it is over */
export async function muster(env: Readonly<Record<string, string>>, ...words: string[]): Promise<CommandResult> {
  const before = { ...process.env }
  Object.assign(process.env, env)
  let [out, err] = ['', '']
  try {
    const status = await runCommand(words, {
      print: (text) => {
        out += `${text}\n`
      },
      complain: (sentence) => {
        err += `${sentence}\n`
      },
    })
    return { status, out, err }
  } finally {
    for (const name of Object.keys(env)) {
      if (before[name] === undefined) delete process.env[name]
      else process.env[name] = before[name]
    }
  }
}
