import { closeSync, openSync, readFileSync, readSync } from 'node:fs'

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
  return reading(path, () => readFileSync(path, 'utf8'))
}

/** @throws CommandError where the file cannot be read */
export function requireReadable(path: string): void {
  reading(path, () => {
    const file = openSync(path, 'r')
    try {
      readSync(file, Buffer.alloc(1))
    } finally {
      closeSync(file)
    }
  })
}

function reading<T>(path: string, read: () => T): T {
  try {
    return read()
  } catch (error) {
    throw fileError(error, 'read', path) ?? error
  }
}

const reasons: Readonly<Record<string, string>> = {
  EACCES: 'you may not open it',
  EEXIST: 'it is there already; nothing is overwritten',
  EISDIR: 'it is a folder',
  ENOENT: 'it, or a folder above it, is not there',
  ENOSPC: 'the disk is full',
  ENOTDIR: 'what should be a folder above it is a file',
  EROFS: 'its disk can only be read',
}

/** What a system's error says of a file, as a sentence; undefined where it speaks of none. */
export function fileError(
  error: unknown,
  done: 'read' | 'written' | 'used',
  path = (error as NodeJS.ErrnoException).path,
): CommandError | undefined {
  if (!(error instanceof Error) || path === undefined) return undefined
  const { code = '' } = error as NodeJS.ErrnoException
  return new CommandError(2, `${path} cannot be ${done}: ${reasons[code] ?? error.message}.`)
}
