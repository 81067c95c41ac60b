import { readFileSync } from 'node:fs'

/** A command that cannot be carried out: the sentence for people, the exit code for programs. */
export class CommandError extends Error {
  override readonly name = 'CommandError'
  constructor(
    readonly exitCode: number,
    message: string,
  ) {
    super(message)
  }
}

/** @throws CommandError where the file cannot be read */
export function readText(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch (error) {
    throw new CommandError(2, `${path} cannot be read: ${error instanceof Error ? error.message : 'unknown reason'}.`)
  }
}
