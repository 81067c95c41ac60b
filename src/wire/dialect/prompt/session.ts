/** A session that runs commands, whatever carries it. */
export interface Ran {
  /** What it printed, on both of its outputs. */
  readonly text: string
  /** Exit status; undefined where the unit tells none. */
  readonly status: number | undefined
}

export interface CommandSession {
  /** @throws WireError unreachable, timeout, or garbled where it prints without end */
  run(command: string, input: string | undefined, withinSeconds: number): Promise<Ran>
  close(): void
}

/** Bytes that one command may print. */
export const longestOutput = 1024 * 1024
